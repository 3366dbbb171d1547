import fc from 'fast-check'
import { inverse, Matrix, solve } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { evenly } from '../../testing/evenly.ts'
import { read } from '../program/index.ts'
import { onMill, testMill } from '../program/testing.ts'
import { noTime, totalOf, whereTimeGoes } from './breakdown.ts'
import { calibrate, learntValues, offBy, oneCycle, predict, type TimedCycle } from './calibrate.ts'
import { cycleTime, type TimeParts } from './cycle-time.ts'
import { speedsOf } from './machine-speeds.ts'
import { savedTime } from './saved-time.ts'

const looked = (text: string) => {
  const options = onMill()
  const speeds = speedsOf(testMill, options.profile, 'inch')
  const { motion } = read(text, options)
  const time = cycleTime(motion, speeds)
  return { time, ...whereTimeGoes(text, motion, time, speeds) }
}

describe('where the time goes', () => {
  const line = fc.oneof(
    fc.constantFrom(
      'T1 M6',
      'T2 M6',
      'S1000 M3',
      'M5',
      'G4 P1.',
      '(POCKET)',
      '; holes',
      'M98 P9',
      'G84 Z-.5 R.1 F50.',
      'G80',
    ),
    fc
      .tuple(fc.constantFrom('G0', 'G1'), fc.integer({ min: -9, max: 9 }))
      .map(([code, x]) => `${code} X${x}. F20.`),
  )

  it('every second stands in one section and with one tool, by kind', () => {
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 30 }), (lines) => {
        const text = `O1\nG20 G90\n${lines.join('\n')}\nM30\nO9\nG0 X0\nG1 X1. F9.\nM99\n`
        const { time, sections, tools } = looked(text)
        for (const kind of Object.keys(noTime()) as (keyof TimeParts)[]) {
          const sum = (of: readonly { parts: TimeParts }[]) =>
            of.reduce((all, { parts }) => all + parts[kind], 0)
          expect(sum(sections)).toBeCloseTo(time.parts[kind], 3)
          expect(sum(tools)).toBeCloseTo(time.parts[kind], 3)
        }
        for (const { seconds, parts } of [...sections, ...tools])
          expect(totalOf(parts)).toBeCloseTo(seconds, 3)
      }),
      depth(60, 600),
    )
  })

  it('a section begins at a tool change or a comment, and has its lines', () => {
    const { sections } = looked(
      'O1\nG20 G90\nT1 M6\nG0 X1.\n(POCKET)\nG1 X2. F10.\n(DRILL)\nT2 M6\nG0 X0\nM30\n',
    )
    expect(sections.map(({ from, to, tool, title }) => [from, to, tool, title])).toEqual([
      [3, 4, 1, ''],
      [5, 6, 1, 'POCKET'],
      [7, 10, 2, 'DRILL'],
    ])
    // One inch at 10 in/min.
    expect(sections[1]?.parts.cutting).toBeCloseTo(6, 1)
  })
})

describe('sections', () => {
  const titles = (text: string) => looked(text).sections.map(({ from, title }) => `${from} ${title}`)
  it('stand in the order of the text, though a subprogram ran before the end', () => {
    const lead = '\n'.repeat(8)
    expect(
      titles(
        `O1\nG20 G90${lead}(FIRST)\nG0 X1.\nM98 P9\n(LAST)\nG0 X3.\nT1 M6\nM30\nO9\n(EDGE)\nG1 X2. F60.\nM99\n`,
      ),
    ).toEqual(['10 FIRST', '13 LAST', '15 ', '18 EDGE'])
  })
  it('without a second are left out; a comment over a comment, and a long one, begin none', () => {
    expect(titles('G20 G90\nT1 M6\n(COOLANT)\nM8\n(ONE)\n(TWO)\nG1 X9. F9.\nM30')).toEqual(['2 ', '5 ONE'])
    expect(titles(`G20 G90\nT1 M6\n(${'A'.repeat(197)})\nG1 X9. F9.\nM30`)).toHaveLength(2)
    expect(titles(`G20 G90\nT1 M6\n(${'A'.repeat(198)})\nG1 X9. F9.\nM30`)).toEqual(['2 '])
    // An empty comment is none, and hides none.
    expect(titles('G20 G90\nT1 M6\n()\n(ONE)\nG1 X9. F9.\nM30')).toEqual(['2 ', '4 ONE'])
  })
  it('are told apart by comments up to forty, beyond that by tools alone', () => {
    const of = (count: number) =>
      titles(
        `G20 G90\nT1 M6\n${Array.from({ length: count }, (_, n) => `(HOLE ${n})\nG1 X${n % 2}. F60.\n`).join('')}M30`,
      )
    expect(of(40)).toHaveLength(41)
    expect(of(41)).toEqual(['2 '])
  })
})

