import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { programFor, proofRests, proveCase, restsOf } from '../prepare/index.ts'
import { readCentreDraft, readFlatDraft, startingCentre, startingFlat } from '../rotary/index.ts'
import {
  deriveReady,
  deriveSetup,
  describeEntry,
  type Entry,
  type HappeningKind,
  isUnreadable,
  lineUnderTop,
  nameStaleFacts,
  namesIn,
  offsetOf,
  offsetTable,
  onCentreLine,
  repeatJob,
  rotaryNotHomed,
} from './index.ts'
import { add, derive as deriveWith, edge, happened, inch, opened, pickup, strike, touch } from './testing.ts'
import { read } from './testing-read.ts'

const mill = demoReference.machines[0] as Machine
const derive = (...entries: Entry[]) => deriveWith(entries, demoReference)
const on = { machine: { id: mill.id, version: mill.version } }

const flat = (turned: string, z2: string, offset = 'G54') => {
  const read = readFlatDraft(
    { ...startingFlat('probe'), turned, y1: '-8.5', z1: '-10', y2: '-7.5', z2 },
    'inch',
  )
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return add('flat', { offset, reading: read.value, ...on }) as Entry
}
const centre = (by = 0) => {
  const at = (value: number) => String(value + by)
  const read = readCentreDraft(
    {
      ...startingCentre('probe', 'inch'),
      diameter: '.2',
      across: '2',
      tool: '20',
      toolLength: '6',
      block: '0',
      turned: '0',
      front: at(-9.097),
      back: at(-6.897),
      top: '-7.004',
      halfTurned: '180',
      halfFront: at(-9.103),
      halfBack: at(-6.903),
      halfTop: '-6.996',
    },
    'inch',
  )
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return add('centre-line', { reading: read.value, ...on }) as Entry
}
/** Y and Z of G54 on the centre line that a log has. */
const onLine = (log: Entry[], drawingZ = 0) => {
  const { centre: fact } = derive(...log)
  if (!fact) throw new Error('no centre line')
  return onCentreLine(fact, inch(drawingZ)).map(({ reading, rests }) => pickup(reading, 'G54', rests))
}
const says = (entry: Entry) =>
  describeEntry(entry, { unit: 'inch', leastStep: 0.0001 }, () => '', namesIn(demoReference))

