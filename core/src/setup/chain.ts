import type { Freshness, StaleCause } from '../fact/index.ts'
import type { Entry, EntryOf } from './entries.ts'
import { type FactKind, HAPPENINGS } from './happenings.ts'

/** An entry that states a fact, with its place in the chain. */
export interface Link {
  entry: EntryOf<'pickup' | 'checked' | 'program'>
  /** What the fact is about. A later entry about the same subject takes its place. */
  subject: string
  /** The later entry that took its place, if any. */
  supersededBy?: Link
  /** The first happening that reached it while it stood. */
  reached?: EntryOf<'happened'>
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
export const programSubject = (offset: string) => `program/${offset}`

function subjectOf(entry: Link['entry']): string {
  if (entry.kind === 'pickup') return pickupSubject(entry.offset, entry.reading.axis)
  return entry.kind === 'checked' ? checkSubject(entry.offset) : programSubject(entry.offset)
}

const TAKEN: Record<Link['entry']['kind'], string> = {
  pickup: 'taken',
  checked: 'checked',
  program: 'written',
}

function reaches({ what, tool }: EntryOf<'happened'>, { entry }: Link): boolean {
  if (entry.kind !== 'pickup') return false
  const table = HAPPENINGS[what]
  const { reading } = entry
  if (!table.reaches.includes(`offset-${reading.axis}` satisfies FactKind)) return false
  return !table.onlyItsTool || (reading.method === 'tool-on-block' && reading.tool === tool)
}

/** The words for a basis that was taken again: after this entry, or already before it. */
function replacedCause(entry: Link['entry'], by: Link['entry']): StaleCause {
  const axis = by.kind === 'pickup' ? by.reading.axis : 'the basis'
  const says =
    by.at > entry.at
      ? `${TAKEN[entry.kind]} before ${axis} was taken again`
      : `rests on ${axis} as it was before`
  return { entryId: by.id, at: by.at, says }
}

/** The words for a basis that went stale: after this entry, or already before it. */
const inherited = (entry: Link['entry'], cause: StaleCause) =>
  cause.at > entry.at
    ? cause.says.replace(/^\w+ before/, `${TAKEN[entry.kind]} before`)
    : `rests on a reading ${cause.says}`

/**
 * Builds the chain from entries in the order in which they happened, without those struck out.
 * `strikes` holds every strike that counts, so that a fact which rests on a struck entry can say so.
 */
export function buildChain(
  counting: readonly Entry[],
  strikes: ReadonlyMap<string, EntryOf<'struck'>>,
): Chain {
  const links = new Map<string, Link>()
  const standing = new Map<string, Link>()
  for (const entry of counting) {
    if (entry.kind === 'pickup' || entry.kind === 'checked' || entry.kind === 'program') {
      const link: Link = { entry, subject: subjectOf(entry) }
      const before = standing.get(link.subject)
      if (before) before.supersededBy = link
      standing.set(link.subject, link)
      links.set(entry.id, link)
    } else if (entry.kind === 'happened') {
      for (const link of standing.values()) {
        if (!link.reached && reaches(entry, link)) link.reached = entry
      }
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
          entryId: reached.id,
          at: reached.at,
          says: `${TAKEN[entry.kind]} before ${HAPPENINGS[reached.what].past}`,
        }
      : null
  const basisCause = ({ entry }: Link): StaleCause | null => {
    if (entry.kind === 'pickup') return null
    for (const id of entry.rests) {
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
