import { SEEDS, type SimulatedAction, type SimulatedMachine } from '@dogleg/core/simulated'
import { type Remote, wrap } from 'comlink'
import { useSyncExternalStore } from 'react'
import { api, type BeginsWith, Unreachable } from '../log/api.ts'
import { listenerSet } from '../log/listeners.ts'
import { endedSays, howItEnded, untilItEnds } from '../ui/worker-ended.tsx'
import type { DoubleRows, OwnMachines } from './own-worker.ts'

/** A program is worked out for so long at most, in ms; then it is ended, and the machines of this tablet with it. */
const LIMIT_MS = 20_000

const { notify, subscribe } = listenerSet()
/** The machines that are on at this tablet alone. */
let own: ReadonlySet<string> = new Set()
/** The worker that they are in, and what tells all who wait for it that it ended. */
interface Running {
  worker: Worker
  machines: Remote<OwnMachines>
  ended: Promise<never>
  end: (says: string) => void
}
let running: Running | undefined

function putOwn(next: ReadonlySet<string>) {
  own = next
  notify()
}

/** Whether a simulated machine is on at this tablet alone: it was switched on while the server was away. */
export const useIsOwn = (id: string | undefined) =>
  useSyncExternalStore(subscribe, () => id !== undefined && own.has(id))

function begin(): Running {
  const worker = new Worker(new URL('./own-worker.ts', import.meta.url), { type: 'module' })
  let tell = (_: Error) => {}
  const ended = new Promise<never>((_, reject) => {
    tell = reject
  })
  // Nobody may be waiting for it.
  ended.catch(() => undefined)
  const begun: Running = {
    worker,
    machines: wrap<OwnMachines>(worker),
    ended,
    end: (says) => {
      worker.terminate()
      tell(new Error(says))
      if (running !== begun) return
      running = undefined
      putOwn(new Set())
    },
  }
  untilItEnds(worker).catch((error) =>
    begun.end(endedSays(howItEnded(error), 'The simulated machine broke off, and is switched off.')),
  )
  return begun
}

/** Asks the machines of this tablet; one that works too long is ended, and the others with it. */
async function ask<T>(what: (machines: Remote<OwnMachines>) => Promise<T>): Promise<T> {
  running ??= begin()
  const { machines, ended, end } = running
  const timer = setTimeout(
    () =>
      end(
        `This program takes more than ${LIMIT_MS / 1000} seconds to work out: the simulated machine was switched off. Look for a loop that goes on, or pecks and passes that are too small.`,
      ),
    LIMIT_MS,
  )
  try {
    return await Promise.race([what(machines), ended])
  } finally {
    clearTimeout(timer)
  }
}

/** Simulated machines: those of the server, and where it is away those of this tablet alone. */
export const atMachine = {
  look: (id: string) => (own.has(id) ? ask((of) => of.work(id, [])) : api.simulated(id)),
  work: (id: string, actions: readonly SimulatedAction[]) =>
    own.has(id) ? ask((of) => of.work(id, actions)) : api.workAt(id, actions),
  programOf: (id: string) => (own.has(id) ? ask((of) => of.program(id)) : api.programOf(id)),
  hidden: (id: string) => (own.has(id) ? ask((of) => of.hidden(id)) : api.hidden(id)),
  positions: (id: string) => (own.has(id) ? ask((of) => of.positions(id)) : api.simulatedPositions(id)),

  /** Switches one on: at the server, and where that is away at this tablet, as the double of a machine whose rows it has. */
  switchOn: async (
    id: string,
    from: BeginsWith,
    rows: (machine: string) => DoubleRows | undefined,
  ): Promise<SimulatedMachine> => {
    try {
      const on = await api.switchOn(id, from)
      if (own.has(id)) atMachine.leaveOwn(id)
      return on
    } catch (error) {
      const of = error instanceof Unreachable && 'machine' in from ? rows(from.machine) : undefined
      if (!of) throw error
      const seed = from.seed ?? 1 + Math.floor(Math.random() * (SEEDS - 1))
      const on = await ask((machines) => machines.switchOn(id, seed, of))
      putOwn(new Set([...own, id]))
      return on
    }
  },

  /** Switches off what is on at this tablet alone: from then on it is the server's again. */
  leaveOwn: (id: string) => {
    void running?.machines.switchOff(id)
    putOwn(new Set([...own].filter((each) => each !== id)))
  },
}
