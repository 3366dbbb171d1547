import {
  damagedSays,
  deriveReady,
  deriveSetup,
  type Entry,
  type ReadyState,
  type Setup,
  type Unreadable,
} from '@dogleg/core/setup'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { api, type DamagedRow } from './api.ts'
import { now } from './clock.ts'
import { askLog, askSince, logKey, machineLogKey, machineOpened, withoutDoubles } from './log-cache.ts'
import { useOperator } from './operator.ts'
import { useOwnEntries } from './own-entries.ts'
import { useReference } from './rows.ts'

const LISTEN_MS = 4000
const NONE: readonly DamagedRow[] = []

/** A setup's log as the server and this tablet have it, and what is derived from it. */
export function useSetup(id: string) {
  const client = useQueryClient()
  const mine = useOwnEntries()
  const { reference, error: referenceError } = useReference()
  // The server knows nothing yet of a setup whose opening is still on its way to it.
  const onItsWay = mine.some((entry) => entry.id === id)
  const log = useQuery({
    queryKey: logKey(id),
    queryFn: () => askLog(client, id),
    refetchInterval: LISTEN_MS,
    enabled: !onItsWay,
  })
  const entries = useMemo(() => {
    const own = mine.filter((entry) => entry.setup === id)
    const known = log.data?.entries ?? []
    return own.length === 0 ? known : withoutDoubles([...known, ...own])
  }, [log.data, mine, id])
  const damaged = log.data?.damaged ?? NONE
  const setup = useMemo<Setup | Unreadable | undefined>(() => {
    if (!reference || entries.length + damaged.length === 0) return undefined
    return damaged.length > 0
      ? { unreadable: damagedSays(damaged.length), log: [] }
      : deriveSetup(entries, reference)
  }, [entries, damaged, reference])
  return {
    setup,
    entries,
    damaged,
    reference,
    error: entries.length + damaged.length > 0 ? referenceError : (log.error ?? referenceError),
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
  const mine = useOwnEntries()
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
    const setups = new Set([id, ...known.map((entry) => entry.setup)])
    for (const entry of mine) if (machineOpened(entry) === machine.id) setups.add(entry.setup)
    const own = [...setup.log.map(({ entry }) => entry), ...mine.filter((entry) => setups.has(entry.setup))]
    return withoutDoubles([...known, ...own])
  }, [data, mine, setup, id, machine.id])
  const unread = data?.damaged?.length ?? 0
  const ready = useMemo(
    () =>
      deriveReady({
        machine,
        entries: machineEntries,
        now: minute,
        unread,
        ...(operator ? { operator } : {}),
      }),
    [machine, machineEntries, minute, operator, unread],
  )
  return { ready, machineEntries, known: !isPending }
}
