import { BUILT_IN_PROFILES } from '../control/index.ts'
import { USUAL_MATERIALS } from '../cutting/index.ts'
import { SAMPLE_VISES, USUAL_COLLETS, type Vise } from '../hold/index.ts'
import type { Machine, ToolShape } from '../machine/index.ts'
import type { Reference } from '../setup/index.ts'
import { millTwo, millTwoTools } from './pallets.ts'

/** Mill 1 of the invented shop: inch, vertical, the table moves in X and Y. */
const millOne: Machine = {
  id: 'mill-1',
  version: 1,
  name: 'Mill 1',
  kind: 'mill',
  unit: 'inch',
  axes: {
    X: { least: -30, greatest: 0 },
    Y: { least: -16, greatest: 0 },
    Z: { least: -20, greatest: 0 },
  },
  tableMoves: { X: true, Y: true },
  home: { X: 0, Y: 0, Z: 0 },
  rapids: { X: 1000, Y: 1000, Z: 800 },
  dynamics: {
    acceleration: { X: 60, Y: 60, Z: 50 },
    smoothing: 0,
    topFeed: 500,
    cornerTolerance: 0.001,
    spindleTop: 8000,
    tapTop: 2500,
    spindleAcceleration: 70,
    spindleTimed: true,
    toolChange: 4.2,
    rotary: { top: 4000, acceleration: 900 },
  },
  rotary: { word: 'A', top: 'front', turns: null },
  around: {
    tableDepth: 14,
    obstacles: [
      { name: 'way cover', side: 'back', at: 16.25, bottom: -4, top: 3.5, comesDownWithZ: false },
      { name: 'head cover', side: 'back', at: 13.5, bottom: 16.5, top: 40, comesDownWithZ: true },
      { name: 'door', side: 'front', at: -4.6, bottom: -10, top: 30, comesDownWithZ: false },
    ],
  },
  head: { nose: { diameter: 3.5, length: 1.4 }, left: 5.5, right: 5.5, front: 6.2, back: 16 },
  turret: null,
  rapidMarks: null,
  xSpeeds: null,
  costs: { anHour: 85, shiftsAMonth: 21 },
  pallets: null,
  shape: 2,
  secondHome: null,
  readyList: null,
  leastStep: 0.0001,
  toolLengths: 'gauge-line',
  probe: { tool: 16, stylus: 0.2362, reach: 1.97, body: 1.26, overtravel: 0.24 },
  profileId: 'compact',
  positions: { from: 'simulated' },
  note: 'Fourth axis on the right end of the table; keep X right of -24 while it is fitted.',
}

/** Lathe 1: inch, collet chuck on a draw tube. */
const latheOne: Machine = {
  id: 'lathe-1',
  version: 1,
  name: 'Lathe 1',
  kind: 'lathe',
  unit: 'inch',
  axes: { X: { least: -16, greatest: 0 }, Y: null, Z: { least: -23, greatest: 0 } },
  tableMoves: { X: false, Y: false },
  home: { X: 0, Y: 0, Z: 0 },
  rapids: { X: 700, Y: null, Z: 1000 },
  dynamics: {
    acceleration: { X: 90, Y: null, Z: 100 },
    smoothing: 0,
    topFeed: 500,
    cornerTolerance: 0.001,
    spindleTop: 4000,
    tapTop: 2000,
    spindleAcceleration: 20,
    spindleTimed: true,
    toolChange: 0.8,
    rotary: null,
  },
  rotary: null,
  around: null,
  head: null,
  turret: { stations: 12, across: 11.5, thick: 3.8 },
  rapidMarks: null,
  xSpeeds: 'slide',
  costs: { anHour: 85, shiftsAMonth: 21 },
  pallets: null,
  shape: 2,
  secondHome: null,
  readyList: null,
  leastStep: 0.0001,
  toolLengths: 'gauge-line',
  probe: null,
  profileId: 'compact',
  positions: { from: 'simulated' },
  note: '',
}

const toolOn = (
  machineId: string,
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
  id: `${machineId}-t${number}`,
  version: 1,
  machineId,
  number,
  name,
  kind,
  unit: 'inch',
  diameter,
  flute,
  stickOut,
  holderDiameter,
  holderLength,
  pitch,
  note: '',
})

const tool = (...of: Parameters<typeof toolOn> extends [string, ...infer Rest] ? Rest : never) =>
  toolOn('mill-1', ...of)

/** What Mill 1 and Lathe 1 carry. */
const tools: readonly ToolShape[] = [
  tool(3, 'Letter I drill', 'drill', [0.272, 2.4, 2.8, 1.6, 2.2]),
  tool(5, '1/2 spot drill, 90 deg', 'drill', [0.5, 1, 2.2, 1.6, 2.2]),
  tool(7, '1/2 end mill', 'mill', [0.5, 1.25, 1.9, 1.75, 2.6]),
  tool(12, '5/16-24 spiral flute tap', 'tap', [0.3125, 0.9, 2.4, 1.6, 1.7], 1 / 24),
  tool(15, '60 deg engraver', 'engraver', [0.125, 0.2, 1.1, 1.25, 2]),
  tool(16, 'Probe', 'probe', [0.2362, 0.3, 1.97, 1.26, 3]),
  { ...toolOn('lathe-1', 4, '0.118 grooving insert', 'grooving', [0.118, 0.3, 1.2, 1, 2]), nose: 0.008 },
  {
    ...toolOn('lathe-1', 6, '0.094 inside grooving bar', 'grooving', [0.094, 0.1, 2, 1, 2]),
    nose: 0.004,
    onLathe: { side: 'inside', corner: 'low', point: 'corner', bar: 0.5 },
  },
  { ...toolOn('lathe-1', 1, '80 deg turning insert', 'turning', [0.375, 0.375, 1.25, 1, 2]), nose: 0.03125 },
]

/** A vise of the sample that the invented shop has measured: its fixed jaw is a little thicker. */
const measured = (vise: Vise): Vise => ({
  ...vise,
  parts: vise.parts.map((part) => {
    if (part.name !== 'fixed jaw') return part
    const thicker = { front: 0, back: part.open.back + (vise.unit === 'inch' ? 0.03 : 0.8) }
    return { ...part, open: thicker, closed: thicker }
  }),
  note: 'Measured, open and closed.',
})

export const demoReference: Reference = {
  machines: [millOne, latheOne, millTwo],
  profiles: BUILT_IN_PROFILES,
  vises: SAMPLE_VISES.map(measured),
  collets: USUAL_COLLETS,
  tools: [...tools, ...millTwoTools],
  materials: USUAL_MATERIALS,
}
