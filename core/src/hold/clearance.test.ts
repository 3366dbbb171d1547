import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { demoReference } from '../demo/index.ts'
import { type Machine, machine as machineSchema, type Obstacle } from '../machine/index.ts'
import {
  beforeItStands,
  type ClearanceCase,
  clearance,
  isSampleVise,
  SAMPLE_VISES,
  type Vise,
  type VisePart,
  vise as viseSchema,
  worseEnd,
} from './index.ts'
import { measuredSix } from './testing.ts'
import { viseIn } from './vise.ts'

const mill = demoReference.machines[0] as Machine
const around = (...obstacles: Obstacle[]): Machine => ({ ...mill, around: { tableDepth: 14, obstacles } })
const cover = (at: number): Obstacle => ({
  name: 'way cover',
  side: 'back',
  at,
  bottom: 0,
  top: 5,
  comesDownWithZ: false,
})
const door = (at: number): Obstacle => ({
  name: 'door',
  side: 'front',
  at,
  bottom: 0,
  top: 30,
  comesDownWithZ: false,
})
const six = measuredSix

const look = (of: Partial<ClearanceCase>) =>
  clearance({
    machine: around(cover(16), door(-5)),
    vise: six,
    unit: 'inch',
    jawAt: 10.5,
    wanted: 0.25,
    lowestZ: -15,
    ...of,
  })
const codes = (of: Partial<ClearanceCase>) => look(of).findings.map(({ code }) => code)

describe('gaps at both ends of the travel (common practice)', () => {
  it('takes the vise closed at the back, where the screw goes out, and open at the front, where the handle goes out', () => {
    const { back, front, interval } = look({})
    // way cover - rearmost point: 16 - (10.5 + 4.9); foremost point - door: 10.5 - 15 + 5
    expect(back).toMatchObject({ state: 'closed', part: { name: 'screw end' } })
    expect(back?.gap).toBeCloseTo(0.6, 12)
    expect(front).toMatchObject({ state: 'open', part: { name: 'handle' } })
    expect(front?.gap).toBeCloseTo(0.5, 12)
    expect(interval?.from).toBeCloseTo(10.25, 12)
    expect(interval?.to).toBeCloseTo(10.85, 12)
    expect(look({}).findings).toEqual([])
  })

  it('is never good for a vise that nobody measured, whatever it is called and in which unit it stands', () => {
    expect(look({}).findings).toEqual([])
    for (const sample of SAMPLE_VISES)
      for (const vise of [
        sample,
        { ...sample, name: 'Ours', version: 7 },
        viseIn(sample, sample.unit === 'inch' ? 'mm' : 'inch'),
      ]) {
        expect(isSampleVise(vise)).toBe(true)
        const [first] = look({ vise }).findings.filter(({ code }) => code === 'sample-vise')
        expect(first).toMatchObject({
          severity: 'look',
          says: `As the sample says: nobody measured ${vise.name}.`,
        })
      }
    expect(isSampleVise(six)).toBe(false)
    const [handle] = six.parts.slice(-1) as [VisePart]
    expect(
      isSampleVise({
        ...(SAMPLE_VISES[0] as Vise),
        parts: [...(SAMPLE_VISES[0] as Vise).parts.slice(0, -1), { ...handle, top: 2.1 }],
      }),
    ).toBe(false)
    expect(
      isSampleVise({ ...(SAMPLE_VISES[0] as Vise), parts: (SAMPLE_VISES[0] as Vise).parts.slice(1) }),
    ).toBe(false)
  })

  it('knows at which end less is free', () => {
    expect(worseEnd(look({ jawAt: 11.5 }))).toBe('back')
    expect(worseEnd(look({ jawAt: 9.5 }))).toBe('front')
    expect(worseEnd({})).toBe('back')
  })

  it('says what is hit at which end, and what is close', () => {
    expect(codes({ jawAt: 11.2 })).toEqual(['hits-back'])
    expect(codes({ jawAt: 9.9 })).toEqual(['hits-front'])
    expect(codes({ jawAt: 10.2 })).toEqual(['close-front'])
  })

  it('finds no safe position, by how much, and which vise would fit', () => {
    const none = look({ machine: around(cover(15), door(-5)) })
    // from 10.25, to 15 - 0.25 - 4.9 = 9.85
    expect(none.interval).toBeUndefined()
    expect(none.shortfall).toBeCloseTo(0.4, 12)
    expect(none.room).toBeCloseTo(19.5, 12)
    expect(none.findings.map(({ code }) => code)).toContain('no-safe-position')
    // It is said of the vise, before anybody measures where it stands, and whatever the place.
    for (const jawAt of [0, 7, 14])
      expect(beforeItStands(look({ machine: around(cover(15), door(-5)), jawAt }))).toMatchObject([
        { code: 'no-safe-position', severity: 'stop' },
      ])
    expect(beforeItStands(look({ jawAt: 11.2 }))).toEqual([])
    expect(
      look({ machine: around(cover(15), door(-5)), vise: SAMPLE_VISES[1] as Vise }).interval,
    ).toBeDefined()
  })

  it('in any place: inside the interval nothing comes nearer than wanted, outside something does; units do not matter', () => {
    const place = evenly(5, 16)
    fc.assert(
      fc.property(place, evenly(0, 0.5), (jawAt, wanted) => {
        const { interval, gaps, back } = look({ jawAt, wanted })
        const nearest = Math.min(...gaps.filter(({ counts }) => counts).map(({ gap }) => gap))
        const inside = interval !== undefined && jawAt >= interval.from && jawAt <= interval.to
        fc.pre(Math.abs(nearest - wanted) > 1e-9)
        expect(inside).toBe(nearest >= wanted)
        const mm = look({ unit: 'mm', jawAt: jawAt * 25.4, wanted: wanted * 25.4, lowestZ: -381 })
        expect((mm.back?.gap ?? 0) / 25.4).toBeCloseTo(back?.gap ?? 0, 9)
      }),
    )
  })
})

