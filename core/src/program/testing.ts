import { BUILT_IN_PROFILES, type Driven, type Profile } from '../control/index.ts'
import type { Machine } from '../machine/index.ts'
import { endOf, type Motion, ROW } from './motion.ts'
import { type Program, read } from './read.ts'
import type { ReadOptions } from './read-options.ts'

/** Machines and profiles for tests of the reader, and short ways to look at what it gives. */

const numbers = { mill: { least: -20, greatest: 0 }, lathe: { least: -20, greatest: 0 } }

export const testMill: Machine = {
  id: 'm',
  version: 1,
  name: 'Mill',
  kind: 'mill',
  unit: 'inch',
  axes: { X: { least: -30, greatest: 0 }, Y: { least: -16, greatest: 0 }, Z: numbers.mill },
  tableMoves: { X: true, Y: true },
  home: { X: 0, Y: 0, Z: 0 },
  rapids: { X: 600, Y: 600, Z: 300 },
  dynamics: {
    acceleration: { X: 50, Y: 50, Z: 25 },
    smoothing: 0,
    topFeed: 600,
    cornerTolerance: 0.001,
    spindleTop: 8000,
    tapTop: 3000,
    spindleAcceleration: 20,
    spindleTimed: true,
    toolChange: 4,
    rotary: { top: 3600, acceleration: 360 },
  },
  rotary: null,
  around: null,
  head: null,
  turret: null,
  rapidMarks: null,
  xSpeeds: null,
  costs: null,
  pallets: null,
  shape: 2,
  secondHome: null,
  readyList: null,
  leastStep: 0.0001,
  toolLengths: 'gauge-line',
  probe: null,
  profileId: 'compact',
  positions: null,
  note: '',
}

const testLathe: Machine = {
  ...testMill,
  id: 'l',
  name: 'Lathe',
  kind: 'lathe',
  axes: { X: numbers.lathe, Y: null, Z: numbers.lathe },
  rapids: { X: 600, Y: null, Z: 600 },
  dynamics: null,
}

export const [compact, twoLine, plain] = BUILT_IN_PROFILES as [Profile, Profile, Profile]

/** A two-line control with driven tools: by codes that are made up, as a builder may have them. */
export const DRIVEN: Driven = {
  turns: { clockwise: 133, counter: 134, off: 135, speed: 'P' },
  axis: { on: 154, off: 155 },
  face: { on: 'G12.1', off: 'G13.1', x: 'diameter', across: 'C' },
}
export const withDriven = (driven: Driven | null): Profile => ({
  ...twoLine,
  reading: { ...twoLine.reading, noPoint: 'whole', driven },
})

export const onMill = (more: Partial<ReadOptions> = {}): ReadOptions => ({
  profile: compact,
  machine: testMill,
  unit: 'inch',
  ...more,
})
export const onLathe = (more: Partial<ReadOptions> = {}): ReadOptions =>
  onMill({ machine: testLathe, ...more })

const NAMES: Record<number, string> = {
  [ROW.RAPID]: 'rapid',
  [ROW.LINE]: 'line',
  [ROW.ARC_CW]: 'cw',
  [ROW.ARC_CCW]: 'ccw',
  [ROW.IN_STEP]: 'in-step',
  [ROW.TAP_OUT]: 'tap-out',
  [ROW.PROBE]: 'probe',
}

const tidy = (value: number) => Number(value.toFixed(9)) + 0

/** Moves as lines of text, 'rapid 1 2 3', without events. */
export function moves(text: string, options: ReadOptions = onMill()): string[] {
  const { motion } = read(text, options)
  return rowsOf(motion)
    .filter((row) => motion.kind[row] !== ROW.EVENT)
    .map((row) => `${NAMES[motion.kind[row] as number]} ${endOf(motion, row).map(tidy).join(' ')}`)
}

export const rowsOf = ({ count }: Motion) => Array.from({ length: count }, (_, row) => row)

/** Codes of the diagnostics, each with its line. */
export const complaints = (text: string, options: ReadOptions = onMill()): string[] =>
  of(read(text, options)).filter((each) => !each.startsWith('unit-not-said') && !each.startsWith('no-m30'))

const of = ({ diagnostics }: Program) => diagnostics.map(({ code, line }) => `${code} ${line}`)

type CompensationRules = Profile['reading']['compensation']

/** A control that leads the tool beside the path by these rules. */
export const withCompensation = (rules: Partial<CompensationRules> = {}, of = twoLine): Profile => ({
  ...of,
  reading: { ...of.reading, noPoint: 'whole', compensation: { ...of.reading.compensation, ...rules } },
})

/** Tool 1 of this radius on a mill with such a control. */
export const onCompensated = (rules: Partial<CompensationRules> = {}, radius = 0.25) =>
  onMill({ profile: withCompensation(rules), radii: new Map([[1, radius]]) })

/** From X0 Y0 Z0, in inches. */
export const COMPENSATED_HEAD = 'G20 G90 G17 F10.\nG0 X0. Y0. Z0.\n'

/** The alarms of compensation in a text after that head: each with its line. */
export const compensationAlarms = (text: string, rules: Partial<CompensationRules> = {}) =>
  read(`${COMPENSATED_HEAD}${text}\nM30`, onCompensated(rules))
    .diagnostics.filter(({ code }) => code.startsWith('compensation'))
    .map(({ code, line, severity }) => `${code} ${line} ${severity}`)
