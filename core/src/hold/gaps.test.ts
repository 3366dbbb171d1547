import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import type { Machine, Obstacle } from '../machine/index.ts'
import { asTyped } from '../quantity/index.ts'
import {
  type ClearanceCase,
  clearance,
  libraryFit,
  middleOfTable,
  SAMPLE_VISES,
  type Vise,
  visePlace,
  viseReach,
  vise as viseSchema,
  worseEnd,
} from './index.ts'

// Vises worked with a pencil.

const inch = (value: number) => asTyped(value, 'inch')

describe('the gaps round a vise', () => {
  const mill = demoReference.machines[0] as Machine
  const cover = (more: Partial<Obstacle> = {}): Obstacle => ({
    name: 'cover',
    side: 'back',
    at: 7,
    bottom: 0,
    top: 5,
    comesDownWithZ: false,
    ...more,
  })
  const door = (more: Partial<Obstacle> = {}) => cover({ name: 'door', side: 'front', at: -1, ...more })
  /** One part from 4 in front of the jaw to 2 behind it, between heights of 2 and 4. */
  const block: Vise = {
    id: 'b',
    version: 1,
    name: 'block',
    unit: 'inch',
    jawLength: 6,
    parts: [
      { name: 'body', open: { front: -4, back: 2 }, closed: { front: -4, back: 2 }, bottom: 2, top: 4 },
    ],
    note: '',
  }
  const look = (obstacles: Obstacle[], more: Partial<ClearanceCase> = {}) =>
    clearance({
      machine: {
        ...mill,
        axes: { ...mill.axes, Z: { least: -20, greatest: 2 } },
        around: { tableDepth: 14, obstacles },
      },
      vise: block,
      unit: 'inch',
      jawAt: 4,
      wanted: 1,
      lowestZ: -10,
      ...more,
    })
  const said = (of: ReturnType<typeof look>) => of.findings.map(({ code, says }) => `${code}: ${says}`)

  it('leave an interval for the jaw, down to a single place, and say what is short of it', () => {
    // Room of 7 + 1 - 2 x 1 for a vise of 6: only at 4, a gap of 1 at both ends.
    const just = look([cover(), door()])
    expect(just).toMatchObject({
      interval: { from: 4, to: 4 },
      room: 6,
      reach: 6,
      back: { gap: 1 },
      front: { gap: 1 },
      findings: [],
    })
    expect(just.shortfall).toBeUndefined()
    expect(just.roomWorking).toMatchObject({ arithmetic: '7.0000 + 1.0000 - 2 x 1.0000', gives: '6.0000' })
    expect(just.working.map(({ arithmetic, means, gives }) => [arithmetic, means, gives])).toEqual([
      ['7.0000 - (4.0000 + 2.0000)', 'cover less rearmost point: body', '1.0000'],
      ['4.0000 - 4.0000 + 1.0000', 'foremost point less door: body', '1.0000'],
    ])
    const long = look([cover(), door()], { wanted: 1.5 })
    expect(long.shortfall).toBe(1)
    expect(said(long)).toContain('no-safe-position: No safe position: the vise is 1.0000 in too long.')
    expect(long.findings.find(({ code }) => code === 'no-safe-position')?.why).toContain(
      'may be 5.0000 in with 1.5000 in free',
    )
    expect(look([cover()]).interval).toEqual({ from: Number.NEGATIVE_INFINITY, to: 4 })
    const fits = libraryFit(
      {
        ...look([]),
        machine: { ...mill, around: { tableDepth: 14, obstacles: [cover(), door()] } },
        unit: 'inch',
        jawAt: 4,
        wanted: 1.5,
        lowestZ: -10,
      },
      [block],
    )
    expect(fits[0]).toEqual({ vise: block, shortfall: 1 })
    expect(worseEnd(just)).toBe('back')
    expect(worseEnd(look([cover(), door()], { jawAt: 3.9 }))).toBe('front')
    expect(worseEnd(look([door()]))).toBe('front')
  })

  it('are said at the end that they are at, hit or close, with the state that it is', () => {
    // At 5.5 the back is at 7.5; at -.5 the front is at -4.5.
    const [back] = look([cover()], { jawAt: 5.5 }).findings
    expect(back).toMatchObject({
      code: 'hits-back',
      says: 'With the table fully back, the body hits the cover by 0.5000 in.',
      fix: 'Move the vise forward.',
    })
    const front = look([door({ at: -4 })], { jawAt: -0.5 }).findings.find(({ code }) => code === 'hits-front')
    expect(front).toMatchObject({
      says: 'With the table fully forward, the body hits the door by 0.5000 in.',
      fix: 'Move the vise back.',
    })
    expect(said(look([cover()], { jawAt: 4.5 }))).toEqual([
      'close-back: With the table fully back, the body comes within 0.5000 in of the cover.',
    ])
    expect(said(look([cover()], { jawAt: 5 }))).toEqual([
      'close-back: With the table fully back, the body comes within 0.0000 in of the cover.',
    ])
    const screw: Vise = {
      ...block,
      parts: [{ ...(block.parts[0] as Vise['parts'][number]), closed: { front: -4, back: 3.5 } }],
    }
    expect(said(look([cover()], { vise: screw }))).toEqual([
      'hits-back: With the table fully back, the body (vise closed) hits the cover by 0.5000 in.',
    ])
    expect(look([cover()], { vise: screw }).back?.state).toBe('closed')
    // What only its front end tells apart has two states as well.
    const handle: Vise = {
      ...block,
      parts: [{ ...(block.parts[0] as Vise['parts'][number]), open: { front: -5.5, back: 2 } }],
    }
    expect(said(look([door()], { vise: handle }))[0]).toContain(
      'the body (vise open) hits the door by 0.5000 in',
    )
  })

  it('count where heights meet, those of what comes down only below its Z', () => {
    const counts = (more: Partial<Obstacle>, lowestZ = -10) =>
      look([cover({ at: 5.5, ...more })], { lowestZ }).gaps[0]?.counts
    expect([counts({ bottom: 4, top: 6 }), counts({ bottom: 3.99, top: 6 })]).toEqual([false, true])
    expect([counts({ bottom: 0, top: 2 }), counts({ bottom: 0, top: 2.01 })]).toEqual([false, true])
    // At the top of Z, 2, it is 10 up: at -4 it has come down by 6, to 4.
    const head = { bottom: 10, top: 20, comesDownWithZ: true }
    expect([counts(head, -4), counts(head, -4.01)]).toEqual([false, true])
    expect(counts({ bottom: 0, top: 2, comesDownWithZ: true }, -4)).toBe(false)
    const clear = (more: Partial<Obstacle>) => look([cover({ at: 5.5, ...more })]).gaps[0]?.clearAbove
    expect([clear(head), clear({ ...head, bottom: 4 }), clear({ ...head, bottom: 3.9 }), clear({})]).toEqual([
      -4,
      2,
      undefined,
      undefined,
    ])
  })

  it('say below which Z: of what hits, not of what is only close', () => {
    const head = (at: number, bottom: number): Obstacle =>
      cover({ name: `head ${bottom}`, at, bottom, top: 20, comesDownWithZ: true })
    // That at 10 hits by .5 below Z-4; that at 8 is .1 away, below Z-2.
    expect(said(look([head(5.5, 10), head(6.1, 8)]))[0]).toBe(
      'hits-back: With the table fully back, the body hits the head 10 by 0.5000 in. Only with Z below -4.0000 in.',
    )
    expect(said(look([head(6.5, 10), head(6.1, 8)]))[0]).toContain(
      'comes within 0.1000 in of the head 8. Only with Z below -2.0000 in.',
    )
    // Beside something that stands there at any Z nothing is said of Z.
    expect(said(look([head(5.5, 10), cover({ at: 5.9 })]))[0]).not.toContain('Only with Z')
    // The job goes no lower than -3: it is kept clear by that.
    const kept = look([head(5.5, 10)], { lowestZ: -3 }).findings.find(({ code }) => code === 'hits-below')
    expect(kept).toMatchObject({
      says: 'Keep Z above -4.0000 in at that end: below it the head 10 meets the body.',
      why: 'They overlap by 0.5000 in along the table; only their heights keep them apart. The job goes to -3.0000 in.',
    })
    // One that Z cannot come down to, one that is at the very top of it, and one that only touches are not said.
    for (const [at, bottom, lowestZ] of [
      [5.5, 26, -3],
      [5.5, 4, 2],
      [6, 10, -3],
    ] as const)
      expect(look([head(at, bottom)], { lowestZ }).findings.map(({ code }) => code)).not.toContain(
        'hits-below',
      )
  })

  it('take only what can be: a gap, a Z within the travel, a jaw on the table', () => {
    const codes = (more: Partial<ClearanceCase>) => look([], more).findings.map(({ code }) => code)
    expect([
      codes({ lowestZ: 2 }),
      codes({ lowestZ: -20 }),
      codes({ jawAt: 0 }),
      codes({ jawAt: 14 }),
    ]).toEqual([[], [], [], []])
    expect([codes({ lowestZ: 2.01 }), codes({ lowestZ: -20.01 })]).toEqual([
      ['z-outside-travel'],
      ['z-outside-travel'],
    ])
    expect([codes({ jawAt: -0.01 }), codes({ jawAt: 14.01 })]).toEqual([['jaw-off-table'], ['jaw-off-table']])
    expect([codes({ wanted: -0.01 }), codes({ wanted: 0 })]).toEqual([['negative-wanted'], ['wanted-small']])
    expect(visePlace.safeParse({ jawAt: inch(4), wanted: inch(0), lowestZ: inch(-3) }).success).toBe(true)
    expect(middleOfTable({ ...mill, around: { tableDepth: 14, obstacles: [] } }, 'mm')).toBeCloseTo(
      7 * 25.4,
      9,
    )
  })
})

