import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { evenly } from '../../testing/evenly.ts'
import type { EngraveDraft } from '../cycles/engraving/index.ts'
import type { GrooveDraft } from '../cycles/grooving/index.ts'
import { type TapDraft, THREADS } from '../cycles/tapping/index.ts'
import type { WrapDraft } from '../cycles/wrapping/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import { caseOf, compact, machineOf, plain, sheetOf, twoLine } from './testing.ts'
import { type WrittenSheet, writeSheet } from './write-sheet.ts'

const profiles = fc.constantFrom(compact, twoLine, plain)
const units = fc.constantFrom<LengthUnit>('inch', 'mm')
/** Thousandths, as they are typed. */
const thou = (least: number, most: number, unit: LengthUnit) =>
  fc.integer({ min: least, max: most }).map((n) => ((n / 1000) * (unit === 'mm' ? 25 : 1)).toFixed(4))
const place = fc.integer({ min: -9000, max: 9000 }).map((n) => n / 1000)

/** Written, or refused for what the form says; never for what the reader found. */
function isMeant(written: WrittenSheet): boolean {
  const codes = [...written.findings, ...written.items.flatMap(({ findings }) => findings)]
  expect(codes.filter(({ code }) => code === 'not-read-back')).toEqual([])
  const stopped = codes.some(({ severity }) => severity === 'stop')
  expect(written.code === undefined).toBe(stopped)
  return !stopped
}

const tapDraft = (unit: LengthUnit): fc.Arbitrary<Partial<TapDraft>> =>
  fc.record({
    thread: fc.constantFrom(...THREADS.filter(({ taper }) => !taper).map(({ id }) => id)),
    hand: fc.constantFrom('right', 'left'),
    tap: fc.constantFrom('cut', 'form'),
    lead: fc.constantFrom('taper', 'plug', 'bottoming'),
    holder: fc.constantFrom('rigid', 'floating'),
    hole: fc.constantFrom('blind', 'through'),
    top: fc.constantFrom('0', '-.25', '1'),
    thickness: thou(100, 2000, unit),
    threadDepth: thou(100, 2000, unit),
    chamfer: fc.boolean(),
    drillWay: fc.constantFrom('peck', 'break', 'plain'),
    tapPeck: fc.boolean(),
    tapPeckDepth: fc.oneof(fc.constant(''), thou(50, 400, unit)),
    clearance: thou(1000, 3000, unit),
    returns: fc.constantFrom('initial', 'r'),
    feedMode: fc.constantFrom('minute', 'turn'),
    coolant: fc.boolean(),
    multiple: fc.constantFrom('best', 'left'),
    list: fc
      .uniqueArray(fc.tuple(place, place), { minLength: 1, maxLength: 6 })
      .map((points) => points.map((point) => point.join(' ')).join('\n')),
    pattern: fc.constantFrom('list', 'row', 'grid', 'circle', 'arc'),
    angle: fc.integer({ min: -90, max: 90 }).map(String),
  })

