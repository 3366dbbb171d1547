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
  surelyBefore(one: T, other: T): boolean
  /** When one of them was made. */
  momentOf(entry: T): Moment
  /** Every one was surely made before the next. */
  certain: boolean
}

/**
 * When an entry was made, from what cannot be wrong: after the tablet had last heard the server, by as much as its steady clock
 * says; before the server received it, by as long as it had lain on the tablet. Entries from before there were such stamps, and
 * those that a demo or an old file brings, count by the time that they claim.
 */
export function claimedMoment({ at, clock, received, latest }: Stamped): Moment {
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

/** Entries from before there were stamps: each was made when it says. */
const allClaimed = (entries: readonly Stamped[]) =>
  entries.every(({ clock, received }) => !clock && received === undefined)

const byId = (a: Stamped, b: Stamped) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)

/** The order of entries whose times are exact: the whole of it is certain. */
function claimedOrder<T extends Stamped>(entries: readonly T[]): Order<T> {
  const byTime = (a: T, b: T) => (a.at < b.at ? -1 : a.at > b.at ? 1 : byId(a, b))
  const isSorted = entries.every((entry, n) => {
    const next = entries[n + 1]
    return next === undefined || byTime(entry, next) <= 0
  })
  const ordered = isSorted ? [...entries] : [...entries].sort(byTime)
  let places: Map<string, number> | undefined
  const placeOf = ({ id }: T) => {
    places ??= new Map(ordered.map((entry, place) => [entry.id, place]))
    return places.get(id)
  }
  return {
    ordered,
    surelyBefore: (one, other) => (placeOf(one) ?? Number.NaN) < (placeOf(other) ?? Number.NaN),
    momentOf: claimedMoment,
    certain: true,
  }
}

/** Whether one was made before the other; `sorted` is the order in which they stand. */
function isBefore<T extends Stamped>(
  a: Placed<T>,
  b: Placed<T>,
  sorted: (a: Placed<T>, b: Placed<T>) => boolean,
) {
  const [of, than] = [a.entry.clock, b.entry.clock]
  if (of && than && of.tablet === than.tablet) return of.count < than.count
  const exact = a.moment.earliest === a.moment.latest && b.moment.earliest === b.moment.latest
  if (exact && !of && !than) return sorted(a, b)
  return a.moment.latest < b.moment.earliest
}

/**
 * Puts entries into an order in which they can have been made: along each tablet's count, and along what is certain between
 * tablets; where nothing is certain, by the time that they claim, and by id, which grows with time as well.
 */
export function orderOf<T extends Stamped>(entries: readonly T[]): Order<T> {
  if (allClaimed(entries)) return claimedOrder(entries)
  const placed = entries.map((entry): Placed<T> => {
    const moment = claimedMoment(entry)
    return { entry, moment, at: Date.parse(entry.at) }
  })
  notBeforeOpening(placed)
  for (const each of placed) each.at = within(each.at, each.moment)
  alongCount(placed)
  placed.sort((a, b) => a.at - b.at || byId(a.entry, b.entry))
  let places: Map<string, { each: Placed<T>; place: number }> | undefined
  const placeOf = ({ id }: T) => {
    places ??= new Map(placed.map((each, place) => [each.entry.id, { each, place }]))
    return places.get(id)
  }
  const surelyBefore = (one: T, other: T): boolean => {
    const [a, b] = [placeOf(one), placeOf(other)]
    return a !== undefined && b !== undefined && isBefore(a.each, b.each, () => a.place < b.place)
  }
  return {
    ordered: placed.map(({ entry }) => entry),
    surelyBefore,
    momentOf: (entry) => placeOf(entry)?.each.moment ?? ANY_TIME,
    certain: placed.every((each, place) => {
      const next = placed[place + 1]
      return !next || isBefore(each, next, () => true)
    }),
  }
}

/** Entries in an order in which they can have been made. */
export const inOrder = <T extends Stamped>(entries: readonly T[]): T[] => orderOf(entries).ordered