describe('the sample vises', () => {
  it.each(SAMPLE_VISES.map((each) => [each.name, each] as const))('%s hangs together', (_, vise) => {
    expect(viseSchema.safeParse(vise).success).toBe(true)
    const part = (name: string) => vise.parts.find((each) => each.name === name)
    const [body, fixed, moving, handle, screw] = [
      'body',
      'fixed jaw',
      'moving jaw',
      'handle',
      'screw end',
    ].map(part)
    if (!body || !fixed || !moving || !handle) throw new Error('a part is missing')
    // Jaws stand on the body; the body ends behind the fixed jaw, and the screw goes on from there.
    expect([fixed.bottom, moving.bottom, fixed.open.front]).toEqual([body.top, body.top, 0])
    expect(body.open.back).toBeGreaterThanOrEqual(fixed.open.back)
    expect(body.open).toEqual(body.closed)
    // The handle begins where the body ends, and comes in as the screw turns.
    for (const state of ['open', 'closed'] as const) {
      expect(handle[state].back).toBe(body[state].front)
      expect(handle[state].front).toBeLessThan(handle[state].back)
      // The moving jaw keeps its length, in front of the fixed one and on the body.
      expect(moving[state].back - moving[state].front).toBeCloseTo(moving.open.back - moving.open.front, 9)
      expect(moving[state].back).toBeLessThan(0)
      expect(moving[state].front).toBeGreaterThan(body[state].front)
      if (screw) expect(screw[state].front).toBe(body[state].back)
    }
    expect(handle.closed.front).toBeGreaterThan(handle.open.front)
    // Closed it closes, and open it takes about as much as its jaw is long.
    expect(moving.closed.back).toBeGreaterThan(-0.05 * vise.jawLength)
    expect(-moving.open.back / vise.jawLength).toBeGreaterThan(0.9)
    expect(viseReach(vise, 'open').length).toBe(viseReach(vise, 'open').back - handle.open.front)
  })
  it('a part has a length and a height', () => {
    const [six] = SAMPLE_VISES as [Vise]
    const [first, ...rest] = six.parts as [Vise['parts'][number], ...Vise['parts']]
    const takes = (more: Partial<typeof first>) =>
      viseSchema.safeParse({ ...six, parts: [{ ...first, ...more }, ...rest] }).success
    expect([takes({}), takes({ open: { front: 1, back: 1 } }), takes({ bottom: first.top })]).toEqual([
      true,
      false,
      false,
    ])
  })
})
