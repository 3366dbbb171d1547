import {
  type Act,
  type Follower,
  type Link,
  type LogEntry,
  type PlacedAct,
  UNREAD_TAG,
} from '../log/index.ts'

/** What a shift restores, and what it is looked at against. */
interface Told {
  /** The Z of a lathe's tool: what a work shift brings back to the part. */
  isToolZ: (link: Link) => boolean
  /** What a shift makes stale beside tools: a look at the bar. */
  looksAtPart: (link: Link) => boolean
}

/** Follows 'before': what a work shift does to what was looked at, and to tools that it does not hold for. */
export const SHIFT_TAKEN = 'the work shift was taken'

/** What puts the part of a lathe elsewhere along Z and leaves its tools as they are. */
const movesPart = ({ tag }: Act) => tag === 'part-moved'

/**
 * Keeps which tools of a lathe were touched on one and the same lie of the part. As long as only the part is moved, tools that belong
 * together still stand to each other as they did; a work shift that is taken with one of them holds for all of them, and for no other.
 */
export function toolsTogether({
  isToolZ,
  looksAtPart,
}: Told): Follower<LogEntry & { rests: readonly string[] }> {
  /** Which lie of the part each tool's Z belongs to; a part that is moved makes a new one. */
  const lieOf = new Map<Link, number>()
  let [now, lies] = [0, 0]
  return {
    happened: (act) => {
      // What cannot be read may have moved it.
      if (movesPart(act) || act.tag === UNREAD_TAG) now = ++lies
    },
    recorded: (link) => {
      if (isToolZ(link)) lieOf.set(link, now)
    },
    restores: ({ rests }, standing, acts: readonly PlacedAct[], placeOf) => {
      const tools = [...standing].filter(isToolZ)
      const by = tools.find(({ entry }) => entry.id === rests[0])
      const lie = by && lieOf.get(by)
      if (lie !== undefined) now = lie
      const together = tools.filter((link) => lie !== undefined && lieOf.get(link) === lie)
      const onlyMoved = (link: Link) =>
        acts.every((act) => act.place <= placeOf(link) || movesPart(act) || !act.whom(link))
      return {
        past: SHIFT_TAKEN,
        again: together.filter((link) => link.reached && !link.reached.unsure && onlyMoved(link)),
        reached: (link) => looksAtPart(link) || (isToolZ(link) && !together.includes(link)),
      }
    },
  }
}
