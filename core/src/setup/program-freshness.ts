import type { Profile } from '../control/index.ts'
import type { Freshness } from '../fact/index.ts'
import type { Machine } from '../machine/index.ts'
import type { Chain } from './chain.ts'
import type { EntryOf } from './entries.ts'

/** A program also rests on the profile and the machine as they were. */
export function programFreshness(
  entry: EntryOf<'program'>,
  { chain, machine, profile }: { chain: Chain; machine: Machine; profile: Profile },
): Freshness {
  const freshness = chain.freshnessOf(entry.id)
  if (freshness.state === 'stale') return freshness
  const changed =
    entry.profile.id !== profile.id || entry.profile.version !== profile.version
      ? `written for ${entry.profile.id} version ${entry.profile.version}; the machine now speaks ${profile.name} version ${profile.version}`
      : entry.machine.version !== machine.version
        ? `written for version ${entry.machine.version} of ${machine.name}, which has been edited`
        : undefined
  return changed ? { state: 'stale', cause: { entryId: entry.id, at: entry.at, says: changed } } : freshness
}
