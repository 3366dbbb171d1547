import { newSheet, type SheetDraft } from '../code/index.ts'
import { exampleGroove, newGroove } from '../cycles/grooving/index.ts'
import { exampleTap, newTap } from '../cycles/tapping/index.ts'
import { exampleWrap, newWrap } from '../cycles/wrapping/index.ts'
import type { Layout } from '../prove/index.ts'

/**
 * Programs of the invented shop, as they are written by hand at the control, and what stands on the table while they run:
 * one that is good, and for each kind of finding the same with one slip in it.
 */

/** The focuser housing in the 160 mm vise: X and Y zero at the corner by the fixed jaw, Z zero on top. */
export const housingLayout: Layout = {
  unit: 'inch',
  bodies: [
    {
      id: 'part',
      name: 'part',
      role: 'part',
      shape: 'box',
      at: { x: 0, y: -3.4, z: -1.1 },
      size: { x: 4.8, y: 3.4, z: 1.1 },
    },
    {
      id: 'fixed',
      name: 'fixed jaw',
      role: 'vise',
      shape: 'box',
      at: { x: -0.75, y: 0, z: -2.6 },
      size: { x: 6.3, y: 1.8, z: 2.3 },
    },
    {
      id: 'moving',
      name: 'moving jaw',
      role: 'vise',
      shape: 'box',
      at: { x: -0.75, y: -5.2, z: -2.6 },
      size: { x: 6.3, y: 1.8, z: 2.3 },
    },
    {
      id: 'stop',
      name: 'stop',
      role: 'stop',
      shape: 'cylinder',
      axis: 'X',
      at: { x: -1.25, y: -1.7, z: -0.4 },
      diameter: 0.375,
      length: 1.25,
    },
    {
      id: 'clamp',
      name: 'clamp 1',
      role: 'clamp',
      shape: 'box',
      at: { x: 3.75, y: -2.1, z: 0 },
      size: { x: 1.6, y: 0.9, z: 0.7 },
    },
  ],
}

/** The drawtube in its collet: Z zero on the face. */
export const tubeLayout: Layout = {
  unit: 'inch',
  bodies: [
    {
      id: 'part',
      name: 'drawtube',
      role: 'part',
      shape: 'cylinder',
      axis: 'Z',
      at: { x: 0, y: 0, z: -2.8 },
      diameter: 1.375,
      bore: 0.82,
      length: 2.8,
    },
    {
      id: 'chuck',
      name: 'collet chuck',
      role: 'chuck',
      shape: 'cylinder',
      axis: 'Z',
      at: { x: 0, y: 0, z: -4.8 },
      diameter: 4,
      length: 2,
    },
  ],
}

/** The drawtube in the rotary's chuck: X zero on its end, Y zero on the centre line, Z zero on top. */
export const scaleLayout: Layout = {
  unit: 'inch',
  bodies: [
    {
      id: 'part',
      name: 'drawtube',
      role: 'part',
      shape: 'cylinder',
      axis: 'X',
      at: { x: -2.8, y: 0, z: -0.6875 },
      diameter: 1.375,
      bore: 0.82,
      length: 2.8,
    },
    {
      id: 'chuck',
      name: 'rotary chuck',
      role: 'chuck',
      shape: 'cylinder',
      axis: 'X',
      at: { x: -4.8, y: 0, z: -0.6875 },
      diameter: 4,
      length: 2,
    },
  ],
}

/** The focus scale of the drawtube, as it stands in the form. */
export const scaleSheet: SheetDraft = {
  ...newSheet('Drawtube, scale', 5431, 'aluminium'),
  items: [
    {
      cycle: 'wrap',
      id: 'scale',
      off: false,
      params: { ...newWrap('inch'), ...exampleWrap('inch'), diameter: '1.375', tool: '15' },
    },
  ],
}

/** The tapped holes of the housing, as they stand in the form. */
export const housingSheet: SheetDraft = {
  ...newSheet('Housing, tapped holes', 5412, 'aluminium'),
  partsAShift: '60',
  items: [
    {
      cycle: 'tap',
      id: 'holes',
      off: false,
      params: {
        ...newTap('inch', false),
        ...exampleTap('inch'),
        thread: '5/16-24 UNF',
        hole: 'blind',
        threadDepth: '.47',
        pattern: 'grid',
        x: '.6',
        y: '-.55',
        count: '2',
        spacing: '3.6',
        rows: '2',
        rowSpacing: '-2.3',
        chamferTool: '5',
        drillTool: '3',
        tapTool: '12',
        tapTurns: '480',
      },
    },
  ],
}

/** The O-ring grooves of the drawtube, as they stand in the form. */
export const tubeSheet: SheetDraft = {
  ...newSheet('Drawtube, O-ring grooves', 5421, 'aluminium'),
  partsAShift: '80',
  items: [
    {
      cycle: 'groove',
      id: 'rings',
      off: false,
      params: {
        ...newGroove('inch'),
        ...exampleGroove('inch'),
        far: '-.612',
        count: '2',
        pitch: '.85',
        tool: '4',
        clamp: '2500',
      },
    },
  ],
}

