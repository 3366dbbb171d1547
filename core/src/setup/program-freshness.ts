import type { Profile } from '../control/index.ts'
import type { Freshness } from '../fact/index.ts'
import type { Machine, ToolShape } from '../machine/index.ts'
import type { Chain, Entry, EntryOf } from './kinds.ts'

interface Context {
  chain: Chain
  machine: Machine
  profile: Profile
}

/** Entries that are made for a machine and a profile as they were. */
type MadeFor = 'program' | 'coded' | 'proved' | 'gauging' | 'palleted'

/**
 * What an entry that was made with versions of rows stands at: stale with what it rests on in the log, or with the first
 * thing that `edited` names; fresh where that is nothing.
 */
export function freshnessWith(
  entry: Pick<Entry, 'id' | 'at'>,
  { chain }: Pick<Context, 'chain'>,
  edited: () => string | undefined,
): Freshness {
  const freshness = chain.freshnessOf(entry.id)
  if (freshness.state === 'stale') return freshness
  const says = edited()
  return says ? { state: 'stale', cause: { entryId: entry.id, at: entry.at, says } } : freshness
}

/** Says that the machine was edited since; undefined where it was not. `made` is the word for it: 'proved on'. */
export const machineEdited = (
  entry: EntryOf<MadeFor>,
  { machine }: Pick<Context, 'machine'>,
  made: string,
): string | undefined =>
  entry.machine.version === machine.version
    ? undefined
    : `${made} version ${entry.machine.version} of ${machine.name}, which has been edited`

/**
 * The same of the profile that the machine speaks. What is written for it stands while only the machine's own codes are edited; what is
 * read by it (`reads`) does not.
 */
export const profileEdited = (
  entry: EntryOf<MadeFor>,
  { profile }: Pick<Context, 'profile'>,
  made: string,
  { reads = false } = {},
): string | undefined =>
  entry.profile.id === profile.id &&
  (entry.profile.version === profile.version || (!reads && entry.profile.version >= profile.writesSince))
    ? undefined
    : `${made} ${entry.profile.id} version ${entry.profile.version}; the machine now speaks ${profile.name} version ${profile.version}`

/** A row as an entry names it, and the row as it is now. */
interface Versioned {
  id: string
  version: number
}

/** Whether a row is another version now than the one that was used, or is gone. */
export const rowEdited = (used: Versioned, rows: readonly Versioned[]) =>
  rows.find(({ id }) => id === used.id)?.version !== used.version

/** Whether the shapes of the tools of a program are no longer those it was made with; `made` is the word for it: 'proved before'. */
export function toolsEdited(
  tools: { was: readonly Versioned[]; uses: readonly number[]; now: readonly ToolShape[] },
  { id: machineId }: Pick<Machine, 'id'>,
  made: string,
): string | undefined {
  const { was, uses, now } = tools
  if (was.some(({ id }) => !now.some((tool) => tool.id === id)))
    return `${made} a tool of it was taken out of the list`
  if (was.some((tool) => rowEdited(tool, now))) return `${made} the shape of a tool was edited`
  const entered = now.find(
    (tool) =>
      tool.machineId === machineId && uses.includes(tool.number) && !was.some(({ id }) => id === tool.id),
  )
  return entered && `${made} the shape of T${entered.number} was entered`
}

/** A program also rests on the profile and the machine as they were. */
export const programFreshness = (entry: EntryOf<'program'>, context: Context): Freshness =>
  freshnessWith(
    entry,
    context,
    () => profileEdited(entry, context, 'written for') ?? machineEdited(entry, context, 'written for'),
  )
