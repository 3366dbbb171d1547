import { ulid } from 'ulid'
import { hear, type LastHeard, latestOf, type Reading, stampOf } from '../log/index.ts'
import type { Entry } from './kinds.ts'
import { cleared, edge, inch, opened, sweepOf, touch } from './testing.ts'

// Tablets for tests: each with a clock that anybody can set, one that stands while it sleeps, a network that goes and comes, and
// a server that receives what they send. What they make is known with the time at which it truly happened.

export const MOST_TABLETS = 4

/** What can happen to a tablet; `tablet` counts from 0, times in ms. */
export type Happens =
  | { what: 'enters'; tablet: number; kind: keyof typeof BODIES }
  | { what: 'asks'; tablet: number }
  | { what: 'network'; tablet: number; up: boolean }
  | { what: 'reloads'; tablet: number }
  | { what: 'sleeps'; tablet: number; ms: number }
  | { what: 'clock-set'; tablet: number; by: number }

/** A log as somebody sees it, and the same entries stamped with the time at which each truly happened. */
export interface View {
  seen: Entry[]
  inTruth: Entry[]
}

interface Tablet {
  id: string
  up: boolean
  wallAhead: number
  pageOpened: number
  slept: number
  sleeps?: { since: number; atMost: number }
  heard?: LastHeard
  count: number
  /** What waits to be sent, with what its steady clock said when this page had it first. */
  waiting: { entry: Entry; since: number }[]
  knows: Entry[]
}

const mill = { id: 'mill-1', version: 1 }
const pickup = (axis: 'X' | 'Y') => ({
  kind: 'pickup',
  offset: 'G54',
  reading: edge(axis, axis === 'X' ? -14 : -6),
  machine: mill,
})
const happened = (what: string, tool?: number) => ({
  kind: 'happened',
  what,
  note: '',
  ...(tool === undefined ? {} : { tool }),
})
const lengthOf = (position: number) => ({
  kind: 'tool-length',
  tool: 5,
  machinePosition: inch(position),
  masterPosition: inch(-8),
  masterLength: inch(4),
  machine: mill,
})
const otherVise = { id: 'vise-4', version: 1 }
const { id: _id, setup: _setup, at: _at, by: _by, ...placed } = cleared()

/** Pickups that a tablet knows, the last that it heard of for each axis. */
const lastPickups = (entries: readonly Entry[]) => [
  ...new Map(
    entries.flatMap((entry) => (entry.kind === 'pickup' ? [[entry.reading.axis, entry.id]] : [])),
  ).values(),
]

/** What is entered, from what the tablet knows. */
export const BODIES = {
  X: () => pickup('X'),
  Y: () => pickup('Y'),
  Z: () => ({ kind: 'pickup', offset: 'G54', reading: touch(5), machine: mill }),
  check: (knows: readonly Entry[]) => ({
    kind: 'checked',
    offset: 'G54',
    rests: lastPickups(knows),
    result: 'agrees',
    note: '',
  }),
  program: (knows: readonly Entry[]) => ({
    kind: 'program',
    offset: 'G54',
    rests: lastPickups(knows),
    how: 'copied',
    text: 'G0',
    profile: { id: 'compact', version: 1 },
    machine: mill,
  }),
  moved: () => happened('vise-moved'),
  bolt: () => happened('bolt-tightened'),
  'homed-again': () => happened('homed-again'),
  'measured-again': () => happened('tool-measured-again', 5),
  tight: () => ({ kind: 'swept', sweep: sweepOf('tight', 0, 0.002) }),
  snug: () => ({ kind: 'swept', sweep: sweepOf('snug', 0, 0.002) }),
  'swept-here': () => ({ kind: 'swept', sweep: sweepOf('tight', 0, 0.002), vise: placed.vise }),
  'swept-other': () => ({ kind: 'swept', sweep: sweepOf('tight', 0, 0.002), vise: otherVise }),
  'other-vise': () => ({ ...placed, vise: otherVise }),
  'vise-here': () => placed,
  'vise-there': () => ({ ...placed, jawAt: inch(12) }),
  length: () => lengthOf(-9),
  'other-length': () => lengthOf(-9.5),
  homed: () => ({ kind: 'homed', shown: { X: inch(0), Y: inch(0), Z: inch(0) }, machine: mill }),
  ticked: () => ({
    kind: 'ticked',
    list: 'ready',
    item: 'doors',
    says: 'Doors and interlocks close and work',
  }),
} satisfies Record<string, (knows: readonly Entry[]) => Record<string, unknown>>

