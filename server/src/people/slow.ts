import { Problem } from '../problem.ts'

/** Wrong ones in a row that are answered at once. */
const FREE = 3
/** The first wait after them, in ms: it doubles each time. */
const FIRST_MS = 5000
/** The longest wait, in ms: of 10,000 PINs of four digits some 100 are tried in a day. */
const LONGEST_MS = 15 * 60_000
/** How many are remembered; those that were wrong longest ago are forgotten first. */
const MOST = 10_000

interface Tries {
  wrong: number
  /** When the next is answered, in ms since 1970. */
  next: number
}

const waitAfter = (wrong: number) =>
  wrong < FREE ? 0 : Math.min(LONGEST_MS, FIRST_MS * 2 ** Math.min(20, wrong - FREE))

const inWords = (ms: number) => {
  const seconds = Math.ceil(ms / 1000)
  return seconds <= 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`
}

/**
 * Slows down whoever tries PINs: after three wrong ones each further try waits, twice as long every time, until one is right. Counted
 * by whatever is named, whether it is anybody's initials or not: nothing tells which there are.
 */
export function slowDown(clock: () => number) {
  const tries = new Map<string, Tries>()
  /**
   * Takes a try for these names, and counts it as wrong until it is said to be right: many at once are slowed as well as one by one. One
   * that comes too early is refused; it is not looked at, and does not count.
   */
  const take = (of: readonly string[]) => {
    const now = clock()
    const wait = Math.max(0, ...of.map((name) => (tries.get(name)?.next ?? 0) - now))
    if (wait > 0)
      throw new Problem(
        429,
        'wait',
        `There were wrong PINs. Wait ${inWords(wait)}, then try again. A forgotten PIN is set anew by a lead.`,
        { seconds: Math.ceil(wait / 1000) },
      )
    for (const name of of) {
      const wrong = (tries.get(name)?.wrong ?? 0) + 1
      tries.delete(name)
      tries.set(name, { wrong, next: now + waitAfter(wrong) })
    }
    for (const name of tries.keys()) {
      if (tries.size <= MOST) break
      tries.delete(name)
    }
  }
  const right = (of: readonly string[]) => {
    for (const name of of) tries.delete(name)
  }
  return { take, right }
}
export type SlowDown = ReturnType<typeof slowDown>
