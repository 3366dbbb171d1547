import type { Freshness, StaleCause } from '../fact/index.ts'
import type { LogEntry } from './entry.ts'
import type { Act, Follower, Given, Link, PlacedAct } from './kind.ts'
import type { Kinds } from './kinds.ts'
import { type Order, orderOf } from './order.ts'
import { afterUnread, reachUnsure, UNSURE } from './order-unsure.ts'
import type { Strike } from './struck.ts'
import { isUnread, UNREAD_TAG, type UnreadEntry, unreadPast } from './unread.ts'

/** The facts of a log in order, what stands now, and a way to ask whether one still holds. */
export interface Chain<Fact extends LogEntry = LogEntry> {
  links: Map<string, Link<Fact>>
  /** The link that stands for each subject. */
  standing: Map<string, Link<Fact>>
  freshnessOf: (id: string) => Freshness
}

/** What a chain is built by. */
export interface ChainRules {
  kinds: Kinds
  given?: Given
  /** The order of all the entries of the log, struck out ones included. */
  order?: Order<LogEntry>
}

const reach = ({ entry, past, tag }: Omit<PlacedAct, 'whom' | 'place'>, link: Link, unsure: boolean) => {
  if (!link.reached || (link.reached.unsure && !unsure)) link.reached = { entry, past, unsure, all: tag }
}

/** Whether an act says no more of a fact than what is known of it: it was reached for sure, and by something else as well. */
const knownOf = ({ reached }: Link, { tag }: Act) =>
  reached !== undefined && !reached.unsure && (reached.all === undefined || reached.all === tag)

/** What was recorded before an entry that cannot be read, and may have been about it, is not known to hold. */
const unreadActs = (entry: UnreadEntry, kinds: Kinds): Act[] =>
  entry.said !== undefined && entry.why === 'newer' && kinds.isHarmless(entry.said)
    ? []
    : [{ past: unreadPast(entry), whom: () => true, tag: UNREAD_TAG }]

/** Those who follow a log, by the kind of entry that they wait for; only where there is one of it. */
function followersIn(counting: readonly LogEntry[], kinds: Kinds): ReadonlyMap<string, Follower<LogEntry>> {
  const followers = new Map<string, Follower<LogEntry>>()
  const seen = new Set<string>()
  for (const { kind } of counting) {
    if (seen.has(kind)) continue
    seen.add(kind)
    const follower = kinds.of(kind)?.fact?.follow?.()
    if (follower) followers.set(kind, follower)
  }
  return followers
}

/**
 * Builds the chain from entries in the order in which they happened, without those struck out.
 * `strikes` holds every strike that counts, so that a fact which depends on a struck entry can say so.
 */
export function buildChain<Entry extends LogEntry, Fact extends Entry = Entry>(
  counting: readonly (Entry | UnreadEntry)[],
  strikes: ReadonlyMap<string, Strike>,
  { kinds, given = new Set(), order = orderOf<LogEntry>(counting) }: ChainRules,
): Chain<Fact> {
  const links = new Map<string, Link<Fact>>()
  const standing = new Map<string, Link<Fact>>()
  const acts: PlacedAct[] = []
  const unread = new Set<string>()
  const followers = followersIn(counting, kinds)
  const following = [...followers.values()]
  /** What cannot be read, and may have been about any fact. */
  const lost: UnreadEntry[] = []
  /** What was found last on the machine. */
  let last: string | undefined
  let lastBy: LogEntry | undefined
  const placeIn = new Map<LogEntry, number>()
  const does = (entry: LogEntry, place: number, found: readonly Act[]) => {
    if (found.length === 0) return
    for (const each of found) {
      const act: PlacedAct = { ...each, entry, place }
      acts.push(act)
      for (const follower of following) follower.happened(act)
      for (const link of standing.values()) {
        if (knownOf(link, act) || !act.whom(link)) continue
        if (link.reached && !link.reached.unsure) link.reached.all = undefined
        else reach(act, link, !order.certain && !order.surelyBefore(link.entry, entry))
      }
    }
  }
  let place = -1
  for (const entry of counting) {
    place++
    if (isUnread(entry)) {
      unread.add(entry.id)
      const found = unreadActs(entry, kinds)
      if (found.length > 0) lost.push(entry)
      does(entry, place, found)
      continue
    }
    const fact = kinds.of(entry.kind)?.fact
    const subject = fact?.subject(entry)
    if (!fact || subject === undefined) {
      does(entry, place, kinds.makesStale(entry, undefined, given))
      continue
    }
    const link: Link<Fact> = { entry: entry as Entry as Fact, subject, factKind: fact.factKind(entry) }
    const before = standing.get(subject)
    if (before) {
      before.supersededBy = link
      link.replaces = before
    }
    if (fact.implies) does(entry, place, fact.implies(entry, before?.entry, last))
    if (fact.mayImply && lost.length > 0) {
      // What it is held against may have been said by what cannot be read.
      const against = [before?.entry, ...(fact.foundWith ? [lastBy] : [])]
      if (lost.some((each) => against.some((of) => !of || !order.surelyBefore(each, of))))
        does(entry, place, afterUnread(fact.mayImply(entry)))
    }
    does(entry, place, kinds.makesStale(entry, before, given))
    if (following.length > 0) placeIn.set(entry, place)
    for (const each of following) each.recorded(link)
    const follower = following.length > 0 ? followers.get(entry.kind) : undefined
    if (follower) {
      const { past, again, reached } = follower.restores(
        entry,
        standing.values(),
        acts,
        (of) => placeIn.get(of.entry) ?? -1,
      )
      // Where nobody can tell what came first, nothing holds again.
      if (order.certain) for (const each of again) delete each.reached
      does(entry, place, [{ past, whom: (of) => reached(of) || (!order.certain && again.includes(of)) }])
    }
    const found = fact.foundWith?.(entry)
    if (found !== undefined) {
      last = found
      lastBy = entry
    }
    standing.set(subject, link)
    links.set(entry.id, link)
  }
  if (!order.certain) reachUnsure(counting, [...links.values()], acts, { order, kinds, lost })
  return { links, standing, freshnessOf: freshnessIn(links, { strikes, kinds, order, unread }) }
}

