import type { Freshness, StaleCause } from '../fact/index.ts'
import { type Order, orderOf } from '../log/index.ts'
import { isHeight, toolLength } from '../pickup/index.ts'
import { convertLength, type TypedLength } from '../quantity/index.ts'
import type { Entry, EntryOf } from './entries.ts'
import { type FactKind, HAPPENINGS, type Happening, IMPLIED, type Implied } from './happenings.ts'
import { FACTS, type FactEntry, STOP_CHECK, subjectOf } from './subjects.ts'

/** An entry that states a fact, with its place in the chain. */
export interface Link {
  entry: FactEntry
  /** What the fact is about. A later entry about the same subject takes its place. */
  subject: string
  /** The later entry that took its place, if any. */
  supersededBy?: Link
  /** The first entry that reached it while it stood, and the words that follow 'before'. `unsure`: it may have been made after. */
  reached?: { entry: Entry; past: string; unsure: boolean }
  /** Another about the same subject that may have been made after it, though it is shown before. */
  rival?: FactEntry
}

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
  angled: 'measured',
  identified: 'measured',
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

/** The kind of fact that an entry states, for the table; undefined where only its basis makes it stale. */
function factKindOf(entry: FactEntry): FactKind | undefined {
  switch (entry.kind) {
    case 'pickup':
      return `offset-${entry.reading.axis}`
    case 'tool-length':
      return 'tool-length'
    case 'angled':
      return 'angle'
    case 'identified':
      return 'part'
    case 'swept':
      return 'squareness'
    case 'upright':
      return 'upright'
    case 'cleared':
      return 'clearance'
    case 'gripped':
      return 'grip'
    case 'lengths':
      return 'lengths'
    case 'ticked':
      return entry.item === STOP_CHECK ? 'stop-check' : 'hold-check'
    case 'laid-out':
      return 'layout'
    case 'start-checked':
      return 'start-check'
    default:
      return undefined
  }
}

const isReached = (by: Pick<Happening, 'reaches'>, { entry }: Link) => {
  const kind = factKindOf(entry)
  return kind !== undefined && by.reaches.includes(kind)
}

function reaches({ what, tool }: EntryOf<'happened'>, link: Link): boolean {
  const table = HAPPENINGS[what]
  if (!isReached(table, link)) return false
  if (!table.onlyItsTool) return true
  return toolOf(link.entry) === tool
}

/** The tool whose length a fact states or was found with. */
const toolOf = (entry: FactEntry) =>
  entry.kind === 'tool-length'
    ? entry.tool
    : entry.kind === 'pickup' && isHeight(entry.reading)
      ? entry.reading.tool
      : undefined

/** Lengths of one tool that differ by more than this are two lengths and not one measured twice, in mm: three times the doubt of their difference. */
const SAME_LENGTH_MM = 0.05

/** Whether a Z was found with a length of this tool that is not the one measured now. */
function foundWithOther(entry: EntryOf<'tool-length'>, { entry: by }: Link): boolean {
  if (by.kind !== 'pickup' || !isHeight(by.reading) || by.reading.tool !== entry.tool) return false
  const measured = toolLength(entry, { unit: 'mm', leastStep: 0 }).value
  const { value, unit } = by.reading.toolLength
  return Math.abs(convertLength(value, unit, 'mm') - measured) > SAME_LENGTH_MM
}

/**
 * Whether a sweep says that the vise was let loose or its bolts changed since the last one: anything but a look at a
 * tight vise that was tight before. Zeros that were taken from it before then no longer hold.
 */
const loosened = (now: EntryOf<'swept'>, before: FactEntry | undefined) =>
  now.sweep.bolts !== 'tight' || (before?.kind === 'swept' && before.sweep.bolts !== 'tight')

/** Places of a vise that differ by more than this are two places and not one measured twice, in mm. By judgement. */
const SAME_PLACE_MM = 2

const apart = (a: TypedLength, b: TypedLength) =>
  Math.abs(convertLength(a.value, a.unit, 'mm') - convertLength(b.value, b.unit, 'mm')) > SAME_PLACE_MM