const iso = (ms: number) => new Date(ms).toISOString()

/** Lets things happen one after another, `after` ms apart; an answer of the server is `travel` ms on its way, there and back. */
export function playTablets(
  steps: readonly { happens: Happens; after: number }[],
  travel: number,
): { views: View[]; now: number } {
  let now = Date.parse(opened.at) + 60_000
  const truth = new Map<string, number>([[opened.id, Date.parse(opened.at)]])
  const server: Entry[] = [opened]
  const tablets = Array.from(
    { length: MOST_TABLETS },
    (_, n): Tablet => ({
      id: `tablet-0000${n}`.replaceAll('-', ''),
      up: true,
      wallAhead: 0,
      pageOpened: now - n * 1000,
      slept: 0,
      count: 0,
      waiting: [],
      knows: [opened],
    }),
  )
  const read = (tablet: Tablet): Reading => ({
    steady: now - tablet.pageOpened - tablet.slept,
    wall: now + tablet.wallAhead,
  })
  const wake = (tablet: Tablet) => {
    const { sleeps } = tablet
    if (sleeps) tablet.slept += Math.min(now - sleeps.since, sleeps.atMost)
    delete tablet.sleeps
  }
  /** A question of a tablet, answered: what waited is with the server, and what the server had is with the tablet. */
  const ask = (tablet: Tablet, { sends }: { sends: boolean }) => {
    const asked = read(tablet)
    const sent = sends ? tablet.waiting.map((each) => ({ ...each, held: asked.steady - each.since })) : []
    now += Math.ceil(travel / 2)
    for (const { entry, held } of sent)
      server.push({ ...entry, received: iso(now), latest: iso(latestOf(now, held)) })
    const said = now
    const told = [...server]
    now += Math.floor(travel / 2)
    tablet.heard = hear(said, asked, read(tablet))
    tablet.knows = told
    if (sends) tablet.waiting = []
  }
  const enter = (tablet: Tablet, kind: keyof typeof BODIES) => {
    const known = [...tablet.knows, ...tablet.waiting.map(({ entry }) => entry)]
    const body = BODIES[kind](known)
    if ('rests' in body && Array.isArray(body.rests) && body.rests.length === 0) return
    const reading = read(tablet)
    const { at, ...clock } = stampOf(tablet.heard, reading)
    tablet.count += 1
    const id = ulid(Math.max(0, Math.floor(at)), () => (truth.size % 32) / 32)
    truth.set(id, now)
    const entry = {
      id,
      setup: opened.id,
      at: iso(at),
      by: `T${tablet.id.at(-1)}`,
      clock: { tablet: tablet.id, count: tablet.count, ...clock },
      ...body,
    } as unknown as Entry
    tablet.waiting.push({ entry, since: reading.steady })
  }
  for (const { happens, after } of steps) {
    now += after + 1
    const tablet = tablets[happens.tablet]
    if (!tablet) continue
    wake(tablet)
    if (happens.what === 'enters') {
      enter(tablet, happens.kind)
      now += 1
      if (tablet.up) ask(tablet, { sends: true })
    } else if (happens.what === 'asks') {
      if (tablet.up) ask(tablet, { sends: tablet.waiting.length > 0 })
    } else if (happens.what === 'network') tablet.up = happens.up
    else if (happens.what === 'sleeps') tablet.sleeps = { since: now, atMost: happens.ms }
    else if (happens.what === 'clock-set') tablet.wallAhead = happens.by
    else {
      tablet.pageOpened = now
      tablet.slept = 0
      if (tablet.heard) tablet.heard = { ...tablet.heard, steady: undefined }
      tablet.waiting = tablet.waiting.map(({ entry }) => ({ entry, since: 0 }))
    }
  }
  const view = (seen: Entry[]): View => ({
    seen,
    inTruth: seen.map(({ clock: _, received: _r, latest: _l, ...entry }) => ({
      ...entry,
      at: iso(truth.get(entry.id) ?? 0),
    })) as Entry[],
  })
  const ids = ({ waiting }: Tablet) => waiting.map(({ entry }) => entry)
  return { views: [view(server), ...tablets.map((each) => view([...each.knows, ...ids(each)]))], now }
}
