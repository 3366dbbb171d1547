import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { BUILT_IN_PROFILES, offsetNames, type Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine, ProbeShape } from '../machine/index.ts'
import { readBlocks } from '../program/index.ts'
import { checkProbe } from './check.ts'
import { offsetWord, startOf } from './plan.ts'
import type { ProbeSituation } from './situation.ts'
import { probeSketch } from './sketch.ts'
import {
  FEATURES,
  isWhole,
  type ProbeTask,
  probeFeature,
  readProbeDraft,
  startingProbeDraft,
} from './task.ts'
import { writeProbe } from './write.ts'

const [mill] = demoReference.machines as [Machine]
const [compact, twoLine, plain] = BUILT_IN_PROFILES as [Profile, Profile, Profile]
const shape: ProbeShape = { tool: 20, stylus: 0.25, reach: 2, body: 1.25, overtravel: 0.25 }
const situation: ProbeSituation = {
  machine: mill,
  shape,
  unit: 'inch',
  offset: 'G54',
  near: { X: -15, Y: -8 },
}
const task = (more: Partial<ProbeTask> = {}): ProbeTask => ({
  feature: 'surface',
  axis: 'X',
  directionX: '+',
  directionY: '+',
  x: 0,
  y: 1,
  top: 0,
  depth: -0.25,
  size: 2,
  gap: 0.375,
  search: 0.5,
  clearance: 1,
  ...more,
})
const found = (more: Partial<ProbeTask>, where: Partial<ProbeSituation> = {}) =>
  checkProbe(task(more), { ...situation, ...where }).map(({ severity, code }) => `${severity} ${code}`)

/** Those that find a whole zero are in whole.test.ts. */
const ONE_CALL = probeFeature.options.filter((feature) => !isWhole({ feature }))

describe('what a probe call must not be (common practice; trade.md section 8)', () => {
  it.each([
    ['as it should be', {}, []],
    ['a positive depth', { depth: 0.25 }, ['stop depth-sign']],
    ['a depth of 0', { depth: 0 }, ['stop depth-sign']],
    ['deeper than the stylus reaches', { depth: -2 }, ['stop body-against-part']],
    ['the body just above', { depth: -1.97 }, ['look body-near-part']],
    ['shallow', { depth: -0.1 }, ['look shallow']],
    ['a search that ends before the surface', { search: 0.3 }, ['stop search-too-short']],
    ['a search of plenty', { search: 1 }, ['look search-too-long']],
    ['a search as long as the stylus', { search: 3 }, ['stop search-too-long']],
    ['no gap', { gap: 0 }, ['stop starts-in-part']],
    ['no clearance', { clearance: 0 }, ['stop no-clearance']],
    [
      'a bore smaller than the stylus',
      { feature: 'bore', size: 0.2, gap: -0.025 },
      ['stop stylus-larger-than-pocket'],
    ],
    ['a size of nothing', { feature: 'boss', size: 0 }, ['stop no-size']],
    ['a short base', { feature: 'edge', size: 0.5 }, ['look short-base']],
    ['a start outside the travel', { x: 20 }, ['stop start-outside-travel']],
  ] as [string, Partial<ProbeTask>, string[]][])('%s', (_, more, expected) =>
    expect(found(more)).toEqual(expected),
  )

  it('says that the offset must be near before it runs', () => {
    expect(found({}, { near: {} })).toEqual(['look no-rough-zero'])
  })
})

describe('a probe call as it is written', () => {
  it('stands off by the gap and half the stylus, against the way that it searches', () => {
    expect(startOf(task(), 0.25)).toEqual({ X: -0.5, Y: 1 })
    expect(startOf(task({ axis: 'Y', directionY: '-' }), 0.25)).toEqual({ X: 0, Y: 1.5 })
    expect(startOf(task({ feature: 'bore' }), 0.25)).toEqual({ X: 0, Y: 1 })
    expect(startOf(task({ axis: 'Z' }), 0.25)).toEqual({ X: 0, Y: 1 })
  })

  it('goes on, protected there, measures, protected away, off (common practice), and names the offset', () => {
    const written = writeProbe(task(), situation, compact, [])
    expect(written.ok && written.measures).toEqual(['G65 P9811 X0. Q0.125 S1'])
    expect(written.ok && written.text).toContain('G65 P9811 X0. Q0.125 S1')
    const calls = readBlocks(written.ok ? written.text : '').flatMap(({ words }) =>
      words.some(({ letter, value }) => letter === 'G' && value === 65)
        ? [words.find(({ letter }) => letter === 'P')?.value]
        : [],
    )
    expect(calls).toEqual([9832, 9810, 9810, 9810, 9811, 9810, 9833])
  })

  it('says the further offsets as the profile has them', () => {
    expect(offsetWord(compact, compact.probing as never, 'G154 P7')).toBe(154.07)
    expect(offsetWord(twoLine, twoLine.probing as never, 'G54.1 P7')).toBe(107)
  })

  it('reads back for every feature, place and control, or is refused with a reason', () => {
    const number = (least: number, greatest: number) =>
      fc.integer({ min: least * 1000, max: greatest * 1000 }).map((n) => n / 1000)
    fc.assert(
      fc.property(
        fc.constantFrom(...ONE_CALL),
        fc.constantFrom(compact, twoLine),
        fc.record({
          axis: fc.constantFrom('X' as const, 'Y' as const, 'Z' as const),
          directionX: fc.constantFrom('+' as const, '-' as const),
          directionY: fc.constantFrom('+' as const, '-' as const),
          x: number(-4, 4),
          y: number(-4, 4),
          top: number(-1, 1),
          depth: number(-1, -0.2),
          size: number(1.5, 4),
          gap: number(0.1, 0.5),
          clearance: number(0.5, 2),
        }),
        fc.integer({ min: 0, max: 100 }),
        (feature, profile, of, pick) => {
          const axes = FEATURES[feature].axes
          const axis = axes.length > 0 && !axes.includes(of.axis) ? 'X' : of.axis
          const names = offsetNames(profile)
          const offset = names[pick % names.length] ?? 'G54'
          const written = writeProbe(
            task({ ...of, feature, axis, search: of.gap + 0.1 }),
            { ...situation, offset },
            profile,
            [],
          )
          expect(written.findings.filter(({ severity }) => severity === 'stop')).toEqual([])
          expect(written.ok).toBe(true)
        },
      ),
    )
    expect(writeProbe(task(), situation, plain, [])).toMatchObject({
      ok: false,
      findings: [{ code: 'no-probe-macros' }],
    })
  })

  it('is drawn touching: the ball meets the surface at its own radius, and ends where the search does', () => {
    for (const feature of probeFeature.options) {
      const picture = probeSketch(task({ feature, axis: 'X' }), shape)
      expect(picture.meets.u + picture.radius).toBeCloseTo(picture.bodies[0]?.from ?? Number.NaN, 12)
      expect(picture.ends.u - picture.start.u).toBeCloseTo(0.5, 12)
    }
  })

  it('takes the gap of a bore from its size', () => {
    const read = readProbeDraft(
      { ...startingProbeDraft('inch'), feature: 'bore', x: '0', y: '0', size: '1.25' },
      'inch',
      0.25,
    )
    expect(read).toMatchObject({ ok: true, value: { gap: 0.5 } })
    // Where it is, only the drawing knows.
    expect(readProbeDraft({ ...startingProbeDraft('inch'), depth: '1,5' }, 'inch', 0.25)).toMatchObject({
      problems: { x: { empty: true }, y: { empty: true }, depth: { says: expect.stringContaining('comma') } },
    })
  })
})