describe('the angle of an offset, from a flat', () => {
  it('stands in the table, is loaded, and what is loaded rests on it', () => {
    const a = flat('10', '-9.9825')
    const log = [pickup(edge('X', -14)), pickup(edge('Y', -6)), pickup(touch(7)), a]
    const setup = derive(...log)
    const offset = offsetOf(setup, 'G54')
    expect(offset.rotary).toMatchObject({ axis: 'A', verdict: 'good', freshness: { state: 'fresh' } })
    expect(offset.rotary?.flat.value).toBeCloseTo(8.9974, 4)
    expect(offsetTable(setup, log, demoReference)[0]?.rotary?.value).toBeCloseTo(8.9974, 4)
    const written = programFor(setup, offset)
    expect(written.ok && written.text).toMatch(/G10 L2 P1 X\S+ Y\S+ Z\S+ A8\.997 /)
    expect(written.ok && written.text).toMatch(/G54 A: TWO TOUCHES ACROSS A FLAT, RT/)
    expect(restsOf(offset, 'program')).toContain(a.id)
    expect(restsOf(offset, 'checked')).not.toContain(a.id)
    expect(proofRests(setup, [], { offsets: ['G54'], tools: [] })).toContain(a.id)
    const [proving] = proveCase(
      setup,
      offsetTable(setup, log, demoReference),
      [],
      [],
      { unit: 'inch', bodies: [] },
      {
        text: '',
        frame: 'G54',
      },
    ).offsets
    expect(proving?.rotary).toBeCloseTo(8.9974, 4)
  })

  it.each([
    ['part-reclamped', 'measured before the part was clamped again'],
    ['rotary-homed', 'measured before the rotary was homed'],
    ['rotary-moved', 'measured before the rotary was moved'],
    ['homed-again', 'measured before the machine was homed again'],
    ['vise-moved', undefined],
    ['bolt-tightened', undefined],
    ['alarm', undefined],
  ] as [HappeningKind, string | undefined][])('after %s: %s', (what, cause) => {
    const setup = derive(flat('10', '-9.9825'), happened(what))
    const { freshness } = offsetOf(setup, 'G54').rotary ?? {}
    expect(freshness?.state === 'stale' ? freshness.cause.says : undefined).toBe(cause)
    expect(nameStaleFacts(setup)).toEqual(cause ? ['G54 A'] : [])
    const written = programFor(setup, offsetOf(setup, 'G54'))
    expect(written.findings.some(({ code, where }) => code === 'axis-stale' && where === 'A')).toBe(
      cause !== undefined,
    )
  })

  it('is not loaded where it cannot be right, and the page of the machine must know the rotary', () => {
    const steep = derive(flat('10', '-8.5'))
    expect(offsetOf(steep, 'G54').rotary?.verdict).toBe('stop')
    expect(programFor(steep, offsetOf(steep, 'G54')).findings.map(({ code }) => code)).toContain(
      'axis-stopped',
    )
    const machines = demoReference.machines.map((each) => ({ ...each, rotary: null }))
    const gone = deriveWith([flat('10', '-9.9825')], { ...demoReference, machines })
    expect(gone.offsets[0]?.rotary).toBeUndefined()
    expect(gone.offsets[0]?.findings.map(({ code }) => code)).toContain('rotary-gone')
    expect(deriveWith([centre()], { ...demoReference, machines }).centre).toBeUndefined()
  })

  it('is held against the one before: a fresh one that differs, and a rotary that counts the other way', () => {
    const codes = (...log: Entry[]) =>
      offsetOf(derive(...log), 'G54').rotary?.findings.map(({ code }) => code)
    expect(codes(flat('10', '-9.9825'), flat('8.9974', '-10'))).toEqual([])
    expect(codes(flat('10', '-9.9825'), flat('8.9974', '-9.965'))).toEqual([
      'counts-other-way',
      'differs-from-last',
    ])
    expect(codes(flat('10', '-9.9825'), happened('part-reclamped'), flat('5', '-10'))).toEqual(['was-before'])
    // The first comes back where the second was a slip.
    const slip = flat('90', '-10')
    expect(codes(flat('10', '-9.9825'), slip, strike(slip.id))).toEqual([])
  })

  it('is of one offset, and of another setup where this one took none', () => {
    const a = flat('10', '-9.9825', 'G55')
    const setup = derive(a)
    expect(offsetOf(setup, 'G54').rotary).toBeUndefined()
    const row = (of: typeof setup, log: readonly Entry[]) =>
      offsetTable(of, log, demoReference).find(({ name }) => name === 'G55')?.rotary
    expect(row(setup, [a])?.other).toBeUndefined()
    const start = {
      ...opened,
      id: `${opened.id.slice(0, -1)}Z`,
      setup: `${opened.id.slice(0, -1)}Z`,
    } as Entry
    const other = { ...flat('20', '-10', 'G55'), setup: start.id } as Entry
    const empty = derive()
    expect(row(empty, [start, other])).toMatchObject({ value: 20, other: { title: 'Test block' } })
    expect(row(setup, [a, start, other])?.value).toBeCloseTo(8.9974, 4)
  })
})

