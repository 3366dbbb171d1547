import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { demoReference } from '../demo/index.ts'
import type { LinearAxis } from '../machine/index.ts'
import { deriveReady, deriveSetup, deriveTools, type Entry, isUnreadable, type Setup } from './index.ts'
import { cleared, edge, happened, opened, pickup, start, swept } from './testing.ts'
import { BODIES, type Happens, MOST_TABLETS, playTablets } from './testing-tablets.ts'

const [mill] = demoReference.machines
if (!mill) throw new Error('the demo has a mill')

/** Every fact that a log shows as one that can be relied on, by what it is about, with the entry that states it. */
function reliedOn(entries: readonly Entry[], now: number): Map<string, string> {
  const setup = deriveSetup(entries, demoReference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  const facts = new Map<string, string>()
  const put = (
    name: string,
    fact: { entry: Entry; freshness: Setup['offsets'][number]['findings'] | { state: string } } | undefined,
  ) => {
    if (fact && 'state' in fact.freshness && fact.freshness.state === 'fresh') facts.set(name, fact.entry.id)
  }
  for (const { name, axes, check, angle, program } of setup.offsets) {
    for (const axis of ['X', 'Y', 'Z'] as LinearAxis[]) put(`${name} ${axis}`, axes[axis])
    put(`check of ${name}`, check)
    put(`angle of ${name}`, angle)
    put(`program of ${name}`, program)
  }
  put('squareness', setup.hold.sweeps.at(-1))
  put('clearance', setup.hold.clearance)
  for (const tool of deriveTools(entries, setup.machine, 'inch')) put(`length of T${tool.tool}`, tool)
  const ready = deriveReady({ machine: setup.machine, entries, now })
  put('home', ready.home)
  for (const { item, tick, state } of ready.lines)
    if (state === 'done' && tick) facts.set(`tick of ${item.id}`, tick.id)
  return facts
}

const tablet = fc.nat({ max: MOST_TABLETS - 1 })
const HOUR = 3_600_000
type Kind = keyof typeof BODIES

/** One thing after another as it can come to tablets where people enter only some kinds; `setBack` and the like with `troubled`. */
function stepsOf(
  kinds: readonly Kind[],
  { troubled, least, most }: { troubled: boolean; least: number; most: number },
) {
  const ms = (max: number) =>
    fc.oneof(fc.integer({ min: -max, max }), fc.integer({ min: -2 * HOUR, max: 2 * HOUR }))
  const enters = fc.record({ what: fc.constant('enters' as const), tablet, kind: fc.constantFrom(...kinds) })
  const asks = fc.record({ what: fc.constant('asks' as const), tablet })
  const network = fc.record({ what: fc.constant('network' as const), tablet, up: fc.boolean() })
  const reloads = fc.record({ what: fc.constant('reloads' as const), tablet })
  const sleeps = fc.record({ what: fc.constant('sleeps' as const), tablet, ms: fc.nat({ max: 3 * HOUR }) })
  const clock = fc.record({ what: fc.constant('clock-set' as const), tablet, by: ms(400 * 24 * HOUR) })
  const usual = [
    { weight: 12, arbitrary: enters },
    { weight: 3, arbitrary: asks },
    { weight: 2, arbitrary: clock },
  ]
  const trouble = [
    { weight: 3, arbitrary: network },
    { weight: 2, arbitrary: reloads },
    { weight: 1, arbitrary: sleeps },
  ]
  const happens: fc.Arbitrary<Happens> = troubled ? fc.oneof(...usual, ...trouble) : fc.oneof(...usual)
  const after = fc.oneof(fc.integer({ min: least, max: least + 500 }), fc.integer({ min: least, max: most }))
  return fc.array(fc.record({ happens, after }), { minLength: 4, maxLength: 40 })
}

const EVERYTHING = Object.keys(BODIES) as Kind[]
const SOME: { of: string; kinds: Kind[] }[] = [
  { of: 'everything', kinds: EVERYTHING },
  { of: 'a zero and where the vise is', kinds: ['X', 'vise-here', 'vise-there'] },
  {
    of: 'two vises, seen to clear and swept',
    kinds: ['X', 'vise-here', 'other-vise', 'swept-here', 'swept-other'],
  },
  { of: 'a zero, its check and the vise', kinds: ['X', 'check', 'tight', 'snug', 'moved'] },
]
const MINUTE = 60_000

describe('whatever the clocks of the tablets say', () => {
  it.each(SOME)(
    'nothing is fresh that would be stale in the order in which it happened: $of',
    ({ kinds }) => {
      fc.assert(
        fc.property(
          stepsOf(kinds, { troubled: true, least: 0, most: 40 * MINUTE }),
          fc.nat({ max: 1500 }),
          (steps, travel) => {
            const { views, now } = playTablets(steps, travel)
            for (const { seen, inTruth } of views) {
              const truth = reliedOn(inTruth, now)
              for (const [name, id] of reliedOn(seen, now))
                expect([name, truth.get(name)]).toEqual([name, id])
            }
          },
        ),
        depth(250, 20_000),
      )
    },
  )

  it('nothing is stale without need while every tablet hears the server and people take a second', () => {
    const everyoneAsks = Array.from({ length: MOST_TABLETS }, (_, n) => ({
      happens: { what: 'asks' as const, tablet: n },
      after: 0,
    }))
    fc.assert(
      fc.property(
        stepsOf(EVERYTHING, { troubled: false, least: 1000, most: MINUTE }),
        fc.nat({ max: 300 }),
        (steps, travel) => {
          const { views, now } = playTablets([...everyoneAsks, ...steps], travel)
          for (const { seen, inTruth } of views) expect(reliedOn(seen, now)).toEqual(reliedOn(inTruth, now))
        },
      ),
      depth(100, 5000),
    )
  })
})

/** What is relied on in the end by who sees the server's log, where things happen a minute apart. */
function reliedOnAfter(...happens: Happens[]): string[] {
  const steps = happens.map((each) => ({ happens: each, after: MINUTE }))
  const { views, now } = playTablets(steps, 100)
  return [...reliedOn(views[0]?.seen ?? [], now).keys()].sort()
}

describe('a tablet that was off the network', () => {
  const away: Happens[] = [
    { what: 'asks', tablet: 0 },
    { what: 'asks', tablet: 1 },
    { what: 'network', tablet: 1, up: false },
  ]
  const back: Happens[] = [
    { what: 'network', tablet: 1, up: true },
    { what: 'asks', tablet: 1 },
  ]
  const set: Happens = { what: 'clock-set', tablet: 1, by: -HOUR }
  const zero: Happens = { what: 'enters', tablet: 0, kind: 'X' }
  const moved: Happens = { what: 'enters', tablet: 1, kind: 'moved' }

  it('and whose clock was set back makes stale the zero that was taken before the vise was moved', () => {
    expect(reliedOnAfter(...away, zero, set, moved, ...back)).toEqual([])
  })

  it('says by its steady clock that the vise was moved before the zero was taken, though it is told of it after', () => {
    expect(reliedOnAfter(...away, set, moved, zero, ...back)).toEqual(['G54 X'])
  })

  it('and was opened anew, so that nothing tells which was first, leaves the zero stale until it is taken again', () => {
    const reloaded: Happens = { what: 'reloads', tablet: 1 }
    expect(reliedOnAfter(...away, set, moved, zero, reloaded, ...back)).toEqual([])
    expect(reliedOnAfter(...away, set, moved, zero, reloaded, ...back, zero)).toEqual(['G54 X'])
  })

  it('says that the vise stands elsewhere, whichever of two places it was put to first', () => {
    const there: Happens = { what: 'enters', tablet: 0, kind: 'vise-there' }
    const here: Happens = { what: 'enters', tablet: 1, kind: 'vise-here' }
    const reloaded: Happens = { what: 'reloads', tablet: 1 }
    expect(reliedOnAfter(...away, set, reloaded, there, zero, here, ...back)).toEqual([])
  })
})

it('words say that it is not sure, by whom it was, and since when', () => {
  const steps: Happens[] = [
    { what: 'asks', tablet: 1 },
    { what: 'network', tablet: 1, up: false },
    { what: 'reloads', tablet: 1 },
    { what: 'enters', tablet: 1, kind: 'moved' },
    { what: 'enters', tablet: 0, kind: 'X' },
    { what: 'enters', tablet: 0, kind: 'check' },
    { what: 'enters', tablet: 1, kind: 'X' },
    { what: 'network', tablet: 1, up: true },
    { what: 'asks', tablet: 1 },
  ]
  const { views } = playTablets(
    steps.map((happens) => ({ happens, after: MINUTE })),
    100,
  )
  const setup = deriveSetup(views[0]?.seen ?? [], demoReference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  expect(setup.log.map(({ entry, standing, cause }) => [entry.kind, standing, cause?.says])).toEqual([
    ['opened', 'counts', undefined],
    ['happened', 'counts', undefined],
    ['pickup', 'superseded', undefined],
    ['checked', 'stale', 'rests on a reading perhaps taken before the vise was moved, the order is not sure'],
    ['pickup', 'stale', 'perhaps taken before it was taken by T0, the order is not sure'],
  ])
})

it('a log of thousands of entries that nobody can put in order is worked out all the same, and nothing in it is relied on', () => {
  const kinds = [
    () => pickup(edge('X', -14)),
    () => swept('tight'),
    () => cleared(),
    () => happened('vise-moved'),
  ]
  const entries = Array.from({ length: 4000 }, (_, n): Entry => {
    const entry = kinds[n % kinds.length]?.() as Entry
    return { ...entry, received: new Date(start + 10_000 * 60_000).toISOString() }
  })
  expect([...reliedOn([opened, ...entries], start)]).toEqual([])
})
