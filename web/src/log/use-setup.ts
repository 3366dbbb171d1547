import {
  deriveSetup,
  type Entry,
  entry as entrySchema,
  type Reference,
  type Setup,
  type Unreadable,
} from '@dogleg/core/setup'
import { type QueryClient, useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api } from './api.ts'
import { newId, now } from './clock.ts'
import { operator } from './operator.ts'
import { post, useWaiting } from './outbox.ts'

const LISTEN_MS = 4000

interface Log {
  entries: Entry[]
  /** Place of the last entry that the server told us of. */
  seq: number
}

const logKey = (setup: string) => ['log', setup]

/** One entry each, the server's word first. */
const withoutDoubles = (entries: Entry[]) => [...new Map(entries.map((entry) => [entry.id, entry])).values()]

/** A log with what the server told since; the same log where it told nothing, so that nothing is derived anew. */
const merged = (log: Log | undefined, told: Entry[], seq: number): Log =>
  log && told.length === 0 ? log : { entries: withoutDoubles([...(log?.entries ?? []), ...told]), seq }

/** Puts acknowledged entries into the logs that are on screen, so that nothing flickers between outbox and log. */
export function noteDelivered(client: QueryClient, entries: Entry[]) {
  for (const entry of entries) {
    client.setQueryData<Log>(logKey(entry.setup), (log) => merged(log, [entry], log?.seq ?? 0))
  }
  void client.invalidateQueries({ queryKey: ['setups'] })
}

/** Asks for what came to a log since the last answer. What was delivered while the question was under way stays. */
export async function askLog(client: QueryClient, setup: string): Promise<Log> {
  const log = () => client.getQueryData<Log>(logKey(setup))
  const { entries, seq } = await api.entriesSince(setup, log()?.seq ?? 0)
  return merged(log(), entries, seq)
}

export const useReference = () => {
  const machines = useQuery({ queryKey: ['machines'], queryFn: api.machines })
  const profiles = useQuery({ queryKey: ['profiles'], queryFn: api.profiles })
  const reference = useMemo<Reference | undefined>(
    () => (machines.data && profiles.data ? { machines: machines.data, profiles: profiles.data } : undefined),
    [machines.data, profiles.data],
  )
  return { reference, error: machines.error ?? profiles.error }
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

type Unstamped<T> = T extends Entry ? Omit<T, 'id' | 'setup' | 'at' | 'by'> : never
export type NewEntry = Unstamped<Entry>

/** An entry with its stamp: a new id, the time, and who is at this tablet. */
export function stamp(setup: string | undefined, entry: NewEntry): Entry {
  const id = newId()
  return { id, setup: setup ?? id, at: new Date(now()).toISOString(), by: operator(), ...entry } as Entry
}

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
