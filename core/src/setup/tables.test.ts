import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { demoEntries, demoReference } from '../demo/index.ts'
import {
  type CopyDraft,
  probeProgramFor,
  readCopies,
  startingCopies,
  stopHeight,
  turnedOutside,
} from '../prepare/index.ts'
import type { ProbeTask } from '../probe/index.ts'
import { addressNames, describeEntry, type Entry, namesIn, offsetOf } from './index.ts'
import { add, derive as deriveWith, edge, happened, inch, opened, pickup, touch } from './testing.ts'
import { faultOf } from './testing-read.ts'

const derive = (entries: Entry[]) => deriveWith(entries, demoReference)
const taken = () => [pickup(edge('X', -20)), pickup(edge('Y', -9)), pickup(touch(7))]
const copies: CopyDraft = { source: 'G54', first: 'G55', count: '3', X: '6', Y: '0', Z: '0', within: '.001' }

describe('copies of an offset', () => {
  it('come out as they were shown, n steps from the source, whatever the step (an invariant of adding)', () => {
    const step = fc.integer({ min: -60_000, max: 60_000 }).map((n) => n / 10_000)
    fc.assert(
      fc.property(step, step, fc.integer({ min: 1, max: 5 }), (x, z, count) => {
        const log = taken()
        const setup = derive(log)
        const read = readCopies({ ...copies, count: String(count), X: String(x), Z: String(z) }, setup)
        if (!read.ok) throw new Error(JSON.stringify(read.problems))
        expect(read.copies).toHaveLength(3 * count)
        const made = derive([
          ...log,
          ...read.copies.map(({ offset, reading, rests }) => pickup(reading, offset, rests)),
        ])
        read.copies.forEach(({ offset, axis, value }, index) => {
          const n = Math.floor(index / 3) + 1
          const source = setup.offsets[0]?.axes[axis]?.value ?? Number.NaN
          expect(value).toBeCloseTo(source + n * { X: x, Y: 0, Z: z }[axis], 9)
          const fact = offsetOf(made, offset).axes[axis]
          expect(fact?.value).toBeCloseTo(value, 6)
          expect(fact?.freshness.state).toBe('fresh')
        })
      }),
      depth(30, 300),
    )
  })

  it('carry the doubt of the step where there is one, and are entries that the schema takes', () => {
    const read = readCopies(copies, derive(taken()))
    if (!read.ok) throw new Error('not read')
    const [x, y] = read.copies
    expect(x?.reading.shiftWithin.value).toBe(0.001)
    expect(y?.reading.shiftWithin.value).toBe(0)
    const entry = pickup(x?.reading as never, 'G55', x?.rests)
    expect(faultOf(entry)).toBeUndefined()
  })

  it('leave out what is stale or missing, and say what would leave the travel or be replaced', () => {
    const read = readCopies(copies, derive([...taken(), happened('tool-measured-again', 7)]))
    expect(read).toMatchObject({ ok: true, left: ['Z'], copies: { length: 6 } })
    const far = readCopies({ ...copies, X: '12' }, derive(taken()))
    expect(far.ok && far.copies.filter(({ outside }) => outside).map(({ offset }) => offset)).toEqual([
      'G56',
      'G57',
    ])
    const onto = readCopies(copies, derive([...taken(), pickup(edge('Y', -3), 'G56')]))
    expect(onto.ok && onto.copies.filter(({ replaces }) => replaces)).toMatchObject([
      { offset: 'G56', axis: 'Y' },
    ])
  })

  it.each([
    [{ count: '0' }, 'count', /whole number from 1 to 40/],
    [{ count: 'two' }, 'count', /whole number/],
    [{ first: 'G53' }, 'first', /G53 is not an offset/],
    [{ first: 'G154 P98', count: '5' }, 'count', /has 2 offsets/],
    [{ first: 'G54' }, 'first', /G54 itself would be among them/],
    [{ X: '6,5' }, 'X', /comma/],
    [{ within: '-1' }, 'within', /cannot be negative/],
    [{ source: 'G59' }, 'source', /nothing fresh to copy/],
  ] as [Partial<CopyDraft>, string, RegExp][])('%o is said in a sentence', (change, field, says) => {
    const read = readCopies({ ...copies, ...change }, derive(taken()))
    expect(!read.ok && read.problems[field as 'count']?.says).toMatch(says)
  })

  it('start at the first offset that is free', () => {
    expect(startingCopies(derive(taken()))).toMatchObject({ source: 'G54', first: 'G55', count: '1' })
    const [, lathe] = demoReference.machines
    const [profile] = demoReference.profiles
    expect(lathe && profile && addressNames(lathe, profile).slice(0, 2)).toEqual(['T1', 'T2'])
  })
})

describe('where to stop Z for the look (common practice: offset, tool length and height added)', () => {
  it('is the offset and the tool and the height; nothing while one of them is not known', () => {
    const offset = offsetOf(derive(taken()), 'G54')
    const z = offset.axes.Z?.value ?? Number.NaN
    expect(stopHeight(offset, '4.5', '.1', 'inch')?.machineZ).toBeCloseTo(z + 4.6, 12)
    expect(stopHeight(offset, '', '.1', 'inch')).toBeUndefined()
    expect(stopHeight(offset, '4.5', '-.1', 'inch')).toBeUndefined()
    expect(stopHeight(offsetOf(derive([]), 'G54'), '4.5', '.1', 'inch')).toBeUndefined()
  })
})