describe('the centre line of the rotary', () => {
  it('gives Y and Z of an offset, which go stale once it is found again or the rotary moved', () => {
    const line = centre()
    const [y, z] = onLine([line], -1) as [Entry, Entry]
    const { axes } = offsetOf(derive(line, y, z), 'G54')
    expect(axes.Y?.value).toBeCloseTo(-8, 9)
    // By hand: -7 - 6 - 1 = -14; Z zero on top of a bar of 2 is 1 over the line.
    expect(axes.Z?.value).toBeCloseTo(-13, 9)
    expect(axes.Y?.working[0]?.arithmetic).toBe('-8.0000 - 0.0000')
    expect(axes.Y?.doubt.value).toBeCloseTo(derive(line).centre?.centre.Y?.doubt.value ?? 0, 9)
    const stale = (...more: Entry[]) =>
      Object.values(offsetOf(derive(line, y, z, ...more), 'G54').axes).map(({ freshness }) =>
        freshness.state === 'stale' ? freshness.cause.says : '',
      )
    expect(stale(centre())).toEqual(Array(2).fill('taken before the centre line was taken again'))
    expect(stale(happened('rotary-moved'))).toEqual(Array(2).fill('taken before the rotary was moved'))
    expect(stale(happened('homed-again'))).toEqual(Array(2).fill('taken before the machine was homed again'))
    expect(stale(strike(line.id))).toEqual(Array(2).fill('rests on a reading that was struck out'))
    // The axis stays where it is, however the part is clamped, and whatever happens to the vise.
    for (const what of ['part-reclamped', 'rotary-homed', 'vise-moved', 'bolt-tightened'] as const)
      expect(stale(happened(what))).toEqual(['', ''])
  })

  it('lies half of the part under its top', () => {
    const { centre: fact } = derive(centre())
    // A bar of 2 in.
    expect(fact && lineUnderTop(fact, 'inch')).toBe(-1)
    expect(fact && lineUnderTop(fact, 'mm')).toBeCloseTo(-25.4, 9)
  })

  it('that no longer holds, or cannot be, gives nothing', () => {
    const { centre: fact } = derive(centre(), happened('rotary-moved'))
    expect(fact && onCentreLine(fact, inch(0))).toEqual([])
    const far = derive(centre(-20)).centre
    expect([far?.verdict, far && onCentreLine(far, inch(0))]).toEqual(['stop', []])
  })

  it('is held against where it was, and a flat in front of it against it', () => {
    const codes = (...log: Entry[]) => derive(...log).centre?.findings.map(({ code }) => code)
    expect(codes(centre())).toEqual([])
    expect(codes(centre(), centre(0.01))).toEqual(['centre-moved'])
    expect(codes(centre(), happened('rotary-moved'), centre(0.01))).toEqual(['centre-was'])
  })

  it('is said in the logbook, kept as it was typed, and taken over stale when the job is set up again', () => {
    const [line, a] = [centre(), flat('10', '-9.9825')]
    expect(says(line)).toEqual({
      says: "Rotary's centre line at Y -8.0000 in, Z -14.0000 in; the part runs out 0.0050 in",
      detail: expect.stringContaining('at 180.000 deg, front -9.1030 in, back -6.9030 in, top -6.9960 in'),
    })
    expect(says(a)).toEqual({
      says: "Rotary's zero of G54 from a flat, touched at 10.000 deg",
      detail:
        'two touches across a flat, faces up, touch 1 at Y -8.5000 in Z -10.0000 in, touch 2 at Y -7.5000 in Z -9.9825 in, 0.000 deg in the program',
    })
    for (const each of [line, a]) expect(read(each)).toEqual(each)
    const [y] = onLine([line]) as [Entry]
    let n = 0
    const again = repeatJob(derive(line, a, y), {
      by: 'KM',
      at: '2026-11-30T08:00:00.000Z',
      nextId: () => `01KB000000000000000000${String(1000 + n++)}`,
    })
    const setup = deriveSetup(again, demoReference)
    if (isUnreadable(setup)) throw new Error(setup.unreadable)
    expect(nameStaleFacts(setup)).toEqual(['The rotary’s centre line', 'G54 Y', 'G54 A'])
  })
})

describe('a rotary that was not homed', () => {
  const homed = (rotary?: number) =>
    add('homed', {
      shown: { X: inch(0), Y: inch(0), Z: inch(0), ...(rotary === undefined ? {} : { rotary }) },
      ...on,
    }) as Entry
  const asked = (...log: Entry[]) => {
    const entries = [opened, ...log]
    const ready = deriveReady({ machine: mill, entries, now: Date.parse(entries.at(-1)?.at ?? '') })
    return {
      codes: rotaryNotHomed(ready, entries, mill).map(({ code }) => code),
      home: ready.home?.findings ?? [],
    }
  }

  it('is said until somebody reads what it shows, or says that it was homed; and again after the machine was homed', () => {
    expect(asked().codes).toEqual(['rotary-not-homed'])
    expect(asked(homed()).codes).toEqual(['rotary-not-homed'])
    expect(asked(homed(0)).codes).toEqual([])
    expect(asked(homed(), happened('rotary-homed')).codes).toEqual([])
    expect(asked(homed(0), happened('homed-again')).codes).toEqual(['rotary-not-homed'])
    const tick = add('ticked', {
      list: 'ready',
      item: 'home',
      says: 'Homed: Z first, then X and Y, the rotary axis too',
    }) as Entry
    expect(asked(tick).codes).toEqual([])
    expect(asked(tick, happened('alarm')).codes).toEqual(['rotary-not-homed'])
    expect(rotaryNotHomed({ lines: [] }, [opened], { name: 'VM', rotary: null })).toEqual([])
  })

  it('and one that does not show 0 after homing is looked at', () => {
    expect(asked(homed(0.002)).home).toEqual([])
    expect(asked(homed(90)).home).toMatchObject([{ code: 'home-differs', where: 'A' }])
    expect(says(homed(0.001)).detail).toBe('X 0.0000 in, Y 0.0000 in, Z 0.0000 in, rotary 0.001 deg')
  })
})
