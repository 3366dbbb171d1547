import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { times } from '../../testing/depth.ts'
import { evenly } from '../../testing/evenly.ts'
import { BUILT_IN_PROFILES, offsetNames, type Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine, ProbeShape } from '../machine/index.ts'
import { read } from '../program/index.ts'
import { checkProbe } from './check.ts'
import type { ProbeSituation } from './situation.ts'
import { probeSketch } from './sketch.ts'
import { type ProbeTask, readProbeDraft, startingProbeDraft, usualClearance } from './task.ts'
import { writeProbe } from './write.ts'

const [mill] = demoReference.machines as [Machine]
const [compact, twoLine, plain] = BUILT_IN_PROFILES as [Profile, Profile, Profile]
const shape: ProbeShape = { tool: 20, stylus: 0.25, reach: 2, body: 1.25, overtravel: 0.25 }
const situation: ProbeSituation = { machine: mill, shape, unit: 'inch', offset: 'G54', near: {} }

const block = (more: Partial<ProbeTask> = {}): ProbeTask => ({
  feature: 'block',
  axis: 'X',
  directionX: '+',
  directionY: '+',
  x: 0,
  y: 0,
  top: 0,
  depth: -0.25,
  size: 4,
  sizeY: 2,
  gap: 0.375,
  search: 0.5,
  within: 0.125,
  clearance: 0.375,
  start: { X: -15, Y: -8, Z: -10, length: 6 },
  ...more,
})
const corner = (more: Partial<ProbeTask> = {}) => block({ feature: 'corner-top', inset: 0.5, ...more })
const found = (task: ProbeTask, where: Partial<ProbeSituation> = {}) =>
  checkProbe(task, { ...situation, ...where }).flatMap(({ severity, code, where: field }) =>
    severity === 'note' ? [] : [`${severity} ${code} ${field}`],
  )

describe('what a program for a whole zero must not be (common practice; trade.md 4 and 8)', () => {
  const jaws = { name: 'The vise', opening: 1.9 }
  it.each([
    ['a block as it should be', block(), {}, []],
    ['a corner as it should be', corner(), {}, []],
    ['a depth with the wrong sign', block({ depth: 0.25 }), {}, ['stop depth-sign depth']],
    ['deeper than the stylus reaches', corner({ depth: -2 }), {}, ['stop body-against-part depth']],
    ['no width', block({ sizeY: 0 }), {}, ['stop no-size sizeY']],
    ['no length', block({ size: -1 }), {}, ['stop no-size size']],
    ['wider than the jaws open', block(), { jaws }, ['stop wider-than-jaws sizeY']],
    ['a corner asks for no width', corner(), { jaws }, []],
    ['nothing known of the place', block({ within: 0 }), {}, ['stop no-within within']],
    ['known to more than the gap', block({ within: 0.2, gap: 0.2 }), {}, ['stop comes-down-on-part gap']],
    ['known to plenty', block({ within: 0.3 }), {}, ['look search-too-long within']],
    ['no gap', block({ gap: 0 }), {}, ['stop starts-in-part gap']],
    ['the top touched at the edge', corner({ inset: 0.2 }), {}, ['stop top-beside-part inset']],
    ['no room over the top', block({ clearance: 0 }), {}, ['stop no-clearance clearance']],
    [
      'a position of the work offset for that of the machine',
      block({ start: { X: 15, Y: -8, Z: -10, length: 6 } }),
      {},
      ['stop stands-outside-travel startX'],
    ],
    [
      'a block that reaches past the travel',
      block({ start: { X: -0.5, Y: -8, Z: -10, length: 6 } }),
      {},
      ['stop start-outside-travel x'],
    ],
    [
      'a length with a minus, where lengths count from the gauge line',
      block({ start: { X: -15, Y: -8, Z: -10, length: -6 } }),
      {},
      ['stop tool-length-sign probeLength'],
    ],
  ] as [string, ProbeTask, Partial<ProbeSituation>, string[]][])('%s', (_, task, where, expected) =>
    expect(found(task, where)).toEqual(expected),
  )
})

it('says what a part that lies turned would do: half a degree over an eighth or half an inch (tan, by hand)', () => {
  const turned = (of: ProbeTask) =>
    checkProbe(of, situation).find(({ code }) => code === 'presumes-square')?.says
  // 0.125 x 0.0087269 = 0.00109; (0.375 + 0.125) x 0.0087269 = 0.00436.
  expect(turned(block())).toContain('X comes out up to 0.0011 in off')
  expect(turned(corner())).toContain('X and Y come out up to 0.0044 in off')
})

/**
 * A block that stands at a hidden place, seen from the offset as it was written at the start: a corner's part reaches from it
 * towards the way that the spindle goes into its faces.
 */
