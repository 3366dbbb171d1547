import {
  deriveReady,
  deriveSetup,
  type Logged,
  type ReadyState,
  type Setup,
  type Unreadable,
} from '@dogleg/core/setup'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { useAskEvery } from './changes.ts'
import { now } from './clock.ts'
import { askLog, askMachineLog, logKey, machineLogKey, machineOpened, withoutDoubles } from './log-cache.ts'
import { useOperator } from './operator.ts'
import { useOwnEntries } from './own-entries.ts'
import { readLog } from './read-log.ts'
import { useReference } from './rows.ts'

const LISTEN_MS = 4000

/** A setup's log as the server and this tablet have it, and what is derived from it. */
export function useSetup(id: string) {
  const client = useQueryClient()
  const mine = useOwnEntries()
  const { reference, error: referenceError } = useReference()
  const every = useAskEvery(LISTEN_MS)
  // The server knows nothing yet of a setup whose opening is still on its way to it.
  const onItsWay = mine.some((entry) => entry.id === id)
  const log = useQuery({
    queryKey: logKey(id),
    queryFn: () => askLog(client, id),
    refetchInterval: every,
    enabled: !onItsWay,
  })
  const entries = useMemo(() => {
    const own = mine.filter((entry) => entry.setup === id)
    const known = readLog(log.data?.entries ?? [])
    return own.length === 0 ? known : withoutDoubles([...known, ...own])
  }, [log.data, mine, id])
  const setup = useMemo<Setup | Unreadable | undefined>(
    () => (!reference || entries.length === 0 ? undefined : deriveSetup(entries, reference)),
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

/** Whether a setup's machine is ready, from the logs of the setups on it that count, this tablet's own entries included. */
export function useReady(setup: Setup): {
  ready: ReadyState
  machineEntries: readonly Logged[]
  /** Whether the logs of the other setups are known: the server has answered, or does not. */
  known: boolean
} {
  const client = useQueryClient()
  const mine = useOwnEntries()
  const operator = useOperator()
  const minute = useMinute()
  const every = useAskEvery(LISTEN_MS)
  const { machine, id } = setup
  const key = machineLogKey(machine.id)
  const { data, isPending } = useQuery({
    queryKey: key,
    queryFn: () => askMachineLog(client, machine.id),
    refetchInterval: every,
  })
  const machineEntries = useMemo(() => {
    const known = readLog(data?.entries ?? [])
    const setups = new Set([id, ...known.map((entry) => entry.setup)])
    for (const entry of mine) if (machineOpened(entry) === machine.id) setups.add(entry.setup)
    const own = [...setup.log.map(({ entry }) => entry), ...mine.filter((entry) => setups.has(entry.setup))]
    return withoutDoubles([...known, ...own])
  }, [data, mine, setup, id, machine.id])
  const earlier = data?.earlier
  const ready = useMemo(
    () =>
      deriveReady({
        machine,
        entries: machineEntries,
        earlier,
        now: minute,
        ...(operator ? { operator } : {}),
      }),
    [machine, machineEntries, earlier, minute, operator],
  )
  return { ready, machineEntries, known: !isPending }
}
