import type { SimulatedAction } from '@dogleg/core/simulated'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type BeginsWith, Refused, type SimulatedMachine, Unreachable } from '../log/api.ts'
import { useRows } from '../log/rows.ts'
import { atMachine } from './at-machine.ts'

/** How often a machine is looked at: while a program runs, and else, for what somebody else does at it. */
const RUNNING_MS = 200
const STANDING_MS = 2000

export interface Simulated {
  machine: SimulatedMachine | undefined
  /** It is switched off: nobody switched it on, or the server was started again. */
  off: boolean
  error: string | undefined
  /** Does something at it; what comes of it is in `machine`. */
  work: (...actions: SimulatedAction[]) => void
  switchOn: (from: BeginsWith) => void
  busy: boolean
  /** Goes back to the one of the server. */
  leaveOwn: () => void
}

/** A simulated machine of the server, or of this tablet where that is away, and working at it. `id` undefined while there is none yet. */
export function useSimulated(id: string | undefined): Simulated {
  const client = useQueryClient()
  const key = ['simulated', id]
  const { data: machines } = useRows('machines')
  const { data: profiles } = useRows('profiles')
  const { data: tools = [] } = useRows('tools')
  const { data, error, dataUpdatedAt } = useQuery({
    queryKey: key,
    queryFn: () => (id ? atMachine.look(id) : Promise.reject(new Error('none'))),
    enabled: id !== undefined,
    refetchInterval: ({ state }) => (state.data?.view.run?.phase === 'running' ? RUNNING_MS : STANDING_MS),
    retry: false,
  })
  const put = (machine: SimulatedMachine) => {
    client.setQueryData(key, machine)
    // What it did is in its positions as well.
    void client.invalidateQueries({ queryKey: ['positions'] })
  }
  const acting = useMutation({
    mutationFn: (actions: readonly SimulatedAction[]) => atMachine.work(id ?? '', actions),
    // One after the other, in the order of the presses.
    scope: { id: `simulated ${id}` },
    onSuccess: put,
  })
  const starting = useMutation({
    mutationFn: (from: BeginsWith) =>
      atMachine.switchOn(id ?? '', from, (of) => {
        const machine = machines?.find((each) => each.id === of)
        return (
          machine && {
            machine,
            profile: profiles?.find((each) => each.id === machine.profileId),
            tools: tools.filter(({ machineId }) => machineId === of),
          }
        )
      }),
    onSuccess: put,
  })
  // Why it could not be switched on stands until it is on.
  const notOn = data && dataUpdatedAt > starting.submittedAt ? null : starting.error
  // With the server away there is nothing to be seen of it: one can be switched on here.
  const off =
    (error instanceof Refused && error.code === 'switched-off') ||
    (error instanceof Unreachable && !data && machines?.some((each) => each.id === id) === true)
  return {
    machine: off ? undefined : data,
    off,
    error: (notOn ?? (off ? null : (acting.error ?? error)))?.message,
    work: (...actions) => acting.mutate(actions),
    switchOn: (from) => starting.mutate(from),
    busy: starting.isPending,
    leaveOwn: () => {
      if (!id) return
      atMachine.leaveOwn(id)
      void client.resetQueries({ queryKey: key })
    },
  }
}
