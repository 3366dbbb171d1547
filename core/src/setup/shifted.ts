import type { Act, Link } from './acts.ts'
import type { EntryOf } from './entries.ts'
import { MOVES_PART } from './happenings.ts'

/** The Z of a lathe's tool: what a work shift brings back to the part. */
const isToolZ = ({ entry }: Link) =>
  entry.kind === 'pickup' && entry.reading.method === 'faced' && /^T\d/.test(entry.offset)

/** What a shift makes stale beside tools: a look at the bar, and a proof that has machine positions in it. */
const looksAtPart = ({ entry }: Link) => entry.kind === 'checked' || entry.kind === 'proved'

interface Shifted {
  /** Tools that hold again: only the part had been moved since, and the shift says whereto. */
  again: Link[]
  /** What the shift reaches. */
  reached: (link: Link) => boolean
}

/**
 * Keeps which tools of a lathe were touched on one and the same lie of the part. As long as only the part is moved, tools that belong
 * together still stand to each other as they did; a work shift that is taken with one of them holds for all of them, and for no other.
 */
export function toolsTogether() {
  /** Which lie of the part each tool's Z belongs to; a part that is moved makes a new one. */
  const lieOf = new Map<Link, number>()
  let [now, lies] = [0, 0]
  return {
    /** An act happened: whether it put the part elsewhere. */
    happened: ({ past }: Pick<Act, 'past'>) => {
      if (MOVES_PART.has(past)) now = ++lies
    },
    recorded: (link: Link) => {
      if (isToolZ(link)) lieOf.set(link, now)
    },
    /** A work shift is taken: by a tool's Z that stands, among all that stand; `acts` are those so far, `placeOf` the place of an entry. */
    shifted: (
      { rests }: EntryOf<'work-shift'>,
      standing: Iterable<Link>,
      acts: readonly Act[],
      placeOf: (link: Link) => number,
    ): Shifted => {
      const tools = [...standing].filter(isToolZ)
      const by = tools.find(({ entry }) => entry.id === rests[0])
      const lie = by && lieOf.get(by)
      if (lie !== undefined) now = lie
      const together = tools.filter((link) => lie !== undefined && lieOf.get(link) === lie)
      const onlyMoved = (link: Link) =>
        acts.every((act) => act.place <= placeOf(link) || MOVES_PART.has(act.past) || !act.whom(link))
      return {
        again: together.filter((link) => link.reached && !link.reached.unsure && onlyMoved(link)),
        reached: (link) => looksAtPart(link) || (isToolZ(link) && !together.includes(link)),
      }
    },
  }
}
