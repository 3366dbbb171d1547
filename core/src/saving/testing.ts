import type { ToolShape } from '../machine/index.ts'
import { compact, testMill } from '../program/testing.ts'
import { type Body, type Layout, type ProveCase, prove } from '../prove/index.ts'
import { type Candidate, type SavingCase, savingCase } from './case.ts'
import { findSavings, type SavingOffer } from './find.ts'

export const shape = (number: number, kind: ToolShape['kind'], diameter: number): ToolShape => ({
  shape: 2,
  id: `t${number}`,
  version: 1,
  machineId: 'm',
  number,
  name: `T${number}`,
  kind,
  unit: 'inch',
  diameter,
  flute: 2,
  stickOut: 3,
  holderDiameter: 1,
  holderLength: 2,
  pitch: kind === 'tap' ? 0.05 : null,
  note: '',
})
const tools = [
  shape(1, 'drill', 0.2),
  shape(2, 'mill', 0.5),
  shape(3, 'tap', 0.25),
  shape(20, 'probe', 0.2362),
]
export const box = (
  id: string,
  role: Body['role'],
  at: [number, number, number],
  size: [number, number, number],
): Body => ({
  id,
  name: id,
  role,
  shape: 'box',
  at: { x: at[0], y: at[1], z: at[2] },
  size: { x: size[0], y: size[1], z: size[2] },
})
const part = box('part', 'part', [0, 0, -1], [8, 4, 1])
export const on = (text: string, more: Body[] = []): ProveCase => ({
  text,
  machine: { ...testMill, probe: { tool: 20, stylus: 0.2362, reach: 1.97, body: 1.26, overtravel: 0.24 } },
  profile: compact,
  unit: 'inch',
  frame: 'G54',
  offsets: [{ name: 'G54', axes: { X: -20, Y: -10, Z: -15 } }],
  lengths: [1, 2, 3, 20].map((tool) => ({ tool, length: 4 })),
  tools,
  layout: { unit: 'inch', bodies: [part, ...more] } as Layout,
})
const start = 'O1\nG20 G90 G17 G40 G49 G80 G69 G94\nG53 G0 Z0.\n'
const end = 'M9\nM5\nG53 G0 Z0.\nM30\n'
/** A number as a program says it: with its point. */
export const point = (value: number) => (Number.isInteger(value) ? `${value}.` : String(value))
export const tool = (number: number, x: number, y: number, z = 1) =>
  `T${number} M6\nG90 G54 G0 X${point(x)} Y${point(y)}\nS1000 M3\nG43 H${number} Z${point(z)} M8\n`
export const program = (body: string) => `${start}${body}${end}`
export const offersOf = (body: string, more: Body[] = []) => findSavings(on(program(body), more)).offers
export const offer = (offers: readonly SavingOffer[], code: string) =>
  offers.find((each) => each.code === code)

/** What one of the finders makes of a program, before any of it is proved. */
export function candidatesOf(
  finder: (of: SavingCase) => Candidate[],
  text: string,
  more: Body[] = [],
  change: Partial<ProveCase> = {},
): Candidate[] {
  const of = { ...on(text, more), ...change }
  return finder(savingCase(of, prove(of)))
}
