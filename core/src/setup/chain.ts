import type { Freshness, StaleCause } from '../fact/index.ts'
import { type Order, orderOf } from '../log/index.ts'
import { type Act, actsOf, factActs, impliedActs, type Link, viseOf } from './acts.ts'
import type { Entry, EntryOf } from './entries.ts'
import { toolsTogether } from './shifted.ts'
import { FACTS, type FactEntry, subjectOf } from './subjects.ts'

/** The facts of a log in order, what stands now, and a way to ask whether one still holds. */
export interface Chain {
  links: Map<string, Link>
  /** The link that stands for each subject. */
  standing: Map<string, Link>
  freshnessOf: (id: string) => Freshness
}

/** Ticks of the ready list are the machine's, not the setup's: they are reckoned in ready.ts. */
const isFact = (entry: Entry): entry is FactEntry =>
  entry.kind === 'ticked' ? entry.list === 'hold' : FACTS.some((kind) => kind === entry.kind)

/** One word each: it stands before 'before'. */
const TAKEN: Record<FactEntry['kind'], string> = {
  pickup: 'taken',
  'tool-length': 'measured',
  'centre-line': 'found',
  flat: 'measured',
  'work-shift': 'taken',
  angled: 'measured',
  identified: 'measured',
  stock: 'compared',
  checked: 'checked',
  program: 'written',
  coded: 'built',
  swept: 'swept',
  upright: 'read',
  cleared: 'measured',
  gripped: 'chosen',
  lengths: 'measured',
  ticked: 'ticked',
  'laid-out': 'placed',
  proved: 'proved',
  gauging: 'composed',
  palleted: 'planned',
  'start-checked': 'answered',
}

const REPLACED: Partial<Record<FactEntry['kind'], string>> = {
  lengths: 'the ratio',
  'centre-line': 'the centre line',
  flat: 'the flat',
  'work-shift': 'the work shift',
  angled: 'the angle',
  identified: 'the look at the part',
  'tool-length': 'the length of a tool',
  'laid-out': 'what stands in the work area',
  proved: 'the proof of its program',
}

/** Follows 'before': what a work shift does to what was looked at, and to tools that it does not hold for. */
const SHIFTED = 'the work shift was taken'

/** Said where two entries came from two tablets, and nothing tells for certain which was made first. */
const UNSURE = 'the order is not sure'

/** The words for a basis that was taken again: after this entry, or already before it. */
function replacedCause(entry: FactEntry, by: FactEntry, later: boolean): StaleCause {
  const axis = by.kind === 'pickup' ? by.reading.axis : (REPLACED[by.kind] ?? 'the basis')
  if (by.kind === 'coded')
    return { entryId: by.id, at: by.at, says: `${TAKEN[entry.kind]} before its cycles were changed` }
  if (by.kind === 'palleted')
    return { entryId: by.id, at: by.at, says: `${TAKEN[entry.kind]} before the pallets were changed` }
  if (by.kind === 'gauging')
    return { entryId: by.id, at: by.at, says: `${TAKEN[entry.kind]} before its plan was changed` }
  const says = later
    ? `${TAKEN[entry.kind]} before ${axis} was taken again`
    : `rests on ${axis} as it was before`
  return { entryId: by.id, at: by.at, says }
}

/** The words for a basis that went stale: after this entry, or already before it. */
const inherited = (entry: FactEntry, cause: StaleCause, later: boolean) =>
  later
    ? cause.says.replace(/^(perhaps )?\w+ before/, `$1${TAKEN[entry.kind]} before`)
    : `rests on a reading ${cause.says}`

const reach = ({ entry, past }: Pick<Act, 'entry' | 'past'>, link: Link, unsure: boolean) => {
  if (!link.reached || (link.reached.unsure && !unsure)) link.reached = { entry, past, unsure }
}

/** Facts that say something to have happened by differing from the one before. */
const IMPLYING: ReadonlySet<FactEntry['kind']> = new Set(['swept', 'cleared', 'gripped'])