describe('what is written does what was planned, in every control', () => {
  it('tapped holes on a mill, also where the part lies askew', () => {
    let written = 0
    fc.assert(
      fc.property(
        units.chain((unit) => fc.tuple(fc.constant(unit), tapDraft(unit))),
        profiles,
        fc.oneof(fc.constant(0), evenly(-5, 5)),
        ([unit, tap], profile, angle) => {
          const on = caseOf('mill', profile, { unit, angle, machine: machineOf('mill', unit) })
          if (isMeant(writeSheet(sheetOf({ tap }, unit), on))) written++
        },
      ),
      depth(250, 2500),
    )
    expect(written).toBeGreaterThan(150)
  })

  it('texts in boxes, along lines, from a point and on arcs, with serial numbers, by the cycle and as moves', () => {
    const engraving = (unit: LengthUnit): fc.Arbitrary<Partial<EngraveDraft>> =>
      fc.record({
        text: fc
          .string({ unit: fc.constantFrom(...'ABCgjpq019 .,:-/=#'), minLength: 1, maxLength: 14 })
          .filter((of) => of.trim() !== ''),
        sits: fc.constantFrom('box', 'line', 'start', 'arc'),
        x: place.map(String),
        y: place.map(String),
        angle: evenly(-360, 360).map((n) => n.toFixed(3)),
        boxWidth: thou(500, 5000, unit),
        boxHeight: thou(200, 2000, unit),
        toX: place.map(String),
        toY: place.map(String),
        align: fc.constantFrom('middle', 'left', 'right'),
        diameter: thou(2000, 9000, unit),
        reads: fc.constantFrom('outside', 'inside'),
        height: fc.oneof(fc.constant(''), thou(60, 400, unit)),
        way: fc.constantFrom('cycle', 'moves'),
        top: fc.constantFrom('0', '-.5', '1'),
        toolAngle: fc.integer({ min: 30, max: 120 }).map(String),
        tip: thou(0, 10, unit),
        by: fc.constantFrom('width', 'depth'),
        sharp: fc.boolean(),
        coolant: fc.boolean(),
        serial: fc.integer({ min: 0, max: 99 }).map(String),
      })
    let written = 0
    fc.assert(
      fc.property(
        units.chain((unit) => fc.tuple(fc.constant(unit), engraving(unit))),
        profiles,
        fc.constantFrom(null, 0.8, 1.25),
        fc.oneof(fc.constant(0), evenly(-5, 5)),
        ([unit, engrave], control, widthFactor, angle) => {
          const { lettering } = control.reading
          const profile = {
            ...control,
            reading: { ...control.reading, lettering: { ...lettering, widthFactor } },
          }
          const on = caseOf('mill', profile, { unit, angle, machine: machineOf('mill', unit) })
          if (isMeant(writeSheet(sheetOf({ engrave }, unit), on))) written++
        },
      ),
      depth(300, 3000),
    )
    expect(written).toBeGreaterThan(100)
  })

  it('layouts round a cylinder: mapped, or by rotary words, whichever way the axis turns', () => {
    const flat = fc
      .array(
        fc.record({
          x: fc.integer({ min: -900, max: 900 }),
          y: fc.integer({ min: -900, max: 900 }),
          i: fc.integer({ min: 50, max: 900 }),
          arc: fc.constantFrom('G1', 'G2', 'G3', 'full'),
        }),
        { minLength: 1, maxLength: 6 },
      )
      .map((moves) => {
        const lines = ['G90 G0 X0. Y0.', 'Z.1', 'G1 Z-.01 F5.']
        let [x, y] = [0, 0]
        for (const { x: tx, y: ty, i, arc } of moves) {
          if (arc === 'full')
            lines.push(
              `G2 X${(x / 1000).toFixed(3)} Y${(y / 1000).toFixed(3)} I${(i / 1000).toFixed(3)} J0. F9.`,
            )
          else {
            ;[x, y] = [tx, ty]
            // By a radius that surely reaches.
            const r = arc === 'G1' ? '' : ` R${(i / 1000 + 3).toFixed(3)}`
            lines.push(`${arc} X${(x / 1000).toFixed(3)} Y${(y / 1000).toFixed(3)}${r} F9.`)
          }
        }
        return ['G20', ...lines, 'G0 Z.1'].join('\n')
      })
    const wrap = (unit: LengthUnit): fc.Arbitrary<Partial<WrapDraft>> =>
      fc.record({
        what: fc.constantFrom('scale', 'text', 'slots', 'holes', 'program'),
        diameter: thou(300, 6000, unit),
        trueAt: fc.constantFrom('surface', 'bottom'),
        zZero: fc.constantFrom('top', 'centre'),
        x: place.map(String),
        turn: fc.integer({ min: -360, max: 360 }).map(String),
        way: fc.constantFrom('mapping', 'moves'),
        slash: fc.boolean(),
        divisions: fc.integer({ min: 1, max: 60 }).map(String),
        covers: fc.constantFrom('turn', 'part'),
        span: fc.integer({ min: 1, max: 720 }).map(String),
        numeralsRun: fc.constantFrom('round', 'along'),
        text: fc.constantFrom('AB-12', 'g(1)', 'X'),
        runs: fc.constantFrom('along', 'round'),
        slotsRun: fc.constantFrom('along', 'round'),
        slots: fc.integer({ min: 1, max: 9 }).map(String),
        holes: fc.integer({ min: 1, max: 9 }).map(String),
        rows: fc.integer({ min: 1, max: 4 }).map(String),
        depth: thou(2, 60, unit),
        stepDown: fc.oneof(fc.constant(''), thou(10, 50, unit)),
        feed: thou(500, 200_000, unit),
        program: flat,
        coolant: fc.boolean(),
      })
    let written = 0
    fc.assert(
      fc.property(
        units.chain((unit) => fc.tuple(fc.constant(unit), wrap(unit))),
        profiles,
        fc.constantFrom('inverse-time' as const, 'along-way' as const),
        fc.constantFrom('front' as const, 'back' as const),
        ([unit, of], control, rotaryFeed, top) => {
          const profile = { ...control, reading: { ...control.reading, rotaryFeed } }
          const machine = { ...machineOf('mill', unit), rotary: { word: 'A' as const, top, turns: null } }
          const on = caseOf('mill', profile, { unit, machine })
          if (isMeant(writeSheet(sheetOf({ wrap: of }, unit), on))) written++
        },
      ),
      depth(300, 3000),
    )
    expect(written).toBeGreaterThan(150)
  })

  it('tapped holes on the centre line of a lathe', () => {
    let written = 0
    fc.assert(
      fc.property(
        units.chain((unit) => fc.tuple(fc.constant(unit), tapDraft(unit))),
        profiles,
        ([unit, tap], profile) => {
          const on = caseOf('lathe', profile, { unit, machine: machineOf('lathe', unit) })
          if (isMeant(writeSheet(sheetOf({ tap: { ...tap, pattern: 'list', list: '0 0' } }, unit), on)))
            written++
        },
      ),
      depth(120, 1200),
    )
    expect(written).toBeGreaterThan(60)
  })

  it('grooves outside, inside and in a face', () => {
    const groove = (unit: LengthUnit): fc.Arbitrary<Partial<GrooveDraft>> =>
      fc
        .record({
          where: fc.constantFrom('outside' as const, 'inside' as const, 'face' as const),
          insertWidth: fc.constantFrom(62, 94, 125, 250),
          extra: fc.integer({ min: 0, max: 1200 }),
          depth: fc.integer({ min: 40, max: 400 }),
          corner: fc.integer({ min: 0, max: 20 }),
          insertCorner: fc.integer({ min: 0, max: 15 }),
          edge: fc.constantFrom('none' as const, 'chamfer' as const, 'round' as const),
          edgeSize: fc.integer({ min: 3, max: 15 }),
          programmed: fc.constantFrom('low' as const, 'high' as const),
          pecking: fc.boolean(),
          finish: fc.boolean(),
          count: fc.integer({ min: 1, max: 3 }).map(String),
          speed: fc.constantFrom('surface' as const, 'turns' as const),
          share: fc.integer({ min: 20, max: 95 }),
        })
        .map(({ where, insertWidth, extra, depth, corner, insertCorner, edgeSize, share, ...rest }) => {
          const write = (n: number) => ((n / 1000) * (unit === 'mm' ? 25 : 1)).toFixed(4)
          const width = insertWidth + extra
          const surface = where === 'face' ? 0 : 2000
          return {
            ...rest,
            where,
            surface: write(surface),
            near: write(where === 'face' ? 2 * (1000 + width) : -300),
            far: write(where === 'face' ? 2000 : -300 - width),
            bottom: write(
              where === 'face' ? -depth : where === 'inside' ? 2000 + 2 * depth : 2000 - 2 * depth,
            ),
            corner: write(corner),
            insertCorner: write(Math.min(corner, insertCorner)),
            edgeSize: write(edgeSize),
            insertWidth: write(insertWidth),
            stepover: write((insertWidth * share) / 100),
            pitch: write(width + 100),
            reach: write(1000),
            floorStock: write(corner),
            wallStock: write(corner),
          }
        })
    let written = 0
    fc.assert(
      fc.property(
        units.chain((unit) => fc.tuple(fc.constant(unit), groove(unit))),
        profiles,
        ([unit, of], profile) => {
          const on = caseOf('lathe', profile, { unit, machine: machineOf('lathe', unit) })
          if (isMeant(writeSheet(sheetOf({ groove: of }, unit), on))) written++
        },
      ),
      depth(250, 2500),
    )
    expect(written).toBeGreaterThan(120)
  })
})
