import type { LogEntry } from '@dogleg/core/log'
import type { QueryClient } from '@tanstack/react-query'
import { api } from './api.ts'

/** A log as far as the server told of it; `readLog` reads it. */
export interface Log {
  entries: LogEntry[]
  /** Place of the last entry that the server told us of. */
  seq: number
}

export const logKey = (setup: string) => ['log', setup]
export const NUMBERS_KEY = ['numbers']
export const machineLogKey = (machine: string) => ['machine-log', machine]

/** One entry each; of two the one that says when the server received it. */
export function withoutDoubles<Entry extends LogEntry>(entries: readonly Entry[]): Entry[] {
  const byId = new Map<string, Entry>()
  for (const entry of entries)
    if (entry.received !== undefined || byId.get(entry.id)?.received === undefined) byId.set(entry.id, entry)
  return [...byId.values()]
}

/** A log with what the server told since; the same log where it told nothing, so that nothing is derived anew. */
const merged = (log: Log | undefined, told: readonly LogEntry[], seq: number): Log =>
  log && told.length === 0
    ? log
    : {
        entries: withoutDoubles([...(log?.entries ?? []), ...told]),
        seq,
      }

/** The machine on which an entry opens a setup. */
export function machineOpened(entry: LogEntry): string | undefined {
  const { kind, machine } = entry as LogEntry & { machine?: { id?: unknown } }
  return kind === 'opened' && typeof machine?.id === 'string' ? machine.id : undefined
}

/** Puts acknowledged entries into the logs that are on screen, so that nothing flickers between outbox and log. */
export function noteDelivered(client: QueryClient, entries: readonly LogEntry[]) {
  for (const entry of entries) {
    client.setQueryData<Log>(logKey(entry.setup), (log) => merged(log, [entry], log?.seq ?? 0))
    if (entry.kind === 'numbered' || entry.kind === 'struck')
      client.setQueryData<Log>(NUMBERS_KEY, (log) => log && merged(log, [entry], log.seq))
    for (const [key, log] of client.getQueriesData<Log>({ queryKey: ['machine-log'] })) {
      if (log?.entries.some(({ setup }) => setup === entry.setup) || key[1] === machineOpened(entry))
        client.setQueryData<Log>(key, (now) => merged(now, [entry], now?.seq ?? 0))
    }
  }
  void client.invalidateQueries({ queryKey: ['setups'] })
}

/** Asks for what came to a log since the last answer. What was delivered while the question was under way stays. */
export async function askSince(
  client: QueryClient,
  key: string[],
  ask: (after: number) => Promise<Log>,
): Promise<Log> {
  const log = () => client.getQueryData<Log>(key)
  const { entries, seq } = await ask(log()?.seq ?? 0)
  return merged(log(), entries, seq)
}

export const askLog = (client: QueryClient, setup: string) =>
  askSince(client, logKey(setup), (after) => api.entriesSince(setup, after))
