import type { ClockStamp } from './stamp.ts'

/** What a tablet's two clocks say at one moment, in ms: one that nobody can set but that stands while the tablet sleeps, and the wall clock. */
export interface Reading {
  steady: number
  wall: number
}

/** The server's time as a tablet heard it last, in ms since 1970, and what its own clocks said then. */
export interface LastHeard {
  time: number
  wall: number
  /** Nothing where the page was opened anew since: its steady clock began again. */
  steady?: number | undefined
  /** How far `time` may have been behind when the answer was read: half of what the question took, in ms. */
  behind: number
}

/** Takes in the server's time from an answer. `asked` is when the question went out, `now` when the answer was read. */
export const hear = (time: number, asked: Reading, now: Reading): LastHeard => ({
  time,
  wall: now.wall,
  steady: now.steady,
  behind: Math.max(0, now.steady - asked.steady) / 2,
})

/** A wall clock that went on by this much more than the steady one says that the tablet slept, in ms. */
const SLEPT_MS = 1000

/**
 * The server's time now as well as a tablet can know it, in ms since 1970, and what goes with it into an entry. `at` is for
 * reading; the order is told from the rest, which holds whatever the wall clock says.
 */
export function stampOf(
  heard: LastHeard | undefined,
  now: Reading,
): { at: number } & Pick<ClockStamp, 'heard' | 'steady'> {
  if (!heard) return { at: now.wall }
  const said = new Date(heard.time).toISOString()
  const byWall = now.wall - heard.wall
  if (heard.steady === undefined) return { at: heard.time + Math.max(0, byWall), heard: said }
  const steady = Math.max(0, now.steady - heard.steady)
  const passed = byWall > steady + SLEPT_MS ? byWall : steady
  return { at: heard.time + heard.behind + passed, heard: said, steady }
}
