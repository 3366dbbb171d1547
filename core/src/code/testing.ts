import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { USUAL_MATERIALS } from '../cutting/index.ts'
import { type EngraveDraft, engraveForm, exampleEngraving, newEngraving } from '../cycles/engraving/index.ts'
import type { GrooveDraft } from '../cycles/grooving/index.ts'
import { exampleGroove, grooveForm, grooveSizes, newGroove } from '../cycles/grooving/index.ts'
import { exampleTap, newTap, type TapDraft, tapForm } from '../cycles/tapping/index.ts'
import {
  exampleWrap,
  newWrap,
  type WrapDraft,
  type WrapParams,
  wrapForm,
  wrapSizes,
} from '../cycles/wrapping/index.ts'
import type { Machine, RotaryAxis } from '../machine/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import type { CycleSheet } from './sheet.ts'
import type { SheetCase } from './write-sheet.ts'

export const [compact, twoLine, plain] = BUILT_IN_PROFILES as [Profile, Profile, Profile]

/** A machine of middling size, for tests. */
export const machineOf = (kind: 'mill' | 'lathe', unit: LengthUnit = 'inch'): Machine => {
  const own = unit === 'mm' ? 25.4 : 1
  return {
    id: 'm',
    version: 1,
    name: 'Machine',
    kind,
    unit,
    axes: {
      X: { least: -40 * own, greatest: 0 },
      Y: kind === 'mill' ? { least: -20 * own, greatest: 0 } : null,
      Z: { least: -30 * own, greatest: 0 },
    },
    tableMoves: { X: false, Y: false },
    home: { X: 0, Y: 0, Z: 0 },
    rapids: { X: 1000 * own, Y: kind === 'mill' ? 1000 * own : null, Z: 1000 * own },
    dynamics: {
      acceleration: { X: 60 * own, Y: kind === 'mill' ? 60 * own : null, Z: 60 * own },
      smoothing: 0,
      topFeed: 500 * own,
      cornerTolerance: 0.001 * own,
      spindleTop: 8000,
      tapTop: 3000,
      spindleAcceleration: 40,
      spindleTimed: true,
      toolChange: 4,
      rotary: null,
    },
    rotary: null,
    around: null,
    head:
      kind === 'mill'
        ? {
            nose: { diameter: 3 * own, length: 2 * own },
            left: 5 * own,
            right: 5 * own,
            front: 5 * own,
            back: 10 * own,
          }
        : null,
    turret: kind === 'lathe' ? { stations: 12, across: 12 * own, thick: 3 * own } : null,
    rapidMarks: null,
    xSpeeds: kind === 'lathe' ? 'slide' : null,
    costs: null,
    pallets: null,
    shape: 2,
    secondHome: null,
    readyList: null,
    leastStep: unit === 'inch' ? 0.0001 : 0.001,
    toolLengths: 'gauge-line',
    probe: null,
    profileId: 'compact',
    positions: null,
    note: '',
  }
}

export const caseOf = (
  kind: 'mill' | 'lathe',
  profile: Profile,
  more: Partial<SheetCase> = {},
): SheetCase => ({
  profile,
  machine: machineOf(kind),
  unit: 'inch',
  tools: [],
  angle: 0,
  offset: 'G54',
  materials: USUAL_MATERIALS,
  about: [],
  ...more,
})

/** A program of one cycle; what is not said is as in a new form. */
export function sheetOf(
  item:
    | { tap: Partial<TapDraft> }
    | { groove: Partial<GrooveDraft> }
    | { engrave: Partial<EngraveDraft> }
    | { wrap: Partial<WrapDraft> },
  unit: LengthUnit = 'inch',
): CycleSheet {
  const head = { title: 'test', number: 1234, material: 'mild-steel', turned: true, partsAShift: null }
  if ('tap' in item) {
    const draft = {
      ...newTap(unit, false),
      ...exampleTap(unit),
      chamferTool: '1',
      drillTool: '2',
      tapTool: '3',
      ...item.tap,
    }
    const read = tapForm.read(draft, unit)
    if (!read.ok) throw new Error(JSON.stringify(read.problems))
    return { ...head, items: [{ cycle: 'tap', id: 'a', off: false, params: read.value }] }
  }
  if ('engrave' in item) {
    const read = engraveForm.read(
      { ...newEngraving(unit), ...exampleEngraving(unit), tool: '5', text: 'AB-12', ...item.engrave },
      unit,
    )
    if (!read.ok) throw new Error(JSON.stringify(read.problems))
    return { ...head, items: [{ cycle: 'engrave', id: 'a', off: false, params: read.value }] }
  }
  if ('wrap' in item) {
    const read = wrapForm.read({ ...newWrap(unit), ...exampleWrap(unit), tool: '6', ...item.wrap }, unit)
    if (!read.ok) throw new Error(JSON.stringify(read.problems))
    return { ...head, items: [{ cycle: 'wrap', id: 'a', off: false, params: read.value }] }
  }
  const read = grooveForm.read(
    {
      ...newGroove(unit),
      ...exampleGroove(unit),
      tool: '4',
      insertWidth: '.125',
      reach: '1',
      ...item.groove,
    },
    unit,
  )
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return { ...head, items: [{ cycle: 'groove', id: 'a', off: false, params: read.value }] }
}

/** What the sizes of tests are computed for. */
export const mildSteel = USUAL_MATERIALS[1] as (typeof USUAL_MATERIALS)[number]

/** What a groove comes to, on a lathe of middling size in inches where nothing else is said. */
export function grooveSizesOf(groove: Partial<GrooveDraft>, on = caseOf('lathe', compact)) {
  const [item] = sheetOf({ groove }).items
  if (item?.cycle !== 'groove') throw new Error('no groove')
  return grooveSizes(item.params, on, mildSteel)
}

/** A mill with a rotary axis along X. */
export const onRotary = (
  profile: Profile = compact,
  rotary: Partial<RotaryAxis> = {},
  more: Partial<Machine> = {},
): SheetCase => ({
  ...caseOf('mill', profile),
  machine: { ...machineOf('mill'), rotary: { word: 'A', top: 'front', turns: null, ...rotary }, ...more },
})

/** A layout on a cylinder of 2 across, without numerals where nothing is said of them. */
export const wrapParamsOf = (wrap: Partial<WrapDraft>) =>
  sheetOf({ wrap: { diameter: '2', x: '0', tool: '6', numeralEvery: '0', ...wrap } }).items[0]
    ?.params as WrapParams

/** What such a layout comes to. */
export const wrapSizesOf = (wrap: Partial<WrapDraft>, on = onRotary()) =>
  wrapSizes(wrapParamsOf(wrap), on, mildSteel)
