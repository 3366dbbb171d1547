import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { endOf, ROW, read } from '../program/index.ts'
import { type BarStopSituation, barStopWorking, checkBarStop } from './check.ts'
import { type BarStopTask, readBarStop, startingBarStop, stopAt } from './task.ts'
import { writeBarStop } from './write.ts'

const lathe = demoReference.machines.find(({ kind }) => kind === 'lathe') as Machine
const situation: BarStopSituation = {
  machine: lathe,
  unit: 'inch',
  geometry: { X: -10, Z: -12 },
  diameter: 1.25,
}
// Part zero at the finished face, the chuck 2.5 behind it: 2.53 standing out leaves 0.03 to face.
const task = (more: Partial<BarStopTask> = {}): BarStopTask => ({
  way: 'pull',
  tool: 9,
  standsOut: 2.53,
  chuck: -2.5,
  face: 0.03,
  most: 3.75,
  x: 0,
  away: 0.5,
  feed: 20,
  ...more,
})
const found = (more: Partial<BarStopTask> = {}, where: Partial<BarStopSituation> = {}) =>
  checkBarStop(task(more), { ...situation, ...where }).map(
    ({ severity, code, where: field }) => `${severity} ${code} ${field}`,
  )

describe('a stop that is driven to the bar: what it must not be (common practice)', () => {
  it.each([
    ['as it should be', {}, {}, []],
    ['a stick-out with a minus', { standsOut: -2.53 }, {}, ['stop stands-out-sign standsOut']],
    [
      'past what may stand out of the chuck',
      { standsOut: 4, chuck: -3.97 },
      {},
      ['stop past-the-limit standsOut', 'look long-for-its-diameter standsOut'],
    ],
    ['no limit said', { most: 0 }, {}, ['stop no-limit most']],
    [
      'long for its diameter',
      { most: 6, standsOut: 5, chuck: -4.97 },
      {},
      ['look long-for-its-diameter standsOut'],
    ],
    [
      'the chuck with the wrong sign',
      { chuck: 2.5 },
      {},
      ['stop chuck-sign chuck', 'look other-facing standsOut'],
    ],
    ['too short: behind part zero', { standsOut: 2.4 }, {}, ['stop ends-behind-zero standsOut']],
    ['another facing than was meant', { standsOut: 2.55 }, {}, ['look other-facing standsOut']],
    ['at rapid up to the bar', { away: 0 }, {}, ['stop no-way-off away']],
    ['no feed', { feed: 0 }, {}, ['stop no-feed feed']],
    ['nothing less than nothing is faced', { face: -0.03, standsOut: 2.47 }, {}, ['stop face-sign face']],
    ['a geometry that nobody took', {}, { geometry: { X: -10 } }, ['look no-geometry tool']],
    [
      'a place that the turret does not reach',
      {},
      { geometry: { X: -10, Z: 5 } },
      ['stop outside-travel standsOut'],
    ],
    [
      'a collet that draws the bar back',
      {},
      { drawnBack: { from: '16C', by: 0.006 } },
      ['note drawn-back standsOut'],
    ],
  ] as [string, Partial<BarStopTask>, Partial<BarStopSituation>, string[]][])(
    '%s',
    (_, more, where, expected) => expect(found(more, where)).toEqual(expected),
  )

  it('says how far it should stand out: the facing in front of part zero, and the chuck behind it', () => {
    expect(checkBarStop(task({ standsOut: 2.4 }), situation)[0]?.fix).toBe('Let it stand out 2.5300 in.')
    expect(stopAt(task())).toBeCloseTo(0.03, 12)
    expect(barStopWorking(task(), 'inch')[0]).toMatchObject({ gives: '0.0300' })
  })
})

