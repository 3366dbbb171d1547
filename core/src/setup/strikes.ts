import type { Entry, EntryOf } from './entries.ts'

/**
 * The strike that counts against each entry, by the struck entry's id. A strike can itself be struck out,
 * which brings its target back; a strike that points at itself or at what is not in the log counts for nothing.
 */
export function effectiveStrikes(entries: readonly Entry[]): Map<string, EntryOf<'struck'>> {
  const strikes = entries.filter((entry): entry is EntryOf<'struck'> => entry.kind === 'struck')
  const known = new Set(entries.map(({ id }) => id))
  const against = new Map<string, EntryOf<'struck'>[]>()
  for (const strike of strikes) {
    if (known.has(strike.target)) against.set(strike.target, [...(against.get(strike.target) ?? []), strike])
  }
  const verdicts = new Map<string, EntryOf<'struck'> | null>()
  const strikeOf = (id: string): EntryOf<'struck'> | null => {
    const known = verdicts.get(id)
    if (known !== undefined) return known
    verdicts.set(id, null) // a ring of strikes counts for nothing
    const counting = against.get(id)?.find((strike) => strikeOf(strike.id) === null) ?? null
    verdicts.set(id, counting)
    return counting
  }
  const effective = new Map<string, EntryOf<'struck'>>()
  for (const target of against.keys()) {
    const strike = strikeOf(target)
    if (strike) effective.set(target, strike)
  }
  return effective
}