/** What an entry says to have happened by differing from the one before it about the same subject. */
function impliedBy(entry: FactEntry, before: FactEntry | undefined): Implied | undefined {
  if (entry.kind === 'swept') return loosened(entry, before) ? IMPLIED.squared : undefined
  if (entry.kind === 'cleared' && before?.kind === 'cleared') {
    if (entry.vise.id !== before.vise.id) return IMPLIED['other-vise']
    return apart(entry.jawAt, before.jawAt) ? IMPLIED['vise-elsewhere'] : undefined
  }
  if (entry.kind === 'gripped' && before?.kind === 'gripped') {
    if (entry.collet.id !== before.collet.id) return IMPLIED['other-collet']
    return entry.stop !== before.stop ? IMPLIED['other-stop'] : undefined
  }
  return undefined
}

/** Whether a program has a serial number written into it that was given out. */
const writesNumber = (of: FactEntry, { series, first, last }: EntryOf<'numbered'>, counts: boolean) =>
  of.kind === 'coded' &&
  of.sheet.items.some(
    (item) =>
      item.cycle === 'engrave' &&
      !item.off &&
      item.params.text.trim() === series &&
      item.params.serial >= first &&
      item.params.serial <= last &&
      !(counts && item.params.way === 'cycle' && item.params.sits !== 'arc'),
  )

/** Whether a proof is of a program that a saving gave another text. */
const provesText = (of: FactEntry, { title, after }: EntryOf<'saved'>) =>
  of.kind === 'proved' && of.title === title && of.hash !== after.hash

/** Whether a program that a saving changed runs on a pallet as it was before. */
const runsProgram = (of: FactEntry, { title, text }: EntryOf<'saved'>) =>
  of.kind === 'palleted' &&
  of.plan.pallets.some(({ program }) => program.title === title && program.text !== text)

const REPLACED: Partial<Record<FactEntry['kind'], string>> = {
  lengths: 'the ratio',
  angled: 'the angle',
  identified: 'the look at the part',
  'tool-length': 'the length of a tool',
  'laid-out': 'what stands in the work area',
  proved: 'the proof of its program',
}

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

/** Something that makes facts stale, with its place in the log. */
interface Act {
  entry: Entry
  place: number
  past: string
  whom: (link: Link) => boolean
}

/** What an entry that states no fact makes stale. */
function actsOf(entry: Entry, counts: boolean): Pick<Act, 'past' | 'whom'>[] {
  if (entry.kind === 'happened')
    return [{ past: HAPPENINGS[entry.what].past, whom: (link) => reaches(entry, link) }]
  if (entry.kind === 'numbered')
    return [
      { past: 'its serial number was given out', whom: ({ entry: of }) => writesNumber(of, entry, counts) },
    ]
  if (entry.kind === 'saved')
    return [
      { past: 'time was saved in it', whom: ({ entry: of }) => provesText(of, entry) },
      { past: `time was saved in ${entry.title}`, whom: ({ entry: of }) => runsProgram(of, entry) },
    ]
  return []
}

/** What a fact makes stale by differing from the one that stood before it. */
function impliedActs(entry: FactEntry, before: FactEntry | undefined): Pick<Act, 'past' | 'whom'>[] {
  const implied = impliedBy(entry, before)
  return implied ? [{ past: implied.past, whom: (link) => isReached(implied, link) }] : []
}

const reach = ({ entry, past }: Act, link: Link, unsure: boolean) => {
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
    for (const { entry } of own) {
      const place = placeOf.get(entry.id) ?? 0
      const implied = new Map(
        perhapsJustBefore(entry, own, surelyBefore)
          .flatMap((one) => impliedActs(entry, one.entry))
          .map((act) => [act.past, act]),
      )
      for (const act of implied.values())
        for (const link of links)
          if (!link.reached && link.entry !== entry && act.whom(link) && !surelyBefore(entry, link.entry))
            reach({ ...act, entry, place }, link, true)
    }
  }
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
  const does = (entry: Entry, place: number, found: Pick<Act, 'past' | 'whom'>[]) => {
    for (const each of found) {
      const act: Act = { ...each, entry, place }
      acts.push(act)
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
    does(entry, place, impliedActs(entry, before?.entry))
    if (entry.kind === 'tool-length')
      does(entry, place, [
        { past: IMPLIED['other-length'].past, whom: (each) => foundWithOther(entry, each) },
      ])
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
