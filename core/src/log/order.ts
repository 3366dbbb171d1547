import { type Stamped, surely } from './stamp.ts'

/** When an entry was made, in ms of the server's clock: not before `earliest`, not after `latest`. */
export interface Moment {
  earliest: number
  latest: number
}

/** Entries in an order in which they can have been made, and what is certain of it. */
export interface Order<T extends Stamped> {
  ordered: T[]
  /** Whether one was made before the other whatever the clocks of their tablets said. */
  surelyBefore: (one: T, other: T) => boolean
  /** When one of them was made. */
  momentOf: (entry: T) => Moment
  /** Every one was surely made before the next. */
  certain: boolean
}

/**
 * When an entry was made, from what cannot be wrong: after the tablet had last heard the server, by as much as its steady clock
 * says; before the server received it, by as long as it had lain on the tablet. Entries from before there were such stamps, and
 * those that a demo or an old file brings, count by the time that they claim.
 */
function claimedMoment({ at, clock, received, latest }: Stamped): Moment {
  if (!clock && received === undefined) {
    const claimed = Date.parse(at)
    return { earliest: claimed, latest: claimed }
  }
  const end = Date.parse(latest ?? received ?? '')
  const latestMs = Number.isNaN(end) ? Number.POSITIVE_INFINITY : end
  const heard = Date.parse(clock?.heard ?? '')
  const earliest = Number.isNaN(heard)
    ? Number.NEGATIVE_INFINITY
    : Math.floor(heard + surely(clock?.steady ?? 0))
  // Heard what the server had not said yet: its own clock was set back. Nothing is known of the beginning.
  return { earliest: earliest > latestMs ? Number.NEGATIVE_INFINITY : earliest, latest: latestMs }
}

const ANY_TIME: Moment = { earliest: Number.NEGATIVE_INFINITY, latest: Number.POSITIVE_INFINITY }

interface Placed<T> {
  entry: T
  moment: Moment
  /** A moment within, in which they are shown. */
  at: number
}

/** Nothing of a setup was made before it was opened. */
function notBeforeOpening<T extends Stamped>(placed: readonly Placed<T>[]) {
  const opened = new Map(
    placed.flatMap(({ entry, moment }) => (entry.id === entry.setup ? [[entry.setup, moment]] : [])),
  )
  for (const { entry, moment } of placed) {
    const opening = opened.get(entry.setup)
    if (!opening || moment.earliest !== Number.NEGATIVE_INFINITY) continue
    moment.earliest = Math.min(opening.earliest, moment.latest)
  }
}

const within = (at: number, { earliest, latest }: Moment) => Math.max(earliest, Math.min(latest, at))

/** Entries of the same time are so far apart, in ms: their tablet's count says which was first. */
const STEP_MS = 1e-3

/** The entries of one tablet, whose own count is sure: each begins no earlier than the one before, and ends no later than the one after. */
function alongCount<T extends Stamped>(placed: readonly Placed<T>[]) {
  const byTablet = new Map<string, Placed<T>[]>()
  for (const each of placed) {
    const { clock } = each.entry
    if (!clock) continue
    const own = byTablet.get(clock.tablet)
    if (own) own.push(each)
    else byTablet.set(clock.tablet, [each])
  }
  for (const own of byTablet.values()) {
    own.sort((a, b) => (a.entry.clock?.count ?? 0) - (b.entry.clock?.count ?? 0))
    let earliest = Number.NEGATIVE_INFINITY
    for (const { moment } of own) {
      earliest = Math.max(earliest, moment.earliest)
      moment.earliest = earliest
    }
    let latest = Number.POSITIVE_INFINITY
    for (const { moment } of own.toReversed()) {
      latest = Math.min(latest, moment.latest)
      moment.latest = latest
    }
    let last = Number.NEGATIVE_INFINITY
    for (const each of own) {
      each.at = Math.max(within(each.at, each.moment), last + STEP_MS)
      last = each.at
    }
  }
}

/**
 * Puts entries into an order in which they can have been made: along each tablet's count, and along what is certain between
 * tablets; where nothing is certain, by the time that they claim, and by id, which grows with time as well.
 */
export function orderOf<T extends Stamped>(entries: readonly T[]): Order<T> {
  const placed = entries.map((entry): Placed<T> => {
    const moment = claimedMoment(entry)
    return { entry, moment, at: within(Date.parse(entry.at), moment) }
  })
  if (entries.some(({ clock, received }) => clock || received !== undefined)) {
    notBeforeOpening(placed)
    for (const each of placed) each.at = within(each.at, each.moment)
    alongCount(placed)
  }
  placed.sort((a, b) => a.at - b.at || (a.entry.id < b.entry.id ? -1 : a.entry.id > b.entry.id ? 1 : 0))
  const places = new Map(placed.map((each, place) => [each.entry.id, { ...each, place }]))
  const surelyBefore = (one: T, other: T): boolean => {
    const a = places.get(one.id)
    const b = places.get(other.id)
    if (!a || !b) return false
    const [of, than] = [a.entry.clock, b.entry.clock]
    if (of && than && of.tablet === than.tablet) return of.count < than.count
    const exact = a.moment.earliest === a.moment.latest && b.moment.earliest === b.moment.latest
    if (exact && !of && !than) return a.place < b.place
    return a.moment.latest < b.moment.earliest
  }
  const ordered = placed.map(({ entry }) => entry)
  return {
    ordered,
    surelyBefore,
    momentOf: ({ id }) => places.get(id)?.moment ?? ANY_TIME,
    certain: ordered.every((entry, place) => {
      const next = ordered[place + 1]
      return !next || surelyBefore(entry, next)
    }),
  }
}

/** Entries in an order in which they can have been made. */
export const inOrder = <T extends Stamped>(entries: readonly T[]): T[] => orderOf(entries).ordered