function hidden(
  task: ProbeTask,
  truth: { X: number; Y: number; Z: number; length: number; width: number },
  rough: { X: number; Y: number; Z: number },
) {
  const [dx, dy, dz] = [truth.X - rough.X, truth.Y - rough.Y, truth.Z - rough.Z]
  const span = (size: number, at: number, direction: '+' | '-') =>
    task.feature === 'block'
      ? [at - size / 2, at + size / 2]
      : direction === '+'
        ? [at, at + size]
        : [at - size, at]
  const [x0, x1] = span(truth.length, task.x, task.directionX) as [number, number]
  const [y0, y1] = span(truth.width, task.y, task.directionY) as [number, number]
  return {
    strict: true,
    holds: (x: number, y: number, z: number) =>
      x >= x0 + dx &&
      x <= x1 + dx &&
      y >= y0 + dy &&
      y <= y1 + dy &&
      z <= task.top + dz &&
      z >= task.top + dz - 3,
  }
}

const number = (least: number, greatest: number) =>
  fc.integer({ min: Math.round(least * 1000), max: Math.round(greatest * 1000) }).map((n) => n / 1000)

const task = fc
  .record({
    feature: fc.constantFrom('block' as const, 'corner-top' as const),
    directionX: fc.constantFrom('+' as const, '-' as const),
    directionY: fc.constantFrom('+' as const, '-' as const),
    x: number(-2, 2),
    y: number(-2, 2),
    top: number(-1, 1),
    depth: number(-0.6, -0.2),
    size: number(2, 5),
    sizeY: number(1.5, 4),
    within: number(0.02, 0.12),
    gap: number(0.2, 0.5),
    clearance: number(0.2, 0.6),
    inset: number(0.5, 0.8),
    start: fc.record({
      X: number(-17, -13),
      Y: number(-9, -7),
      Z: number(-10, -8),
      length: number(4, 7),
    }),
  })
  .map((of): ProbeTask => ({ ...of, axis: 'X', search: of.gap + of.within }))

describe('a block or a corner at a hidden place, where the probe was put by eye', () => {
  it('is led back to from what the program touches, on every control with macros, in every offset', () => {
    const off = evenly(-0.49, 0.49)
    fc.assert(
      fc.property(
        task,
        fc.constantFrom(compact, twoLine),
        fc.nat(),
        fc.record({ X: off, Y: off, Z: off, length: off, width: off }),
        (of, profile, pick, eye) => {
          const names = offsetNames(profile)
          const offset = names[pick % names.length] ?? 'G54'
          const written = writeProbe(of, { ...situation, offset }, profile, [])
          expect(written.findings.filter(({ severity }) => severity === 'stop')).toEqual([])
          if (!written.ok || !of.start) throw new Error('not written')
          const loads = /G10 L\d+ P\d+ X(\S+) Y(\S+) Z(\S+)/.exec(written.text)
          const [X = 0, Y = 0, Z = 0] = (loads?.slice(1) ?? []).map(Number)
          const rough = { X, Y, Z }
          // By the trade, from where the probe was put: the tip stands `clearance` above the top, its ball on the axis.
          const inset = of.feature === 'block' ? 0 : (of.inset ?? 0)
          const towards = (direction: '+' | '-') => (direction === '+' ? inset : -inset)
          expect(X).toBeCloseTo(of.start.X - of.x - towards(of.directionX), 4)
          expect(Y).toBeCloseTo(of.start.Y - of.y - towards(of.directionY), 4)
          expect(Z).toBeCloseTo(of.start.Z - of.start.length - of.top - of.clearance, 4)
          const most = of.within ?? 0
          const truth = {
            X: X + eye.X * most,
            Y: Y + eye.Y * most,
            Z: Z + eye.Z * most,
            length: of.size + eye.length * most,
            width: (of.sizeY ?? 0) + eye.width * most,
          }
          const program = read(written.text, {
            profile,
            machine: mill,
            unit: 'inch',
            frame: offset,
            offsets: new Map([[offset, rough]]),
            standIn: hidden(of, truth, rough),
          })
          expect(program.alarm).toBeUndefined()
          for (const axis of ['X', 'Y', 'Z'] as const) {
            const last = program.offsets.findLast(({ axes }) => axes[axis] !== undefined)
            expect(last?.offset).toBe(offset)
            expect(last?.axes[axis]).toBeCloseTo(truth[axis], 8)
          }
          if (of.feature === 'block') {
            const first = profile.macros?.free.first ?? 0
            expect(program.variables.get(first)).toBeCloseTo(truth.length, 8)
            expect(program.variables.get(first + 1)).toBeCloseTo(truth.width, 8)
          }
        },
      ),
      { numRuns: times(150, 1000) },
    )
  })

  it('goes back to the middle as it was found, and ends over it with the spindle up', () => {
    const written = writeProbe(block(), situation, compact, [])
    if (!written.ok) throw new Error('not written')
    const rough = { X: -15, Y: -8, Z: -16.375 }
    const truth = { X: -15.05, Y: -7.96, Z: -16.35, length: 4.06, width: 1.97 }
    const program = read(written.text, {
      profile: compact,
      machine: mill,
      unit: 'inch',
      offsets: new Map([['G54', rough]]),
      standIn: hidden(block(), truth, rough),
    })
    const { motion } = program
    const last = motion.count - 1
    expect([motion.x[last], motion.y[last]].map((value) => Number(value?.toFixed(6)))).toEqual([-0.05, 0.04])
    expect(written.measures).toEqual([
      'G65 P9811 Z0. Q0.125 S1',
      'G65 P9812 X4. Z-0.25 R0.375 Q0.125 S1',
      'G65 P9812 Y2. Z-0.25 R0.375 Q0.125 S1',
    ])
    expect(written.results).toEqual(['length in #100', 'width in #101'])
    // Four touches and one, at some seconds each: no more than a minute and a half, no less than the moves alone.
    expect(written.seconds).toBeGreaterThan(10)
    expect(written.seconds).toBeLessThan(90)
  })

  it('says an alarm where a face lies further off than it is known', () => {
    const written = writeProbe(block(), situation, compact, [])
    if (!written.ok) throw new Error('not written')
    const rough = { X: -15, Y: -8, Z: -16.375 }
    const alarmWith = (more: object) =>
      read(written.text, {
        profile: compact,
        machine: mill,
        unit: 'inch',
        offsets: new Map([['G54', rough]]),
        standIn: hidden(block(), { ...rough, length: 4, width: 2, ...more }, rough),
      }).alarm?.says
    expect(alarmWith({})).toBeUndefined()
    expect(alarmWith({ length: 3.6 })).toContain('met nothing')
    expect(alarmWith({ Z: rough.Z - 0.2 })).toContain('met nothing')
  })
})