describe('the travel of a program that was turned', () => {
  it('is looked at in machine positions, as far as the zero is known', () => {
    const setup = derive(taken())
    const offset = offsetOf(setup, 'G54')
    const extent = (x: number) => ({ least: { x: 0, y: 0 }, greatest: { x, y: 4 } })
    expect(turnedOutside(setup, offset, extent(19))).toEqual([])
    expect(
      turnedOutside(setup, offset, extent(20)).map(({ severity, where }) => `${severity} ${where}`),
    ).toEqual(['stop X'])
    expect(turnedOutside(setup, offsetOf(setup, 'G55'), extent(500))).toEqual([])
    expect(turnedOutside(setup, offset, undefined)).toEqual([])
  })
})

describe('probe calls of a setup', () => {
  const task: ProbeTask = {
    feature: 'bore',
    axis: 'X',
    directionX: '+',
    directionY: '+',
    x: 1,
    y: 1,
    top: 0,
    depth: -0.25,
    size: 1.5,
    gap: 0.63,
    search: 0.75,
    clearance: 1,
  }
  it('know the offset so far, stale or not, and are refused on a machine without a probe', () => {
    const setup = derive([...taken(), happened('vise-moved')])
    const written = probeProgramFor(setup, offsetOf(setup, 'G54'), task)
    expect(written).toMatchObject({ ok: true, findings: [] })
    const machines = demoReference.machines.map((each) => ({ ...each, probe: null }))
    const bare = deriveWith(taken(), { ...demoReference, machines })
    expect(probeProgramFor(bare, offsetOf(bare, 'G54'), task).findings.map(({ code }) => code)).toEqual([
      'no-probe',
    ])
  })
  it('bring the shape of the probe into the unit of the setup', () => {
    const metric = { ...opened, unit: 'mm', tolerance: { text: '0.05', value: 0.05, unit: 'mm' } } as Entry
    const setup = deriveWith([metric, ...taken()], demoReference)
    const written = probeProgramFor(setup, offsetOf(setup, 'G54'), {
      ...task,
      depth: -50.1,
      size: 40,
      gap: 17,
      search: 20,
      clearance: 25,
    })
    expect(written.findings.map(({ code }) => code)).toContain('body-against-part')
  })
})

describe('the words of the newer entries', () => {
  const at = (x: number, y: number) => ({ x: inch(x), y: inch(y) })
  const says = (entry: Entry) =>
    describeEntry(entry, { unit: 'inch', leastStep: 0.0001 }, () => '', namesIn(demoReference))
  it('say what came of it, and keep what was typed', () => {
    const angle = add('angled', {
      offset: 'G54',
      reading: { method: 'holes', device: 'probe', first: at(0, 0), second: at(4, 0.1), nominal: 0 },
      reach: inch(4),
      allowed: inch(0.002),
      needsSquare: false,
      machine: { id: 'mill-1', version: 1 },
    })
    expect(says(angle)).toEqual({
      says: 'Part of G54 lies at 1.432 deg, within 0.002',
      detail: 'two holes, X 0.0000 in Y 0.0000 in, X 4.0000 in Y 0.1000 in',
    })
    const mean = pickup({
      ...edge('X', -14),
      machinePosition: { ...inch(-14), repeats: [{ text: '-355.6mm', value: -14, unit: 'inch' }] },
    } as never)
    expect(says(mean).detail).toBe(
      'edge finder, moving X+, diameter 0.2000 in, machine position -14.0000 in; -355.6mm = -14.0000 in, on the drawing 0.0000 in',
    )
    expect(
      says(
        add('identified', {
          distances: [
            { name: 'A-B', measured: inch(3), drawing: inch(2), within: inch(0.01), turned: inch(3) },
          ],
        }),
      ).says,
    ).toBe('Part looked at: the other way round')
    const program = add('program', {
      offset: 'G54',
      what: 'probe',
      rests: [],
      how: 'downloaded',
      text: 'G0\nM30\n',
      profile: { id: 'compact', version: 1 },
      machine: { id: 'mill-1', version: 1 },
    })
    expect(says(program)).toEqual({
      says: 'Probe program for G54 downloaded',
      detail: '2 lines, profile Compact version 1',
    })
    for (const entry of [angle, mean, program]) expect(faultOf(entry)).toBeUndefined()
  })
})

describe('what comes next about the angle, and the demo', () => {
  const start = Date.UTC(2026, 10, 25, 8)
  let seed = 7
  const entries = demoEntries(start, () => {
    seed = (seed * 16_807) % 2_147_483_647
    return seed / 2_147_483_647
  })
  const brackets = entries.filter(
    (entry) => entry.kind === 'opened' && entry.title === 'Counterweight bracket',
  )

  it('the bracket that lay askew is turned to, and nothing of it is stale', () => {
    const last = brackets.at(-1)
    const setup = deriveWith(
      entries.filter(({ setup: of }) => of === last?.id),
      demoReference,
    )
    expect(setup.offsets[0]?.angle?.judgement.advised).toBe('turn')
    expect(setup.part?.as).toBe('right')
    expect(setup.log.every(({ standing }) => standing === 'counts')).toBe(true)
  })
})