/** Slot, four drilled holes, four tapped ones. */
export const housingProgram = `%
O5410 (FOCUSER HOUSING, FIRST SIDE)
(MADE UP FOR THE DEMO)
(A QUALIFIED PERSON MUST PROVE THIS PROGRAM)
G20 G90 G17 G40 G49 G80 G69 G94
G53 G0 Z0.
(T7 1/2 END MILL: SLOT)
T7 M6
G90 G54 G0 X1.2 Y-1.7
S4500 M3
G43 H7 Z2. M8
Z0.1
G1 Z-0.3 F8.
X3.3 F28.
G3 X3.3 Y-1.45 I0. J0.125
G1 X1.2
G3 X1.2 Y-1.7 I0. J-0.125
G0 Z1.
(T3 LETTER I DRILL: FOUR HOLES)
T3 M6
G90 G54 G0 X0.6 Y-0.55
S2400 M3
G43 H3 Z1. M8
G98 G83 X0.6 Y-0.55 Z-0.9 R0.1 Q0.22 F10.
X4.2
Y-2.85
X0.6
G80
(T12 5/16-24 TAP)
T12 M6
G90 G54 G0 X0.6 Y-0.55
S480 M3
G43 H12 Z1. M8
G98 G84 X0.6 Y-0.55 Z-0.65 R0.2 F20. J2
X4.2
Y-2.85
X0.6
G80
M9
G53 G0 Z0.
G53 G0 X-12. Y0.
M30
%
`

/** SHA-256 of it. */
export const HOUSING_HASH = 'f0ff2e77cb2b54a1506663cc008cf896529cc37af07a546e9b2d03cbf349ee63'

/** Twelve holes on a circle by a loop, and an edge run round twice by a subprogram: on the same part, in the same vise. */
export const ringProgram = `%
O5411 (FOCUSER HOUSING, RING OF HOLES)
(MADE UP FOR THE DEMO)
(A QUALIFIED PERSON MUST PROVE THIS PROGRAM)
G20 G90 G17 G40 G49 G80 G69 G94
G53 G0 Z0.
(T3 LETTER I DRILL: 12 HOLES ON 1.8)
T3 M6
G90 G54 G0 X2.1 Y-1.5
S2400 M3
G43 H3 Z1. M8
#100=0 (HOLE)
WHILE [#100 LT 12] DO1
#101=1.2+0.9*COS[30*#100]
#102=-1.5+0.9*SIN[30*#100]
G98 G81 X#101 Y#102 Z-0.4 R0.1 F9.
#100=#100+1
END1
G80
(T7 1/2 END MILL: STEP ALONG THE LEFT EDGE)
T7 M6
G90 G54 G0 X-0.5 Y0.5
S4500 M3
G43 H7 Z1. M8
Z0.1
G1 Z0. F20.
M97 P200 L2
G0 Z1.
M9
G53 G0 Z0.
M30
N200 (ONE LEVEL LOWER, ALONG THE EDGE, AND BACK)
G91 G1 Z-0.1 F8.
G90 X0.05 F30.
Y-0.9
X-0.5
Y0.5
M99
%
`

/** A shoulder and a groove on a bar of one inch: roughed, finished, grooved. */
export const turnedProgram = `%
O5420 (DRAWTUBE, SHOULDER AND GROOVE)
(MADE UP FOR THE DEMO)
(A QUALIFIED PERSON MUST PROVE THIS PROGRAM)
G20 G40 G80 G99
G28 U0. W0.
(T1 TURNING TOOL)
T0101
G50 S2500
G96 S300 M3
G0 X1.1 Z0.1 M8
G71 P10 Q20 U0.02 W0.005 D0.05 F0.01
N10 G0 X0.6
G1 Z0. F0.006
X0.7 Z-0.05
Z-1.
X0.9
N20 X1.1
G70 P10 Q20
G97 S800
G28 U0. W0.
M1
(T4 GROOVING TOOL, 0.118)
T0404
G97 S650 M3
G0 X0.8 Z-0.44
G75 X0.57 Z-0.52 I0.04 K0.08 F0.003
G0 X1.2
M9
G28 U0. W0.
M30
%
`

/** A rebate along two edges of the housing, written for its edge and cut with compensation; the wear was gauged. */
export const rebateProgram = `%
O5412 (FOCUSER HOUSING, REBATE)
(MADE UP FOR THE DEMO)
(A QUALIFIED PERSON MUST PROVE THIS PROGRAM)
G20 G90 G17 G40 G49 G80 G69 G94
G53 G0 Z0.
(T7 1/2 END MILL: REBATE ALONG TWO EDGES)
T7 M6
(WEAR OF ITS DIAMETER, AS IT WAS GAUGED)
#2607=-0.0020
G90 G54 G0 X-1. Y-2.9
S4500 M3
G43 H7 Z1. M8
G0 Z-0.2
G1 G41 D7 X0.4 F28.
Y-0.5 ,R0.3
X3.2
G3 X3.5 Y-0.2 R0.3
G1 Y0.1
G40 X4.2 Y0.6
G0 Z1.
M9
G53 G0 Z0.
M30
%
`

