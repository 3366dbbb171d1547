import type { LogEntry } from '@dogleg/core/log'
import type { QueryClient } from '@tanstack/react-query'
import { api, Refused } from './api.ts'
import { type Log, withoutDoubles } from './log-cache.ts'
import { sentEntries } from './sent.ts'

const AT_ONCE = 100

/** What came of giving back what a tablet held. */
export interface GivenBack {
  /** Entries that the server did not have. */
  added: number
  /** Entries that it had. */
  known: number
  /** Those that it would not take, in one sentence each, without repeating one. */
  refused: string[]
}

/** Everything acknowledged that this tablet still holds: what it sent itself, and the logs that its page has open; the oldest first. */
export function heldEntries(client: QueryClient): LogEntry[] {
  const logs = client.getQueriesData<Log>({ queryKey: ['log'] })
  const all = withoutDoubles([...sentEntries(), ...logs.flatMap(([, log]) => log?.entries ?? [])]).filter(
    // What the server itself could not read, it has no use for.
    ({ kind }) => kind !== 'unread',
  )
  return all.sort((a, b) => (a.id < b.id ? -1 : 1))
}

/** Gives the server back what this tablet holds. Each has its own id, so that nothing is there twice; one that is refused holds up none. */
export async function giveBack(entries: readonly LogEntry[]): Promise<GivenBack> {
  const given: GivenBack = { added: 0, known: 0, refused: [] }
  const send = async (some: LogEntry[]): Promise<void> => {
    try {
      const { added, known } = await api.giveBack(some)
      given.added += added
      given.known += known
    } catch (error) {
      if (!(error instanceof Refused) || error.status >= 500) throw error
      if (some.length > 1) for (const one of some) await send([one])
      else if (!given.refused.includes(error.message)) given.refused.push(error.message)
    }
  }
  for (let at = 0; at < entries.length; at += AT_ONCE) await send(entries.slice(at, at + AT_ONCE))
  return given
}
