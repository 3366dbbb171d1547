import type { LogEntry } from '@dogleg/core/log'
import type { EarlierTime } from '@dogleg/core/setup'
import type { QueryClient } from '@tanstack/react-query'
import { api } from './api.ts'

/** A log as far as the server told of it; `readLog` reads it. */
export interface Log {
  entries: LogEntry[]
  /** Place of the last entry that the server told us of. */
  seq: number
  /** Of a machine: what is known of the time before that from which on all entries are there. */
  earlier?: EarlierTime
  /** Of a machine: setups of which only single entries are there. */
  single?: string[]
}

export const logKey = (setup: string) => ['log', setup]
export const NUMBERS_KEY = ['numbers']
export const BOARD_KEY = ['setups']
export const STAMP_KEY = ['reference-stamp']
export const machineLogKey = (machine: string) => ['machine-log', machine]
export const machineProgramsKey = (machine: string) => ['machine-programs', machine]
export const machineTimesKey = (machine: string) => ['machine-times', machine]

/** Everything that is asked of one machine, or of any. */
export const machineKeys = (machine?: string): string[][] =>
  ['machine-log', 'machine-programs', 'machine-times'].map((name) => (machine ? [name, machine] : [name]))
/** What others say of a setup: of one, of all on a machine, or of any. */
export const earlierKey = (machine?: string, setup?: string): string[] =>
  ['earlier', machine, setup].filter((each) => each !== undefined)

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
        ...log,
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
      for (const [key, log] of client.getQueriesData<Log>({ queryKey: NUMBERS_KEY }))
        if (log) client.setQueryData<Log>(key, merged(log, [entry], log.seq))
    for (const [key, log] of client.getQueriesData<Log>({ queryKey: ['machine-log'] })) {
      if (log?.entries.some(({ setup }) => setup === entry.setup) || key[1] === machineOpened(entry))
        client.setQueryData<Log>(key, (now) => merged(now, [entry], now?.seq ?? 0))
    }
  }
  void client.invalidateQueries({ queryKey: BOARD_KEY })
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

/**
 * Asks how a machine stands, or what came to it since. What came to a setup that this page does not have from its beginning, or of which it has
 * only single entries, is not understood without the rest of its log: then all is asked for anew.
 */
export async function askMachineLog(client: QueryClient, machine: string): Promise<Log> {
  const log = () => client.getQueryData<Log>(machineLogKey(machine))
  const before = log()
  if (before && before.seq > 0) {
    const { entries, seq } = await api.machineEntriesSince(machine, before.seq)
    const known = merged(log(), entries, seq)
    const begun = new Set(
      known.entries.flatMap((entry) => (machineOpened(entry) === machine ? [entry.setup] : [])),
    )
    const single = new Set(before.single)
    const isUnderstood = ({ kind, setup }: LogEntry) =>
      kind === 'unread' || kind === 'acknowledged' || (begun.has(setup) && !single.has(setup))
    if (entries.every(isUnderstood)) return known
  }
  const { entries, seq, earlier, single } = await api.machineEntriesSince(machine, 0)
  return { entries, seq, ...(earlier ? { earlier } : {}), ...(single ? { single } : {}) }
}

export const askLog = (client: QueryClient, setup: string) =>
  askSince(client, logKey(setup), (after) => api.entriesSince(setup, after))