it('time of a subprogram stands with its own lines, however often it is called', () => {
  const { sections, tools } = looked(
    'O1\nG20 G90\nT1 M6\nM98 P9\nM98 P9\nM30\nO9\n(EDGE)\nG1 X1. F60.\nG1 X0.\nM99\n',
  )
  const edge = sections.find(({ title }) => title === 'EDGE')
  // Two passes of one inch there and back at 60 in/min, each at least a second a way.
  expect(edge?.seconds).toBeGreaterThan(3)
  expect([edge?.from, edge?.to]).toEqual([8, 10])
  expect(tools.find(({ tool }) => tool === 1)?.seconds).toBeCloseTo(
    sections.filter(({ tool }) => tool === 1).reduce((sum, { seconds }) => sum + seconds, 0),
    6,
  )
})

it('saved time is worth what the shop makes of it, and nothing where nobody said', () => {
  // 6 s a part, 100 parts a shift, 20 shifts a month, 90 an hour: 600 s, 12,000 s, 300 (common practice).
  expect(savedTime(6, { partsAShift: 100, shiftsAMonth: 20, anHour: 90 })).toEqual({
    perPart: 6,
    perShift: 600,
    perMonth: 12_000,
    moneyAMonth: 300,
  })
  expect(savedTime(6, { partsAShift: null, shiftsAMonth: 20, anHour: 90 })).toMatchObject({
    perShift: null,
    perMonth: null,
    moneyAMonth: null,
  })
  expect(savedTime(6, { partsAShift: 100, shiftsAMonth: 20, anHour: null })).toMatchObject({
    perMonth: 12_000,
    moneyAMonth: null,
  })
})

const parts = fc
  .tuple(...Array.from({ length: 7 }, () => evenly(0, 300)))
  .map(([cutting = 0, rapid = 0, toolChange = 0, dwell = 0, spindle = 0, tappingOut = 0, probing = 0]) => ({
    cutting,
    rapid,
    toolChange,
    dwell,
    spindle,
    tappingOut,
    probing,
  }))
const cycle: fc.Arbitrary<TimedCycle> = fc
  .tuple(parts, evenly(-0.2, 0.2), evenly(0.1, 5))
  .map(([reckoned, off, doubt]) => ({ reckoned, seconds: totalOf(reckoned) * (1 + off), doubt }))

