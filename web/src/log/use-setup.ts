import {
  deriveReady,
  deriveSetup,
  type Entry,
  entry as entrySchema,
  type ReadyState,
  type Reference,
  type Setup,
  type Unreadable,
} from '@dogleg/core/setup'
import { type QueryClient, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { api, type Noun } from './api.ts'
import { newId, now } from './clock.ts'
import { operator, useOperator } from './operator.ts'
import { post, useWaiting } from './outbox.ts'

const LISTEN_MS = 4000

interface Log {
  entries: Entry[]
  /** Place of the last entry that the server told us of. */
  seq: number
}

const logKey = (setup: string) => ['log', setup]
const machineLogKey = (machine: string) => ['machine-log', machine]

/** One entry each, the server's word first. */
const withoutDoubles = (entries: Entry[]) => [...new Map(entries.map((entry) => [entry.id, entry])).values()]

/** A log with what the server told since; the same log where it told nothing, so that nothing is derived anew. */
const merged = (log: Log | undefined, told: Entry[], seq: number): Log =>
  log && told.length === 0 ? log : { entries: withoutDoubles([...(log?.entries ?? []), ...told]), seq }

/** The machine on which an entry opens a setup. */
const machineOpened = (entry: Entry) => (entry.kind === 'opened' ? entry.machine.id : undefined)

/** Puts acknowledged entries into the logs that are on screen, so that nothing flickers between outbox and log. */
export function noteDelivered(client: QueryClient, entries: Entry[]) {
  for (const entry of entries) {
    client.setQueryData<Log>(logKey(entry.setup), (log) => merged(log, [entry], log?.seq ?? 0))
    for (const [key, log] of client.getQueriesData<Log>({ queryKey: ['machine-log'] })) {
      if (log?.entries.some(({ setup }) => setup === entry.setup) || key[1] === machineOpened(entry))
        client.setQueryData<Log>(key, (now) => merged(now, [entry], now?.seq ?? 0))
    }
  }
  void client.invalidateQueries({ queryKey: ['setups'] })
}

/** Asks for what came to a log since the last answer. What was delivered while the question was under way stays. */
async function askSince(
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

/** One list of reference data, as the server has it. */
export const useRows = <N extends Noun>(noun: N) =>
  useQuery({ queryKey: [noun], queryFn: () => api.rows(noun) })

export const useReference = () => {
  const [machines, profiles, vises, collets] = [
    useRows('machines'),
    useRows('profiles'),
    useRows('vises'),
    useRows('collets'),
  ]
  const reference = useMemo<Reference | undefined>(
    () =>
      machines.data && profiles.data && vises.data && collets.data
        ? { machines: machines.data, profiles: profiles.data, vises: vises.data, collets: collets.data }
        : undefined,
    [machines.data, profiles.data, vises.data, collets.data],
  )
  return { reference, error: machines.error ?? profiles.error ?? vises.error ?? collets.error }
}

/** A setup's log as the server and this tablet have it, and what is derived from it. */
export function useSetup(id: string) {
  const client = useQueryClient()
  const waiting = useWaiting()
  const { reference, error: referenceError } = useReference()
  const log = useQuery({
    queryKey: logKey(id),
    queryFn: () => askLog(client, id),
    refetchInterval: LISTEN_MS,
  })
  const entries = useMemo(() => {
    const own = waiting
      .filter(({ entry, refused }) => entry.setup === id && !refused)
      .map(({ entry }) => entry)
    const known = log.data?.entries ?? []
    return own.length === 0 ? known : withoutDoubles([...known, ...own])
  }, [log.data, waiting, id])
  const setup = useMemo<Setup | Unreadable | undefined>(
    () => (reference && entries.length > 0 ? deriveSetup(entries, reference) : undefined),
    [entries, reference],
  )
  return {
    setup,
    entries,
    reference,
    error: entries.length > 0 ? referenceError : (log.error ?? referenceError),
  }
}

const MINUTE_MS = 60_000

/** The time, as it passes: once a minute is enough for a machine that stands. */
function useMinute(): number {
  const [minute, setMinute] = useState(now)
  useEffect(() => {
    const timer = setInterval(() => setMinute(now()), MINUTE_MS)
    return () => clearInterval(timer)
  }, [])
  return minute
}

/** Whether a setup's machine is ready, from the logs of every setup on it, this tablet's own entries included. */
export function useReady(setup: Setup): {
  ready: ReadyState
  machineEntries: readonly Entry[]
  /** Whether the logs of the other setups are known: the server has answered, or does not. */
  known: boolean
} {
  const client = useQueryClient()
  const waiting = useWaiting()
  const operator = useOperator()
  const minute = useMinute()
  const { machine, id } = setup
  const key = machineLogKey(machine.id)
  const { data, isPending } = useQuery({
    queryKey: key,
    queryFn: () => askSince(client, key, (after) => api.machineEntriesSince(machine.id, after)),
    refetchInterval: LISTEN_MS,
  })
  const machineEntries = useMemo(() => {
    const known = data?.entries ?? []
    const here = waiting.filter(({ refused }) => !refused).map(({ entry }) => entry)
    const setups = new Set([id, ...known.map((entry) => entry.setup)])
    for (const entry of here) if (machineOpened(entry) === machine.id) setups.add(entry.setup)
    const own = [...setup.log.map(({ entry }) => entry), ...here.filter((entry) => setups.has(entry.setup))]
    return withoutDoubles([...known, ...own])
  }, [data, waiting, setup, id, machine.id])
  const ready = useMemo(
    () => deriveReady({ machine, entries: machineEntries, now: minute, ...(operator ? { operator } : {}) }),
    [machine, machineEntries, minute, operator],
  )
  return { ready, machineEntries, known: !isPending }
}

type Unstamped<T> = T extends Entry ? Omit<T, 'id' | 'setup' | 'at' | 'by'> : never
export type NewEntry = Unstamped<Entry>

/** An entry with its stamp: a new id, the time, and who is at this tablet. */
export function stamp(setup: string | undefined, entry: NewEntry): Entry {
  const id = newId()
  return { id, setup: setup ?? id, at: new Date(now()).toISOString(), by: operator(), ...entry } as Entry
}

/** Whether what is to be recorded says the same as an entry that stands, whoever made it and when. */
export const restates = (standing: Entry, entry: NewEntry) =>
  Object.entries(entry).every(
    ([name, value]) =>
      JSON.stringify(Object.entries(standing).find(([key]) => key === name)?.[1]) === JSON.stringify(value),
  )

/** What the schema has against an entry, by field, before anybody signs it. */
export function problemsOf(setup: string | undefined, entry: NewEntry): Record<string, string> {
  const read = entrySchema.safeParse({ ...stamp(setup, entry), by: operator() || 'unsigned' })
  const issues = read.success ? [] : read.error.issues
  return Object.fromEntries(issues.map(({ path, message }) => [String(path[0]), message]))
}

/** Adds an entry to a setup's log, or opens a new setup when there is none yet. Returns the entry as kept. */
export function record(setup: string | undefined, entry: NewEntry): Entry {
  const stamped = stamp(setup, entry)
  post(stamped)
  return stamped
}