interface Told {
  strikes: ReadonlyMap<string, Strike>
  kinds: Kinds
  order: Order<LogEntry>
  /** Ids of entries that cannot be read. */
  unread: ReadonlySet<string>
}

/** Whether a fact holds, and if not why, in words that a time can follow. */
function freshnessIn(
  links: ReadonlyMap<string, Link>,
  { strikes, kinds, order, unread }: Told,
): (id: string) => Freshness {
  let places: Map<string, number> | undefined
  const placeOf = (id: string) => {
    places ??= new Map(order.ordered.map((entry, place) => [entry.id, place]))
    return places.get(id) ?? -1
  }
  const isLater = (id: string, than: LogEntry) => placeOf(id) > placeOf(than.id)
  const isEarlier = (id: string, than: LogEntry) => placeOf(id) < placeOf(than.id)
  const takenOf = ({ kind }: LogEntry) => kinds.of(kind)?.fact?.taken ?? 'recorded'

  /** The words for what was taken again: after this entry, or already before it. */
  const replacedCause = (entry: LogEntry, by: LogEntry): StaleCause => {
    const replaced = kinds.of(by.kind)?.fact?.replaced ?? 'the basis'
    const says =
      typeof replaced === 'object'
        ? `${takenOf(entry)} before ${replaced.past}`
        : naming(entry, by, typeof replaced === 'string' ? replaced : replaced(by))
    return { entryId: by.id, at: by.at, says }
  }
  const naming = (entry: LogEntry, by: LogEntry, name: string) =>
    isLater(by.id, entry)
      ? `${takenOf(entry)} before ${name} was taken again`
      : `rests on ${name} as it was before`

  /** The words for a basis that went stale: after this entry, or already before it. */
  const inherited = (entry: LogEntry, cause: StaleCause) =>
    isLater(cause.entryId, entry)
      ? cause.says.replace(/^(perhaps )?\w+ before/, `$1${takenOf(entry)} before`)
      : `rests on a reading ${cause.says}`

  const causes = new Map<string, StaleCause | null>()
  const causeOf = (link: Link): StaleCause | null => {
    const known = causes.get(link.entry.id)
    if (known !== undefined) return known
    causes.set(link.entry.id, null) // facts that depend on each other in a ring add no cause of their own
    const cause = ownCause(link) ?? basisCause(link)
    causes.set(link.entry.id, cause)
    return cause
  }
  const ownCause = ({ entry, reached, rival }: Link): StaleCause | null => {
    const taken = takenOf(entry)
    if (reached) {
      const before = `${taken} before ${reached.past}`
      const says = reached.unsure ? `perhaps ${before}, ${UNSURE}` : before
      const all = reached.unsure ? undefined : reached.all
      return { entryId: reached.entry.id, at: reached.entry.at, says, ...(all === undefined ? {} : { all }) }
    }
    if (!rival) return null
    const says = `perhaps ${taken} before it was ${taken} by ${rival.by}, ${UNSURE}`
    return { entryId: rival.id, at: rival.at, says }
  }
  const basisCause = ({ entry }: Link): StaleCause | null => {
    for (const id of kinds.of(entry.kind)?.fact?.dependsOn(entry) ?? []) {
      const strike = strikes.get(id)
      if (strike) return { entryId: strike.id, at: strike.at, says: 'rests on a reading that was struck out' }
      if (unread.has(id))
        return { entryId: id, at: entry.at, says: 'rests on an entry that cannot be read here' }
      const basis = links.get(id)
      if (!basis)
        return { entryId: entry.id, at: entry.at, says: 'rests on a reading that is not in this log' }
      const deeper = causeOf(basis)
      const { supersededBy } = basis
      if (supersededBy && !(deeper && isEarlier(deeper.entryId, supersededBy.entry)))
        return replacedCause(entry, supersededBy.entry)
      if (deeper) return { entryId: deeper.entryId, at: deeper.at, says: inherited(entry, deeper) }
    }
    return null
  }
  return (id) => {
    const link = links.get(id)
    const cause = link ? causeOf(link) : null
    return cause ? { state: 'stale', cause } : { state: 'fresh' }
  }
}