describe('timed cycles', () => {
  it('give the generalised least squares of all of them at once (ml-matrix)', () => {
    const before = [0.03, 0.15, 0.3, 0.005, 0.3, 0.15, 0.15]
    fc.assert(
      fc.property(fc.array(cycle, { minLength: 1, maxLength: 6 }), (cycles) => {
        // (D^-1 + sum p p' / s^2) f = D^-1 1 + sum p t / s^2
        const information = Matrix.diag(before.map((sd) => 1 / sd ** 2))
        const right = Matrix.columnVector(before.map((sd) => 1 / sd ** 2))
        for (const { reckoned, seconds, doubt } of cycles) {
          const p = Matrix.columnVector(Object.values(reckoned))
          information.add(p.mmul(p.transpose()).div(doubt ** 2))
          right.add(Matrix.mul(p, seconds / doubt ** 2))
        }
        const wanted = solve(information, right).to1DArray()
        const got = Object.values(calibrate(cycles).factors)
        for (const [index, factor] of got.entries()) expect(factor).toBeCloseTo(wanted[index] as number, 6)
        const { doubts, covariance, runs } = calibrate(cycles)
        const spread = inverse(information)
        for (const [index, doubt] of Object.values(doubts).entries())
          expect(doubt).toBeCloseTo(Math.sqrt(spread.get(index, index)), 6)
        for (const [index, of] of covariance.entries())
          expect(of).toBeCloseTo(spread.get(Math.floor(index / 7), index % 7), 6)
        expect(runs).toBe(cycles.length)
      }),
      depth(100, 1000),
    )
  })

  it('tell the tool change of the page from that of the machine, once they can', () => {
    // Two programs, the same but for ten tool changes, on a machine that takes 5 s and not 4: 10 s more between them.
    const parts = (changes: number) => ({ ...noTime(), cutting: 60, toolChange: 4 * changes })
    const timed = (changes: number): TimedCycle => ({
      reckoned: parts(changes),
      seconds: 60 + 5 * changes,
      doubt: 0.5,
    })
    const speeds = { toolChange: 4, spindleAcceleration: 20 }
    expect(learntValues(calibrate([]), speeds)).toEqual([])
    const [learnt, ...more] = learntValues(calibrate([timed(1), timed(11), timed(11)]), speeds)
    expect(more).toEqual([])
    expect(learnt?.what).toBe('toolChange')
    expect(Math.abs((learnt?.timed ?? 0) - 5)).toBeLessThan(2 * (learnt?.doubt ?? 0))
    expect(learnt?.timed).toBeCloseTo(5, 1)
    const fast = { ...noTime(), cutting: 10, spindle: 20 }
    const [spindle] = learntValues(calibrate([{ reckoned: fast, seconds: 20, doubt: 0.2 }]), speeds)
    // Half the time is twice the acceleration, as far as one timing outweighs what was thought before.
    expect(spindle?.timed).toBeGreaterThan(35)
  })

  it('of nothing, timed without doubt, say nothing', () => {
    const { factors, doubts } = calibrate([{ reckoned: noTime(), seconds: 0, doubt: 0 }])
    expect({ factors, doubts }).toEqual({ factors: calibrate([]).factors, doubts: calibrate([]).doubts })
  })

  it('are told of the page only where they say more than was known, and the page is off by more than that', () => {
    const of = (factor: number, doubt: number, kind: 'toolChange' | 'spindle' = 'toolChange') => {
      const { factors, doubts, ...rest } = calibrate([])
      return learntValues(
        { ...rest, factors: { ...factors, [kind]: factor }, doubts: { ...doubts, [kind]: doubt } },
        { toolChange: 4, spindleAcceleration: 20 },
      )
    }
    // 4 s times 1.25, within 4 s times .05.
    expect(of(1.25, 0.05)).toEqual([
      { what: 'toolChange', page: 4, timed: 5, doubt: expect.closeTo(0.2, 12) },
    ])
    // Half the time is twice the acceleration; d(1/f) = df / f^2: 20 x .02 / .25.
    expect(of(0.5, 0.02, 'spindle')).toEqual([
      { what: 'spindleAcceleration', page: 20, timed: 40, doubt: expect.closeTo(1.6, 12) },
    ])
    // Six tenths of the .3 that nobody had timed, and no less; and off by more than the doubt.
    expect(of(1.9, 0.17)).toHaveLength(1)
    expect(of(1.9, 0.19)).toEqual([])
    expect(of(1.1, 0.15)).toEqual([])
    expect(of(0.8, 0.15)).toHaveLength(1)
    expect(of(1.15, 0.15)).toEqual([])
    expect(of(1.125, 0.125)).toEqual([])
  })

  it('timed together are known the better, the more there are', () => {
    // Ten cycles in 800 s, the watch off by half a second in all: 80 s each, within 0.05 s (common practice).
    expect(oneCycle(800, 10)).toEqual({ seconds: 80, doubt: 0.05 })
    expect(offBy({ reckoned: { ...noTime(), cutting: 70, rapid: 10 }, seconds: 84 })).toBeCloseTo(0.05, 12)
  })

  it('bring the prediction to what was timed, and take doubt away', () => {
    fc.assert(
      fc.property(cycle, fc.integer({ min: 1, max: 8 }), (of, times) => {
        fc.pre(totalOf(of.reckoned) > 10)
        const never = predict(of.reckoned, calibrate([]))
        const now = predict(of.reckoned, calibrate(Array.from({ length: times }, () => of)))
        expect(never.seconds).toBeCloseTo(totalOf(of.reckoned), 9)
        expect(Math.abs(now.seconds - of.seconds)).toBeLessThanOrEqual(
          Math.abs(never.seconds - of.seconds) + 1e-9,
        )
        expect(now.doubt).toBeLessThan(never.doubt)
        // No better than the mean of so many timings.
        expect(now.doubt).toBeLessThanOrEqual(of.doubt / Math.sqrt(times) + 1e-9)
      }),
      depth(100, 1000),
    )
  })
})
