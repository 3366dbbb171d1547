import { type Profile, writeComment, writeNumber } from '../control/index.ts'
import {
  type LinearAxis,
  type Machine,
  type MachineKind,
  type ToolShape,
  usualTurret,
} from '../machine/index.ts'
import type { LengthUnit } from '../quantity/index.ts'

// What an own shop is begun with: a machine of which no more is said than is known, and tools as many shops have them.

/** What is asked of a first machine. Travels in `unit`, each more than zero. */
export interface FirstMachine {
  name: string
  kind: MachineKind
  unit: LengthUnit
  travels: { X: number; Y: number | null; Z: number }
  profileId: string
}

/** Travels of machines as many small shops have them, to be typed over. By judgement. */
export const usualTravels = (kind: MachineKind, unit: LengthUnit): Record<LinearAxis, number> =>
  kind === 'mill'
    ? unit === 'inch'
      ? { X: 30, Y: 16, Z: 20 }
      : { X: 760, Y: 410, Z: 510 }
    : unit === 'inch'
      ? { X: 16, Y: 0, Z: 23 }
      : { X: 400, Y: 0, Z: 580 }

/**
 * The machine with what was said of it, home at 0 and the travel below it; what nobody said is not known. The display shows the last digit
 * that is usual in its unit.
 */
export const firstMachine = (
  id: string,
  { name, kind, unit, travels, profileId }: FirstMachine,
): Machine => ({
  id,
  version: 1,
  name,
  kind,
  unit,
  axes: {
    X: { least: -travels.X, greatest: 0 },
    Y: travels.Y === null ? null : { least: -travels.Y, greatest: 0 },
    Z: { least: -travels.Z, greatest: 0 },
  },
  tableMoves: { X: kind === 'mill', Y: kind === 'mill' },
  home: { X: 0, Y: 0, Z: 0 },
  rapids: null,
  rapidMarks: null,
  xSpeeds: null,
  dynamics: null,
  rotary: null,
  around: null,
  head: null,
  turret: kind === 'lathe' ? usualTurret(unit) : null,
  costs: null,
  pallets: null,
  shape: 2,
  secondHome: null,
  readyList: null,
  leastStep: unit === 'inch' ? 0.0001 : 0.001,
  toolLengths: 'gauge-line',
  probe: null,
  profileId,
  positions: null,
  note: '',
})

type Sizes = readonly [
  diameter: number,
  flute: number,
  stickOut: number,
  holderDiameter: number,
  holderLength: number,
]
type First = readonly [name: string, kind: ToolShape['kind'], sizes: Sizes, more?: Partial<ToolShape>]

/**
 * Tools that many shops have in such a machine, in their usual sizes. Common practice, and by judgement where a holder is concerned; a
 * drill goes with its tap: 5.1 mm is #7, for 1/4-20 at about 75 %, and 5 mm is for M6 x 1.
 */
const FIRST: Record<MachineKind, Record<LengthUnit, readonly First[]>> = {
  mill: {
    inch: [
      ['1/2 end mill', 'mill', [0.5, 1.25, 1.9, 1.75, 2.6]],
      ['1/4 end mill', 'mill', [0.25, 0.75, 1.3, 1.25, 2.2]],
      ['1/2 spot drill, 90 deg', 'drill', [0.5, 1, 2.2, 1.6, 2.2]],
      ['#7 drill', 'drill', [0.201, 2.4, 2.8, 1.6, 2.2]],
      ['1/4-20 tap', 'tap', [0.25, 0.8, 2.2, 1.6, 1.7], { pitch: 1 / 20 }],
    ],
    mm: [
      ['12 mm end mill', 'mill', [12, 26, 46, 44, 65]],
      ['6 mm end mill', 'mill', [6, 18, 32, 32, 55]],
      ['10 mm spot drill, 90 deg', 'drill', [10, 25, 50, 40, 55]],
      ['5 mm drill', 'drill', [5, 55, 68, 40, 55]],
      ['M6 tap', 'tap', [6, 20, 55, 40, 43], { pitch: 1 }],
    ],
  },
  lathe: {
    inch: [
      ['80 deg turning insert', 'turning', [0.375, 0.375, 1.25, 1, 2], { nose: 1 / 32 }],
      ['0.118 grooving insert', 'grooving', [0.118, 0.3, 1.2, 1, 2], { nose: 0.008 }],
      ['1/2 drill', 'drill', [0.5, 3, 3.5, 1.5, 2]],
    ],
    mm: [
      ['80 deg turning insert', 'turning', [9.5, 9.5, 32, 25, 50], { nose: 0.8 }],
      ['3 mm grooving insert', 'grooving', [3, 8, 30, 25, 50], { nose: 0.2 }],
      ['12 mm drill', 'drill', [12, 80, 90, 38, 50]],
    ],
  },
}

/** Those tools on a machine, numbered from 1 on; `idOf` names each. */
export const firstTools = (
  { id: machineId, kind: on, unit }: Pick<Machine, 'id' | 'kind' | 'unit'>,
  idOf: (number: number) => string,
): ToolShape[] =>
  FIRST[on][unit].map(([name, kind, [diameter, flute, stickOut, holderDiameter, holderLength], more], n) => ({
    shape: 2,
    id: idOf(n + 1),
    version: 1,
    machineId,
    number: n + 1,
    name,
    kind,
    unit,
    diameter,
    flute,
    stickOut,
    holderDiameter,
    holderLength,
    pitch: null,
    note: 'A usual size, not measured here.',
    ...more,
  }))

/** What tells one kind of control from another, as it stands in its programs. */
export function describeProfile(profile: Profile, unit: LengthUnit): { of: string; is: string }[] {
  const { blocks, offsets, clearUp } = profile
  return [
    { of: 'A move', is: `${blocks.numbered ? 'N10 ' : ''}G1 X${writeNumber(1.5, unit, profile)}` },
    { of: 'A comment', is: writeComment('T1 END MILL', profile) },
    {
      of: 'Offsets after G59',
      is: offsets.extended ? `${offsets.extended.code} P1 to P${offsets.extended.count}` : 'none',
    },
    { of: 'Z goes up by', is: clearUp.way === 'home-return' ? 'G28' : 'G53' },
  ]
}