/** Which of many one stood just before another is not looked for: every one that may have been before counts. */
const FEW = 40

/** Those of one subject that may have been the last before an entry. */
function perhapsJustBefore(
  entry: FactEntry,
  own: readonly Link[],
  surelyBefore: Order<Entry>['surelyBefore'],
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
function reachUnsure(counting: readonly Entry[], links: readonly Link[], acts: Act[], order: Order<Entry>) {
  const { surelyBefore, momentOf } = order
  const implies = (entry: FactEntry, found: readonly Pick<Act, 'past' | 'whom'>[]) => {
    for (const act of new Map(found.map((each) => [each.past, each])).values())
      for (const link of links)
        if (!link.reached && link.entry !== entry && act.whom(link) && !surelyBefore(entry, link.entry))
          reach({ ...act, entry }, link, true)
  }
  const bySubject = new Map<string, Link[]>()
  for (const link of links) {
    const own = bySubject.get(link.subject)
    if (own) own.push(link)
    else bySubject.set(link.subject, [link])
  }
  const placeOf = new Map(counting.map(({ id }, place) => [id, place]))
  for (const own of bySubject.values()) {
    const sure = own.every((link, n) => {
      const next = own[n + 1]
      return !next || surelyBefore(link.entry, next.entry)
    })
    if (sure) continue
    const last = own.at(-1)
    const rival = last && own.findLast((link) => link !== last && !surelyBefore(link.entry, last.entry))
    if (last && rival) last.rival = rival.entry
    if (!own.some(({ entry }) => IMPLYING.has(entry.kind))) continue
    for (const { entry } of own)
      implies(
        entry,
        perhapsJustBefore(entry, own, surelyBefore).flatMap((one) => impliedActs(entry, one.entry)),
      )
  }
  // The vise that was said last may have been said of something else: of the sweep, or of the clearance.
  const told = links.filter(({ entry }) => viseOf(entry) !== undefined)
  const several = new Set(told.map(({ entry }) => viseOf(entry))).size > 1
  for (const { entry } of several ? told : [])
    implies(
      entry,
      perhapsJustBefore(entry, told, surelyBefore).flatMap((one) =>
        impliedActs(entry, undefined, viseOf(one.entry)),
      ),
    )
  // From a place on, nothing was made before this moment.
  const earliestFrom: number[] = []
  let earliest = Number.POSITIVE_INFINITY
  for (let place = counting.length - 1; place >= 0; place--) {
    const entry = counting[place]
    if (entry) earliest = Math.min(earliest, momentOf(entry).earliest)
    earliestFrom[place] = earliest
  }
  const linkAt = new Map(links.map((link) => [placeOf.get(link.entry.id) ?? -1, link]))
  for (const act of acts) {
    const { latest } = momentOf(act.entry)
    for (let place = act.place + 1; place < counting.length; place++) {
      if ((earliestFrom[place] ?? 0) > latest) break
      const link = linkAt.get(place)
      if (link && !link.reached && act.whom(link) && !surelyBefore(act.entry, link.entry))
        reach(act, link, true)
    }
  }
}

/**
 * Builds the chain from entries in the order in which they happened, without those struck out.
 * `strikes` holds every strike that counts, so that a fact which rests on a struck entry can say so; `counts`: the control
 * counts serial numbers by itself, so that a program of its text cycle outlives the number that it was built with.
 */
export function buildChain(
  counting: readonly Entry[],
  strikes: ReadonlyMap<string, EntryOf<'struck'>>,
  { counts, order = orderOf(counting) }: { counts: boolean; order?: Order<Entry> } = { counts: false },
): Chain {
  const links = new Map<string, Link>()
  const standing = new Map<string, Link>()
  const acts: Act[] = []
  /** The vise that was said last to stand on the table. */
  let vise: string | undefined
  const tools = toolsTogether()
  const placeIn = new Map<FactEntry, number>()
  const does = (entry: Entry, place: number, found: Pick<Act, 'past' | 'whom'>[]) => {
    for (const each of found) {
      const act: Act = { ...each, entry, place }
      acts.push(act)
      tools.happened(act)
      for (const link of standing.values())
        if (!(link.reached && !link.reached.unsure) && act.whom(link))
          reach(act, link, !order.certain && !order.surelyBefore(link.entry, entry))
    }
  }
  for (const [place, entry] of counting.entries()) {
    if (!isFact(entry)) {
      does(entry, place, actsOf(entry, counts))
      continue
    }
    const link: Link = { entry, subject: subjectOf(entry) }
    const before = standing.get(link.subject)
    if (before) before.supersededBy = link
    does(entry, place, factActs(entry, before, vise))
    placeIn.set(entry, place)
    tools.recorded(link)
    if (entry.kind === 'work-shift') {
      const { again, reached } = tools.shifted(
        entry,
        standing.values(),
        acts,
        (of) => placeIn.get(of.entry) ?? -1,
      )
      // Where nobody can tell what came first, nothing holds again.
      if (order.certain) for (const each of again) delete each.reached
      does(entry, place, [
        { past: SHIFTED, whom: (of) => reached(of) || (!order.certain && again.includes(of)) },
      ])
    }
    vise = viseOf(entry) ?? vise
    standing.set(link.subject, link)
    links.set(entry.id, link)
  }
  if (!order.certain) reachUnsure(counting, [...links.values()], acts, order)

  let places: Map<string, number> | undefined
  const placeOf = (id: string) => {
    places ??= new Map(order.ordered.map((entry, place) => [entry.id, place]))
    return places.get(id) ?? -1
  }
  const isLater = (id: string, than: FactEntry) => placeOf(id) > placeOf(than.id)
  const isEarlier = (id: string, than: FactEntry) => placeOf(id) < placeOf(than.id)
  const causes = new Map<string, StaleCause | null>()
  const causeOf = (link: Link): StaleCause | null => {
    const known = causes.get(link.entry.id)
    if (known !== undefined) return known
    causes.set(link.entry.id, null) // rests that form a ring add no cause of their own
    const cause = ownCause(link) ?? basisCause(link)
    causes.set(link.entry.id, cause)
    return cause
  }
  const ownCause = ({ entry, reached, rival }: Link): StaleCause | null => {
    if (reached) {
      const before = `${TAKEN[entry.kind]} before ${reached.past}`
      const says = reached.unsure ? `perhaps ${before}, ${UNSURE}` : before
      return { entryId: reached.entry.id, at: reached.entry.at, says }
    }
    if (!rival) return null
    const says = `perhaps ${TAKEN[entry.kind]} before it was ${TAKEN[entry.kind]} by ${rival.by}, ${UNSURE}`
    return { entryId: rival.id, at: rival.at, says }
  }
  const basisCause = ({ entry }: Link): StaleCause | null => {
    for (const id of 'rests' in entry ? (entry.rests ?? []) : []) {
      const strike = strikes.get(id)
      if (strike) return { entryId: strike.id, at: strike.at, says: `rests on a reading that was struck out` }
      const basis = links.get(id)
      if (!basis)
        return { entryId: entry.id, at: entry.at, says: 'rests on a reading that is not in this log' }
      const deeper = causeOf(basis)
      const { supersededBy } = basis
      if (supersededBy && !(deeper && isEarlier(deeper.entryId, supersededBy.entry)))
        return replacedCause(entry, supersededBy.entry, isLater(supersededBy.entry.id, entry))
      if (deeper) return { ...deeper, says: inherited(entry, deeper, isLater(deeper.entryId, entry)) }
    }
    return null
  }

  return {
    links,
    standing,
    freshnessOf: (id) => {
      const link = links.get(id)
      const cause = link ? causeOf(link) : null
      return cause ? { state: 'stale', cause } : { state: 'fresh' }
    },
  }
}
