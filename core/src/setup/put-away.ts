import type { EntryOf, Logged } from './kinds.ts'

/** Said of a setup, and no work on it. */
export const NO_WORK: readonly Logged['kind'][] = ['handed-over', 'acknowledged', 'note', 'put-away']

/** When a setup was worked on last, ISO 8601, from the entries that count, in their order; empty where it never was. */
export const workedOnLast = (counting: readonly Logged[]): string =>
  counting.findLast(({ kind }) => !NO_WORK.includes(kind))?.at ?? ''

/**
 * The entry by which a setup is put away, from the entries that count, in their order; undefined where it is not, or was brought back. One
 * that may have been worked on since is not put away: what is still worked on must be seen.
 */
export function putAwayBy(
  counting: readonly Logged[],
  surelyBefore: (one: Logged, other: Logged) => boolean,
): EntryOf<'put-away'> | undefined {
  const last = counting.findLast((entry): entry is EntryOf<'put-away'> => entry.kind === 'put-away')
  if (!last?.away) return undefined
  // Striking out corrects the log: what was struck out does not count any more.
  const isWork = ({ kind }: Logged) => kind !== 'struck' && !NO_WORK.includes(kind)
  const isAfter = (entry: Logged) => isWork(entry) && !surelyBefore(entry, last)
  return counting.some(isAfter) ? undefined : last
}
