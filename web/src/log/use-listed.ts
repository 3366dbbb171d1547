import type { LogEntry } from '@dogleg/core/log'
import type { Logged } from '@dogleg/core/setup'
import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api } from './api.ts'
import { useAskEvery } from './changes.ts'
import { earlierKey, machineProgramsKey, machineTimesKey, withoutDoubles } from './log-cache.ts'
import type { OpenSetup } from './open-setup.ts'
import { readLog } from './read-log.ts'

// Entries that are asked for where they are looked at, and not with the machine: what stands at its control, cycles that were timed,
// earlier runs of the job. What this page has of the machine besides, this tablet's own included, stands among them.

const LISTEN_MS = 4000

function useListed(
  queryKey: readonly string[],
  ask: () => Promise<{ entries: LogEntry[] }>,
  machineEntries: readonly Logged[],
): readonly Logged[] {
  const { data } = useQuery({
    queryKey,
    queryFn: async () => (await ask()).entries,
    refetchInterval: useAskEvery(LISTEN_MS),
  })
  return useMemo(() => withoutDoubles([...readLog(data ?? []), ...machineEntries]), [data, machineEntries])
}

/** With what stands at the control of the machine. */
export const useMachinePrograms = ({
  setup: { machine },
  machineEntries,
}: Pick<OpenSetup, 'setup' | 'machineEntries'>) =>
  useListed(machineProgramsKey(machine.id), () => api.machinePrograms(machine.id), machineEntries)

/** With the cycles that were timed on the machine. */
export const useMachineTimes = ({
  setup: { machine },
  machineEntries,
}: Pick<OpenSetup, 'setup' | 'machineEntries'>) =>
  useListed(machineTimesKey(machine.id), () => api.machineTimes(machine.id), machineEntries)

/** With earlier setups of the job, and who has read this one's notes. */
export const useEarlierRuns = ({
  setup: { id, machine },
  machineEntries,
}: Pick<OpenSetup, 'setup' | 'machineEntries'>) =>
  useListed(earlierKey(machine.id, id), () => api.earlierRuns(id), machineEntries)
