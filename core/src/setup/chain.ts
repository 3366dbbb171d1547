import type { Freshness, StaleCause } from '../fact/index.ts'
import { isHeight, toolLength } from '../pickup/index.ts'
import { convertLength, type TypedLength } from '../quantity/index.ts'
import type { Entry, EntryOf, ProgramKind } from './entries.ts'
import { type FactKind, HAPPENINGS, type Happening, IMPLIED, type Implied } from './happenings.ts'

const FACTS = [
  'pickup',
  'tool-length',
  'angled',
  'identified',
  'checked',
  'program',
  'coded',
  'swept',
  'cleared',
  'gripped',
  'lengths',
  'ticked',
  'laid-out',
  'proved',
  'gauging',
  'palleted',
  'start-checked',
] as const
type FactEntry = EntryOf<(typeof FACTS)[number]>

/** An entry that states a fact, with its place in the chain. */
export interface Link {
  entry: FactEntry
  /** What the fact is about. A later entry about the same subject takes its place. */
  subject: string
  /** The later entry that took its place, if any. */
  supersededBy?: Link
  /** The first entry that reached it while it stood, and the words that follow 'before'. */
  reached?: { entry: Entry; past: string }
}

/** The facts of a log in order, what stands now, and a way to ask whether one still holds. */
export interface Chain {
  links: Map<string, Link>
  /** The link that stands for each subject. */
  standing: Map<string, Link>
  freshnessOf: (id: string) => Freshness
}

export const pickupSubject = (offset: string, axis: string) => `offset/${offset}/${axis}`
export const checkSubject = (offset: string) => `check/${offset}`
export const programSubject = (offset: string, what: ProgramKind = 'load') => `program/${what}/${offset}`
const codedSubject = (title: string) => `coded/${title}`
/** What was taken to the control of a program that was built from cycles. */
const takenSubject = (title: string) => `program/coded/${title}`
const gaugingSubject = (title: string) => `gauging/${title}`
const gaugeTakenSubject = (title: string) => `program/gauge/${title}`
export const angleSubject = (offset: string) => `angle/${offset}`
const toolLengthSubject = (tool: number) => `tool-length/${tool}`
export const PALLETS = 'pallets'
export const START = 'start'
export const PART = 'part'
export const LAYOUT = 'layout'
const proofSubject = (title: string) => `proof/${title}`

const SQUARENESS = 'squareness'
export const CLEARANCE = 'clearance'
export const GRIP = 'grip'
export const lengthsSubject = (collet: string) => `lengths/${collet}`
/** The look at the stop: another stop makes it due again, and only it. */
export const STOP_CHECK = 'stop-locked'
export const holdCheckSubject = (item: string) => `hold-check/${item}`

