import type { LogEntry } from './entry.ts'
import type { Act, Link, PlacedAct } from './kind.ts'
import type { Kinds } from './kinds.ts'
import type { Order } from './order.ts'
import { AFTER_UNREAD } from './unread.ts'

/** Said where two entries came from two tablets, and nothing tells for certain which was made first. */
export const UNSURE = 'the order is not sure'

/** What an entry may have done, where what stood before it cannot be read. */
export const afterUnread = (acts: readonly Act[]): Act[] =>
  acts.map((act) => ({ ...act, past: act.past + AFTER_UNREAD }))

const reachPerhaps = ({ entry, past }: Pick<PlacedAct, 'entry' | 'past'>, link: Link) => {
  if (!link.reached) link.reached = { entry, past, unsure: true }
}

/** Which of many one stood just before another is not looked for: every one that may have been before counts. */
const FEW = 40

/** Those of some that may have been the last before an entry. */
function perhapsJustBefore(
  entry: LogEntry,
  own: readonly Link[],
  surelyBefore: Order<LogEntry>['surelyBefore'],
): Link[] {
  const earlier = own.filter((link) => link.entry !== entry && !surelyBefore(entry, link.entry))
  if (earlier.length > FEW) return earlier
  return earlier.filter(
    (one) =>
      !earlier.some((other) => surelyBefore(one.entry, other.entry) && surelyBefore(other.entry, entry)),
  )
}

/**
 * What may have been otherwise where the order of two entries is not certain: an act reaches what is shown after it unless that
 * was surely made after it; a fact says what any one before it may imply; and of two about one subject neither stands for sure.
 */
export function reachUnsure(
  counting: readonly LogEntry[],
  links: readonly Link[],
  acts: readonly PlacedAct[],
  { order, kinds, lost }: { order: Order<LogEntry>; kinds: Kinds; lost: readonly LogEntry[] },
) {
  const { surelyBefore } = order
  const factOf = (entry: LogEntry) => kinds.of(entry.kind)?.fact
  const foundWith = ({ entry }: Link) => factOf(entry)?.foundWith?.(entry)
  const reachImplied = (entry: LogEntry, found: readonly Act[]) => {
    for (const act of new Map(found.map((each) => [each.past, each])).values())
      for (const link of links)
        if (!link.reached && link.entry !== entry && act.whom(link) && !surelyBefore(entry, link.entry))
          reachPerhaps({ ...act, entry }, link)
  }
  const implied = (entry: LogEntry, before: LogEntry | undefined, last: string | undefined): Act[] =>
    factOf(entry)?.implies?.(entry, before, last) ?? []

  const bySubject = new Map<string, Link[]>()
  for (const link of links) {
    const own = bySubject.get(link.subject)
    if (own) own.push(link)
    else bySubject.set(link.subject, [link])
  }
  for (const own of bySubject.values()) {
    const sure = own.every((link, n) => {
      const next = own[n + 1]
      return !next || surelyBefore(link.entry, next.entry)
    })
    if (sure) continue
    const last = own.at(-1)
    const rival = last && own.findLast((link) => link !== last && !surelyBefore(link.entry, last.entry))
    if (last && rival) last.rival = rival.entry
    if (!own.some(({ entry }) => factOf(entry)?.implies)) continue
    for (const { entry } of own)
      reachImplied(
        entry,
        perhapsJustBefore(entry, own, surelyBefore).flatMap((one) =>
          implied(entry, one.entry, foundWith(one)),
        ),
      )
  }
  // What was found last on the machine may have been told by another kind of fact.
  const told = links.filter((link) => foundWith(link) !== undefined)
  const several = new Set(told.map(foundWith)).size > 1
  for (const { entry } of several ? told : [])
    reachImplied(
      entry,
      perhapsJustBefore(entry, told, surelyBefore).flatMap((one) =>
        implied(entry, undefined, foundWith(one)),
      ),
    )
  for (const { entry } of lost.length > 0 ? links : []) {
    const may = factOf(entry)?.mayImply?.(entry)
    if (may && lost.some((each) => !surelyBefore(entry, each))) reachImplied(entry, afterUnread(may))
  }
  reachFromActs(counting, links, acts, order)
}

/** An act reaches what is shown after it, unless that was surely made after it. */
function reachFromActs(
  counting: readonly LogEntry[],
  links: readonly Link[],
  acts: readonly PlacedAct[],
  { surelyBefore, momentOf }: Order<LogEntry>,
) {
  // From a place on, nothing was made before this moment.
  const earliestFrom: number[] = []
  let earliest = Number.POSITIVE_INFINITY
  for (let place = counting.length - 1; place >= 0; place--) {
    const entry = counting[place]
    if (entry) earliest = Math.min(earliest, momentOf(entry).earliest)
    earliestFrom[place] = earliest
  }
  const linkOf = new Map(links.map((link) => [link.entry.id, link]))
  const linkAt = counting.map(({ id }) => linkOf.get(id))
  for (const act of acts) {
    const { latest } = momentOf(act.entry)
    for (let place = act.place + 1; place < counting.length; place++) {
      if ((earliestFrom[place] ?? 0) > latest) break
      const link = linkAt[place]
      if (link && !link.reached && act.whom(link) && !surelyBefore(act.entry, link.entry))
        reachPerhaps(act, link)
    }
  }
}