describe('the program of a stop', () => {
  const [compact, twoLine, plain] = BUILT_IN_PROFILES as [Profile, Profile, Profile]
  const textOf = (of: BarStopTask, profile = compact) => {
    const written = writeBarStop(of, situation, profile, [])
    if (!written.ok) throw new Error(written.findings[0]?.says)
    return written.text
  }

  it('goes along Z first, feeds to where the bar is to end, stops, says what to pull and clamp, and goes away clear', () => {
    expect(
      textOf(task())
        .split('\n')
        .filter((line) => !line.startsWith('(') && !line.startsWith('%') && !line.startsWith('O'))
        .map((line) => line.replace(/ \(.*/, '')),
    ).toEqual([
      'G20 G18 G40 G80 G97 G99',
      'G53 G0 X0.',
      'G53 G0 Z0.',
      'M5',
      'M0',
      'T0909',
      'G0 Z0.53',
      'G0 X0.',
      'G98 G1 Z0.03 F20.',
      'M0',
      'G0 Z0.53',
      'G99',
      'G53 G0 X0.',
      'G53 G0 Z0.',
      'M30',
      '',
    ])
    const said = (of: BarStopTask) => textOf(of).replace(/\)\n\(/g, ' ')
    expect(said(task())).toContain('PULL THE BAR AGAINST THE STOP')
    expect(said(task({ way: 'push' }))).toContain('THE BAR MUST STAND OUT MORE THAN 2.5300 IN')
  })

  it.each([compact, twoLine, plain])(
    '$name: what is written does just that, over random bars (the reader, move by move)',
    (profile) => {
      const number = (least: number, most: number) =>
        fc.integer({ min: Math.round(least * 1000), max: Math.round(most * 1000) }).map((n) => n / 1000)
      fc.assert(
        fc.property(
          fc.constantFrom('pull' as const, 'push' as const),
          fc.integer({ min: 1, max: 12 }),
          number(0.5, 3.5),
          number(0, 0.1),
          number(0.1, 1),
          number(5, 60),
          (way, tool, chuck, face, away, feed) => {
            const of = task({ way, tool, chuck: -chuck, face, standsOut: chuck + face, away, feed })
            const { motion } = read(textOf(of, profile), {
              profile,
              machine: lathe,
              unit: 'inch',
              offsets: new Map([[`T${tool}`, { X: -10, Z: -12 }]]),
            })
            const ends = [...motion.kind].flatMap((kind, row) =>
              kind === ROW.LINE ? [{ at: endOf(motion, row), feed: motion.feed[row] }] : [],
            )
            // The only move at feed ends where the bar is to end, on the centre line.
            expect(ends).toHaveLength(1)
            expect(ends[0]?.at[0]).toBeCloseTo(0, 9)
            expect(ends[0]?.at[2]).toBeCloseTo(face, 4)
            expect(ends[0]?.feed).toBeCloseTo(feed, 4)
            // Nothing goes further towards the chuck than that.
            expect(Math.min(...[...motion.z].slice(0, motion.count))).toBeCloseTo(face, 4)
            const stops = [...motion.events].filter(({ does }) => does === 'stop')
            expect(stops).toHaveLength(2)
          },
        ),
        depth(30, 300),
      )
    },
  )

  it('is not written where a check says stop', () => {
    expect(writeBarStop(task({ standsOut: -1 }), situation, compact, [])).toMatchObject({ ok: false })
  })
})

describe('the form of a stop', () => {
  const draft = {
    ...startingBarStop('inch'),
    tool: 'T9',
    standsOut: '2.53',
    chuck: '-2.5',
    face: '.03',
    most: '3.75',
  }
  it('is read as it is typed, and says what it lacks', () => {
    expect(readBarStop(draft, 'inch')).toEqual({ ok: true, value: task() })
    expect(readBarStop(startingBarStop('mm'), 'mm')).toMatchObject({
      problems: {
        tool: { empty: true },
        standsOut: { empty: true },
        chuck: { empty: true },
        most: { empty: true },
      },
    })
    expect(readBarStop({ ...draft, tool: '9.5', standsOut: '2,5' }, 'inch')).toMatchObject({
      problems: { tool: { empty: false }, standsOut: { says: expect.stringContaining('comma') } },
    })
  })
})
