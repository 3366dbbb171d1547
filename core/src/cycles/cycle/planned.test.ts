import { describe, expect, it } from 'vitest'
import { compact, machineOf } from '../../code/testing.ts'
import { read } from '../../program/index.ts'
import { type PlannedRow, plannedDiffers } from './planned.ts'

const TEXT = `G20 G90 G54
G53 G0 Z0.
T3 M6
G90 G54 G0 X1. Y2.
S600 M3
G43 H3 Z1.
G1 Z-0.5 F10.
G2 X2. Y1. I1. J0.
G4 P500
G0 Z1.
G98 G84 X1. Y2. Z-0.5 R0.1 F30. J2
G80
M5
M30
`
const { motion } = read(TEXT, { profile: compact, machine: machineOf('mill'), unit: 'inch', frame: 'G54' })

const PLAN: readonly PlannedRow[] = [
  { does: 'up' },
  { does: 'tool', tool: 3 },
  { does: 'rapid', to: [1, 2, null] },
  { does: 'spindle', turning: 3, rpm: 600 },
  { does: 'rapid', to: [1, 2, 1] },
  { does: 'feed', to: [1, 2, -0.5], feed: 10 },
  { does: 'arc', to: [2, 1, -0.5], centre: [2, 2], clockwise: true, feed: 10 },
  { does: 'dwell', seconds: 0.5 },
  { does: 'rapid', to: [2, 1, 1] },
  { does: 'rapid', to: [1, 2, 1] },
  { does: 'rapid', to: [1, 2, 0.1] },
  { does: 'tap-in', to: [1, 2, -0.5], rpm: 600, lead: 0.05, turning: 3 },
  { does: 'tap-out', to: [1, 2, 0.1], rpm: 600, lead: 0.05, turning: 3, multiple: 2 },
  { does: 'rapid', to: [1, 2, 1] },
  { does: 'spindle', turning: 0 },
  { does: 'end' },
]

const changed = (at: number, change: object) =>
  PLAN.map((row, index) => (index === at ? ({ ...row, ...change } as PlannedRow) : row))

describe('what was read against what was planned', () => {
  it('is the same, also with a move to where the tool stands, which no control makes', () => {
    expect(plannedDiffers(motion, PLAN)).toBeUndefined()
    const idle: PlannedRow = { does: 'rapid', to: [1, 2, 1] }
    expect(plannedDiffers(motion, [...PLAN.slice(0, 5), idle, ...PLAN.slice(5)])).toBeUndefined()
  })

  // One thing changed in the plan: the line where the program does otherwise.
  it.each<[what: string, at: number, change: object, line: number]>([
    ['another tool', 1, { tool: 4 }, 3],
    ['a millionth of an inch aside', 2, { to: [1.000001, 2, null] }, 4],
    ['the other way round', 3, { turning: 4 }, 5],
    ['another speed', 3, { rpm: 601 }, 5],
    ['higher', 4, { to: [1, 2, 1.1] }, 6],
    ['another feed', 5, { feed: 10.01 }, 7],
    ['a rapid for a feed', 5, { does: 'rapid' }, 7],
    ['round the other way', 6, { clockwise: false }, 8],
    ['round another centre', 6, { centre: [2, 2.0001] }, 8],
    ['a shorter dwell', 7, { seconds: 0.4 }, 9],
    ['another lead', 11, { lead: 0.0501 }, 11],
    ['another speed in the hole', 11, { rpm: 500 }, 11],
    ['out at another multiple', 12, { multiple: 3 }, 11],
    ['a spindle that runs on', 14, { turning: 3 }, 13],
  ])('%s', (_, at, change, line) => {
    expect(plannedDiffers(motion, changed(at, change))?.line).toBe(line)
  })

  it('differs where something is left out, or done besides', () => {
    for (let at = 0; at < PLAN.length; at++)
      expect(
        plannedDiffers(
          motion,
          PLAN.filter((_, index) => index !== at),
        ),
      ).toBeDefined()
    expect(plannedDiffers(motion, [...PLAN, { does: 'end' }])?.says).toContain('end is missing')
  })
})

describe('what turns a rotary axis', () => {
  const program = `G20 G90 G54
G0 X0. Y0. Z1.
G107 A0. Y0. R1.
G1 Y1. F10.
G3 X1. Y1. I0.5 J0.
G107
G93
G1 X2. A90. F2.
G94
M30
`
  const { motion: wrapped } = read(program, {
    profile: compact,
    machine: machineOf('mill'),
    unit: 'inch',
    frame: 'G54',
  })
  const turn = 180 / Math.PI
  const plan: readonly PlannedRow[] = [
    { does: 'rapid', to: [0, 0, 1] },
    { does: 'feed', to: [0, 0, 1], feed: 10, turn },
    { does: 'wrapped-arc', to: [1, 0, 1], turn, radius: 1, centre: [0.5, 1], clockwise: false, feed: 10 },
    { does: 'timed', to: [2, 0, 1], turn: 90, seconds: 30 },
    { does: 'end' },
  ]
  const otherwise = (at: number, change: object) =>
    plan.map((row, index) => (index === at ? ({ ...row, ...change } as PlannedRow) : row))
  it('is the same', () => expect(plannedDiffers(wrapped, plan)).toBeUndefined())
  it.each<[what: string, at: number, change: object, line: number]>([
    ['a thousandth of a degree further', 1, { turn: turn + 0.001 }, 4],
    ['another feed', 1, { feed: 9 }, 4],
    ['an arc the other way round', 2, { clockwise: true }, 5],
    ['an arc about another centre', 2, { centre: [0.5, 1.01] }, 5],
    ['an arc on another radius', 2, { radius: 1.1 }, 5],
    ['an arc that ends elsewhere', 2, { turn: turn + 1 }, 5],
    ['another time', 3, { seconds: 29 }, 8],
    ['no turn at all', 3, { turn }, 8],
  ])('%s', (_, at, change, line) => {
    expect(plannedDiffers(wrapped, otherwise(at, change))?.line).toBe(line)
  })
})