describe('the height of Z', () => {
  const head: Obstacle = { name: 'head', side: 'back', at: 13, bottom: 16, top: 40, comesDownWithZ: true }
  const machine = around(head, door(-5))
  it('counts what comes down with Z only once it is low enough, and says below which Z', () => {
    // The fixed jaw is 4.6 high: it meets the head below Z = 4.6 - 16.
    expect(codes({ machine, lowestZ: -11, jawAt: 11.5 })).toEqual(['hits-below'])
    expect(look({ machine, lowestZ: -11, jawAt: 11.5 }).findings[0]?.says).toMatch(
      /Keep Z above -11\.4000 in/,
    )
    expect(codes({ machine, lowestZ: -12, jawAt: 11.5 })).toContain('hits-back')
    expect(look({ machine, lowestZ: -12, jawAt: 11.5 }).findings[0]?.says).toMatch(
      /Only with Z below -11\.4000 in/,
    )
  })
  it('names the Z at which the first part meets, though another overlaps further', () => {
    const deep = look({ machine, lowestZ: -15, jawAt: 11.5 })
    expect(deep.back?.part.name).toBe('screw end')
    expect(deep.findings[0]?.says).toMatch(/screw end \(vise closed\) hits.*Only with Z below -11\.4000 in/)
  })
  it('leaves out what passes over or under', () => {
    const high: Obstacle = { ...cover(10), bottom: 6, top: 8 }
    expect(look({ machine: around(high, door(-5)) }).back).toBeUndefined()
    expect(look({ machine: around(high, door(-5)) }).interval?.to).toBe(Number.POSITIVE_INFINITY)
  })
})

describe('how far off a gap may be', () => {
  it('is three places read by rule, each a step / sqrt 12 (JCGM 100:2008, F.2.2.1), combined by the root of their squares (5.1.2)', () => {
    expect(look({}).doubt.value).toBeCloseTo(Math.sqrt(3 * (1 / 32) ** 2) / Math.sqrt(12), 12)
    const mm = look({ unit: 'mm', jawAt: 266.7, wanted: 6, lowestZ: -381 })
    expect(mm.doubt.value).toBeCloseTo(0.5, 12)
    expect(mm.doubt.parts).toHaveLength(3)
  })

  it('a gap that is wanted smaller than that cannot be told from a touch', () => {
    expect(codes({ wanted: 0.01 })).toContain('wanted-small')
    expect(codes({ wanted: 0.02 })).not.toContain('wanted-small')
  })
})

describe('bad input', () => {
  it('gets a sentence', () => {
    expect(codes({ wanted: -0.1 })).toContain('negative-wanted')
    expect(codes({ lowestZ: 3 })).toContain('z-outside-travel')
    expect(codes({ jawAt: 90 })).toContain('jaw-off-table')
    const says = (read: { error?: { issues: { message: string }[] } | undefined }) =>
      read.error?.issues[0]?.message
    const [body, ...rest] = six.parts
    const backwards = { ...body, open: { front: 3, back: -10 } }
    expect(says(viseSchema.safeParse({ ...six, parts: [backwards, ...rest] }))).toMatch(/must lie in front/)
    expect(says(viseSchema.safeParse({ ...six, parts: [{ ...body, bottom: 3, top: 1 }] }))).toMatch(
      /upper edge/,
    )
    expect(says(machineSchema.safeParse(around(cover(2), door(3))))).toMatch(
      /door overlaps what is met at the back/,
    )
    expect(says(machineSchema.safeParse({ ...mill, axes: { ...mill.axes, Y: null } }))).toMatch(
      /A mill has a travel in Y/,
    )
  })
})