/** SHA-256 of it. */
export const REBATE_HASH = 'fecb1b6bba786a593ac91d7f559d525c646522c8b26b2a98fc2d9c0eaf0a9424'

/** A taper and a ridge on the nose of the drawtube: roughed, then finished with the nose of the insert led beside them. */
export const taperProgram = `%
O5422 (DRAWTUBE, TAPERED NOSE)
(MADE UP FOR THE DEMO)
(A QUALIFIED PERSON MUST PROVE THIS PROGRAM)
G20 G40 G80 G99
G28 U0. W0.
(T1 80 DEG INSERT, NOSE 1/32)
T0101
G50 S2500
G96 S500 M3
G0 X1.5 Z0.1 M8
G71 P10 Q20 U0.02 W0.003 D0.05 F0.01
N10 G42 G0 X0.96
G1 Z0. F0.005
X1.2 Z-0.45
Z-0.6
G3 X1.32 Z-0.66 R0.06
G1 Z-0.9
N20 G40 X1.5
G70 P10 Q20
M9
G28 U0. W0.
M30
%
`

/** SHA-256 of it. */
export const TAPER_HASH = '141cc71af1a47c2811d0c0b4cdc9e9fbc4d384d50c2638406c31b610cab8ff47'

/** One slip of the hand: what it is found as, and the change of the good program that makes it. */
export interface Slip {
  code: string
  title: string
  from: string
  to: string
}

export const housingSlips: readonly Slip[] = [
  {
    code: 'rapid-hits',
    title: 'Leaves the slot too low',
    from: 'G1 X1.2\nG3 X1.2 Y-1.7 I0. J-0.125\nG0 Z1.',
    to: 'G0 Z0.1\nX5.9\nZ1.',
  },
  { code: 'feed-hits', title: 'Slot too long', from: 'X3.3 F28.\nG3 X3.3', to: 'X3.8 F28.\nG3 X3.8' },
  { code: 'return-low', title: 'G99 between the holes', from: 'G98 G83', to: 'G99 G83' },
  {
    code: 'plunge-rapid',
    title: 'Rapid down into the stock',
    from: 'Z0.1\nG1 Z-0.3 F8.',
    to: 'Z-0.2\nG1 Z-0.3 F8.',
  },
  { code: 'spindle-stopped', title: 'No spindle', from: 'S4500 M3\n', to: '' },
  { code: 'length-missing', title: 'No G43', from: 'G43 H7 Z2. M8', to: 'G0 Z2. M8' },
  { code: 'length-wrong', title: 'The length of another tool', from: 'G43 H7', to: 'G43 H3' },
  {
    code: 'offset-unknown',
    title: 'An offset that nobody took',
    from: 'T7 M6\nG90 G54',
    to: 'T7 M6\nG90 G55',
  },
  { code: 'rotation-left', title: 'Rotation left on', from: 'Z0.1\nG1', to: 'Z0.1\nG68 X0. Y0. R0.5\nG1' },
  { code: 'mapping-left', title: 'Mapping left on', from: 'G80\nM9\n', to: 'G80\nG107 A0. Y0. R0.75\nM9\n' },
  { code: 'compensation-left', title: 'Compensation left on', from: 'Z0.1\nG1', to: 'Z0.1\nG41 D7\nG1' },
  { code: 'distance-left', title: 'G91 left on', from: 'G80\nM9\n', to: 'G80\nG91\nM9\n' },
  { code: 'unit-differs', title: 'Millimetres', from: 'G20 G90', to: 'G21 G90' },
  { code: 'missing-point', title: 'A decimal point forgotten', from: 'X3.3 F28.', to: 'X3 F28.' },
  { code: 'travel', title: 'Beyond the travel', from: 'G53 G0 X-12. Y0.', to: 'G53 G0 X-32. Y0.' },
  { code: 'tap-pitch', title: 'The feed of another thread', from: 'R0.2 F20.', to: 'R0.2 F18.' },
  { code: 'tap-fast', title: 'Out too fast', from: 'F20. J2', to: 'F20. J6' },
  { code: 'spindle-fast', title: 'Faster than the spindle turns', from: 'S4500', to: 'S9500' },
  {
    code: 'home-hits',
    title: 'Home before it is up',
    from: 'G3 X1.2 Y-1.7 I0. J-0.125\nG0 Z1.',
    to: 'G3 X1.2 Y-1.7 I0. J-0.125\nG53 G0 Y0.',
  },
  { code: 'tool-unknown', title: 'A tool without a shape', from: 'T3 M6', to: 'T9 M6' },
  { code: 'length-unknown', title: 'A tool that was never measured', from: 'T3 M6', to: 'T9 M6' },
  { code: 'arc-radius', title: 'An arc that does not meet its end', from: 'I0. J0.125', to: 'I0. J0.135' },
]

/** The good program with a slip made in it. */
export const withSlip = ({ from, to }: Slip) => housingProgram.replace(from, to)
