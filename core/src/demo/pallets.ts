import type { Machine, ToolShape } from '../machine/index.ts'
import type { PalletPlanDraft } from '../pallet/index.ts'
import type { Layout } from '../prove/index.ts'

/** Mill 2 of the invented shop and what runs on it: two pallets, two operations. */

export const millTwo: Machine = {
  id: 'mill-2',
  version: 1,
  name: 'Mill 2',
  kind: 'mill',
  unit: 'mm',
  axes: {
    X: { least: -760, greatest: 0 },
    Y: { least: -560, greatest: 0 },
    Z: { least: -620, greatest: 0 },
  },
  tableMoves: { X: true, Y: false },
  home: { X: 0, Y: 0, Z: 0 },
  rapids: { X: 30_000, Y: 30_000, Z: 24_000 },
  dynamics: {
    acceleration: { X: 3_000, Y: 3_000, Z: 2_500 },
    smoothing: 0,
    topFeed: 15_000,
    cornerTolerance: 0.02,
    spindleTop: 10_000,
    tapTop: 2_500,
    spindleAcceleration: 60,
    spindleTimed: false,
    toolChange: 3.4,
    rotary: null,
  },
  rotary: null,
  around: null,
  head: { nose: { diameter: 95, length: 32 }, left: 140, right: 140, front: 165, back: 420 },
  turret: null,
  rapidMarks: null,
  xSpeeds: null,
  costs: { anHour: 110, shiftsAMonth: 42 },
  pallets: { count: 2, swap: 11 },
  shape: 2,
  secondHome: null,
  readyList: null,
  leastStep: 0.001,
  toolLengths: 'gauge-line',
  probe: null,
  profileId: 'compact',
  positions: { from: 'simulated' },
  note: 'Horizontal; a fixture plate on each pallet.',
}

const tool = (
  number: number,
  name: string,
  kind: ToolShape['kind'],
  [diameter, flute, stickOut, holderDiameter, holderLength]: readonly [
    number,
    number,
    number,
    number,
    number,
  ],
  pitch: number | null = null,
): ToolShape => ({
  shape: 2,
  id: `mill-2-t${number}`,
  version: 1,
  machineId: 'mill-2',
  number,
  name,
  kind,
  unit: 'mm',
  diameter,
  flute,
  stickOut,
  holderDiameter,
  holderLength,
  pitch,
  note: '',
})

export const millTwoTools: readonly ToolShape[] = [
  tool(1, '50 face mill', 'mill', [50, 8, 45, 60, 60]),
  tool(2, '8.5 drill', 'drill', [8.5, 60, 75, 40, 60]),
  tool(3, 'M10 tap', 'tap', [10, 30, 70, 40, 60], 1.5),
  tool(4, '12 end mill', 'mill', [12, 26, 40, 40, 60]),
]

/** The bracket between its side clamps: X and Y zero at its corner, Z zero on top. The fixtures of both pallets are alike. */
export const bracketLayout: Layout = {
  unit: 'mm',
  bodies: [
    {
      id: 'part',
      name: 'bracket',
      role: 'part',
      shape: 'box',
      at: { x: 0, y: 0, z: -30 },
      size: { x: 120, y: 80, z: 30 },
    },
    {
      id: 'left',
      name: 'side clamp 1',
      role: 'clamp',
      shape: 'box',
      at: { x: -30, y: 25, z: -40 },
      size: { x: 28, y: 30, z: 25 },
    },
    {
      id: 'right',
      name: 'side clamp 2',
      role: 'clamp',
      shape: 'box',
      at: { x: 122, y: 25, z: -40 },
      size: { x: 28, y: 30, z: 25 },
    },
    {
      id: 'plate',
      name: 'fixture plate',
      role: 'vise',
      shape: 'box',
      at: { x: -60, y: -60, z: -60 },
      size: { x: 240, y: 200, z: 20 },
    },
  ],
}

const head = (number: number, title: string) => `%
O${number} (${title})
(MADE UP FOR THE DEMO)
(A QUALIFIED PERSON MUST PROVE THIS PROGRAM)
G21 G90 G17 G40 G49 G80 G69 G94
G53 G0 Z0.
`

/** Faced, drilled and tapped; ends by calling the other pallet and the other program. */
export const bracketFirst = `${head(5501, 'COUNTERWEIGHT BRACKET, FIRST OPERATION')}(T1 50 FACE MILL: TOP)
T1 M6
G90 G54 G0 X-30. Y20.
S1800 M3
G4 P2.
G43 H1 Z50. M8
Z5.
G1 Z-0.5 F2000.
X150. F700.
Y60.
X-30.
G0 Z50.
(T2 8.5 DRILL: SIX HOLES)
T2 M6
G90 G54 G0 X15. Y15.
S2200 M3
G43 H2 Z50. M8
G98 G81 X15. Y15. Z-25. R8. F330.
X105. Y65.
X60. Y15.
X15. Y65.
X105. Y15.
X60. Y65.
G80
(T3 M10 TAP)
T3 M6
G90 G54 G0 X15. Y15.
S450 M3
G43 H3 Z50. M8
G98 G84 X15. Y15. Z-22. R8. F675.
X60.
X105.
Y65.
X60.
X15.
G80
M9
G53 G0 Z0.
M62
M98 P5502
M30
%
`

/** A pocket in two levels; ends by calling the first pallet and program again. */
export const bracketSecond = `${head(5502, 'COUNTERWEIGHT BRACKET, SECOND OPERATION')}(T4 12 END MILL: POCKET)
T4 M6
G90 G55 G0 X30. Y30.
S5300 M3
G43 H4 Z40. M8
G1 Z-5. F300.
X90. F900.
Y40.
X30.
Y50.
X90.
G0 Z2.
X30. Y30.
G1 Z-10. F300.
X90. F900.
Y40.
X30.
Y50.
X90.
G0 Z10.
G0 Z40.
(T4: EDGE ALL ROUND)
G0 X-20. Y-12.
Z5.
G1 Z-8. F600.
X-8. Y-8.
X128. F1100.
Y20.
G0 Z20.
X128. Y92.
G1 Z-8. F600.
Y88.
X-8.
Y60.
G0 Z40.
M9
G53 G0 Z0.
M61
M98 P5501
M30
%
`

/** The same with the taps coming out as fast as the spindle may. */
export const bracketFirstSaved = bracketFirst.replace('R8. F675.', 'R8. F675. J5.5')

/** One of them as it was proved, by itself: before it calls the other pallet and its program. */
export const bracketAlone = (text: string) => text.replace(/M6[12]\nM98 P\d+\n/, '')

export const bracketPallets: PalletPlanDraft = {
  pallets: [
    {
      draft: {
        operation: 'Face, drill, tap',
        fixture: 'side clamps A',
        parts: '2',
        table: '5501',
        unload: '40',
        load: '1 min 15 s',
        aside: '35',
        finishes: false,
      },
      program: { title: 'O5501 first operation', text: bracketFirst },
    },
    {
      draft: {
        operation: 'Pocket and edge',
        fixture: 'side clamps B',
        parts: '2',
        table: '5502',
        unload: '40',
        load: '55',
        aside: '1 min 20 s',
        finishes: true,
      },
      program: { title: 'O5502 second operation', text: bracketSecond },
    },
  ],
  main: null,
  shift: { length: '8 h', hands: '1', swap: '' },
}