describe('a whole zero as it is asked for and written', () => {
  it('stops for each size to be read where the control has no macro language', () => {
    const bare: Profile = { ...compact, macros: null }
    const written = writeProbe(block(), situation, bare, [])
    if (!written.ok) throw new Error('not written')
    expect(written.text.match(/M0 \(READ THE (LENGTH|WIDTH): VARIABLE 188\)/g)).toHaveLength(2)
    expect(written.text).not.toContain('#100')
  })

  it('is keyed in by hand where the control takes no offset from a program', () => {
    const bare: Profile = { ...compact, loadOffset: null }
    const written = writeProbe(block(), situation, bare, [])
    expect(written.ok && written.text).toContain('M0 (KEY IN G54 BY HAND: X-15. Y-8. Z-16.375)')
  })

  it('is refused without macros of a probe', () => {
    expect(writeProbe(block(), situation, plain, [])).toMatchObject({
      ok: false,
      findings: [{ code: 'no-probe-macros' }],
    })
  })

  it('is read from its form, and drawn touching', () => {
    const draft = {
      ...startingProbeDraft('inch'),
      feature: 'block' as const,
      clearance: '.375',
      size: '4',
      sizeY: '2',
      x: '0',
      y: '0',
      startX: '-15',
      startY: '-8',
      startZ: '-10',
      probeLength: '6',
    }
    expect(readProbeDraft(draft, 'inch', 0.25)).toEqual({ ok: true, value: block() })
    expect(readProbeDraft({ ...draft, startZ: '', within: '1/8 in off' }, 'inch', 0.25)).toMatchObject({
      problems: { startZ: { empty: true }, within: { empty: false } },
    })
    const picture = probeSketch(block(), shape)
    expect(picture.meets.u + picture.radius).toBeCloseTo(picture.bodies[0]?.from ?? Number.NaN, 12)
  })

  it('stands 3/8 in or 10 mm over the top, and an inch or 25 mm where it goes from a zero that is known; a typed height stays', () => {
    const inch = startingProbeDraft('inch')
    expect(usualClearance(inch, 'block', 'inch')).toBe('.375')
    expect(usualClearance({ ...inch, feature: 'block', clearance: '.375' }, 'bore', 'inch')).toBe('1.000')
    expect(usualClearance(startingProbeDraft('mm'), 'corner-top', 'mm')).toBe('10')
    expect(usualClearance({ ...inch, clearance: '.6' }, 'block', 'inch')).toBeUndefined()
    expect(
      usualClearance({ ...inch, feature: 'block', clearance: '.375' }, 'corner-top', 'inch'),
    ).toBeUndefined()
  })
})