function subjectOf(entry: FactEntry): string {
  switch (entry.kind) {
    case 'pickup':
      return pickupSubject(entry.offset, entry.reading.axis)
    case 'checked':
      return checkSubject(entry.offset)
    case 'program':
      return entry.what === 'coded'
        ? takenSubject(entry.title ?? '')
        : entry.what === 'gauge'
          ? gaugeTakenSubject(entry.title ?? '')
          : programSubject(entry.offset, entry.what)
    case 'coded':
      return codedSubject(entry.sheet.title)
    case 'tool-length':
      return toolLengthSubject(entry.tool)
    case 'angled':
      return angleSubject(entry.offset)
    case 'identified':
      return PART
    case 'swept':
      return SQUARENESS
    case 'cleared':
      return CLEARANCE
    case 'gripped':
      return GRIP
    case 'lengths':
      return lengthsSubject(entry.collet.id)
    case 'ticked':
      return holdCheckSubject(entry.item)
    case 'laid-out':
      return LAYOUT
    case 'proved':
      return proofSubject(entry.title)
    case 'gauging':
      return gaugingSubject(entry.plan.head.title)
    case 'palleted':
      return PALLETS
    case 'start-checked':
      return START
  }
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

/** The words for a basis that was taken again: after this entry, or already before it. */
function replacedCause(entry: FactEntry, by: FactEntry): StaleCause {
  const axis = by.kind === 'pickup' ? by.reading.axis : (REPLACED[by.kind] ?? 'the basis')
  if (by.kind === 'coded')
    return { entryId: by.id, at: by.at, says: `${TAKEN[entry.kind]} before its cycles were changed` }
  if (by.kind === 'palleted')
    return { entryId: by.id, at: by.at, says: `${TAKEN[entry.kind]} before the pallets were changed` }
  if (by.kind === 'gauging')
    return { entryId: by.id, at: by.at, says: `${TAKEN[entry.kind]} before its plan was changed` }
  const says =
    by.at > entry.at
      ? `${TAKEN[entry.kind]} before ${axis} was taken again`
      : `rests on ${axis} as it was before`
  return { entryId: by.id, at: by.at, says }
}

/** The words for a basis that went stale: after this entry, or already before it. */
const inherited = (entry: FactEntry, cause: StaleCause) =>
  cause.at > entry.at
    ? cause.says.replace(/^\w+ before/, `${TAKEN[entry.kind]} before`)
    : `rests on a reading ${cause.says}`

/**
 * Builds the chain from entries in the order in which they happened, without those struck out.
 * `strikes` holds every strike that counts, so that a fact which rests on a struck entry can say so; `counts`: the control
 * counts serial numbers by itself, so that a program of its text cycle outlives the number that it was built with.
 */
export function buildChain(
  counting: readonly Entry[],
  strikes: ReadonlyMap<string, EntryOf<'struck'>>,
  { counts }: { counts: boolean } = { counts: false },
): Chain {
  const links = new Map<string, Link>()
  const standing = new Map<string, Link>()
  const reach = (entry: Entry, past: string, whom: (link: Link) => boolean) => {
    for (const link of standing.values()) {
      if (!link.reached && whom(link)) link.reached = { entry, past }
    }
  }
  for (const entry of counting) {
    if (isFact(entry)) {
      const link: Link = { entry, subject: subjectOf(entry) }
      const before = standing.get(link.subject)
      if (before) before.supersededBy = link
      const implied = impliedBy(entry, before?.entry)
      if (implied) reach(entry, implied.past, (each) => isReached(implied, each))
      if (entry.kind === 'tool-length')
        reach(entry, IMPLIED['other-length'].past, (each) => foundWithOther(entry, each))
      standing.set(link.subject, link)
      links.set(entry.id, link)
    } else if (entry.kind === 'happened')
      reach(entry, HAPPENINGS[entry.what].past, (link) => reaches(entry, link))
    else if (entry.kind === 'numbered')
      reach(entry, 'its serial number was given out', ({ entry: of }) => writesNumber(of, entry, counts))
    else if (entry.kind === 'saved') {
      reach(entry, 'time was saved in it', ({ entry: of }) => provesText(of, entry))
      reach(entry, `time was saved in ${entry.title}`, ({ entry: of }) => runsProgram(of, entry))
    }
  }

  const causes = new Map<string, StaleCause | null>()
  const causeOf = (link: Link): StaleCause | null => {
    const known = causes.get(link.entry.id)
    if (known !== undefined) return known
    causes.set(link.entry.id, null) // rests that form a ring add no cause of their own
    const cause = ownCause(link) ?? basisCause(link)
    causes.set(link.entry.id, cause)
    return cause
  }
  const ownCause = ({ entry, reached }: Link): StaleCause | null =>
    reached
      ? {
          entryId: reached.entry.id,
          at: reached.entry.at,
          says: `${TAKEN[entry.kind]} before ${reached.past}`,
        }
      : null
  const basisCause = ({ entry }: Link): StaleCause | null => {
    for (const id of 'rests' in entry ? (entry.rests ?? []) : []) {
      const strike = strikes.get(id)
      if (strike) return { entryId: strike.id, at: strike.at, says: `rests on a reading that was struck out` }
      const basis = links.get(id)
      if (!basis)
        return { entryId: entry.id, at: entry.at, says: 'rests on a reading that is not in this log' }
      const deeper = causeOf(basis)
      const { supersededBy } = basis
      if (supersededBy && !(deeper && deeper.at < supersededBy.entry.at))
        return replacedCause(entry, supersededBy.entry)
      if (deeper) return { ...deeper, says: inherited(entry, deeper) }
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
