import { randomInt } from 'node:crypto'
import type { Asked } from '@dogleg/core/api'
import type { Machine } from '@dogleg/core/machine'
import type { LengthUnit } from '@dogleg/core/quantity'
import {
  doubleOf,
  exerciseOf,
  SEEDS,
  type SimulatedAction,
  type SimulatedMachine,
  type SimulatedState,
  viewOf,
} from '@dogleg/core/simulated'
import { inTurn } from '../database/in-turn.ts'
import { Problem } from '../problem.ts'
import type { ReferenceStore } from '../reference/store.ts'
import { simulate } from '../threads/program-jobs.ts'
import { type Threads, TooLong } from '../threads/threads.ts'
import { type Observation, observe } from './observations.ts'

/** Simulated machines that are on at once. */
const MOST = 60
/** One that nobody looked at for so long gives its place to another, in ms: an open page looks every few seconds. */
const IDLE_MS = 10 * 60_000
/** What a machine keeps of what it observed. */
export const BUFFER = 4096

/** One simulated machine that is on: the double of a machine of the shop, or that of an exercise. */
export interface Session {
  id: string
  /** Different each time that it is switched on, as MTConnect wants it. */
  instance: number
  simulated: SimulatedState
  seed: number
  unit: LengthUnit
  exercise: string | null
  startedAt: number
  /** Up to when a program that runs has been let run. */
  advancedTo: number
  touchedAt: number
  /** The last that were observed, in their order; and the newest of each data item. */
  observations: Observation[]
  newest: Map<string, Observation>
  /** The number of the next observation. */
  next: number
  turn: ReturnType<typeof inTurn>
}

/** What a session begins with. */
type Begins = Asked<'switchOn'>['body']

/** What works out a program. */
const RUNS: ReadonlySet<SimulatedAction['do']> = new Set(['load', 'start'])

async function simulatedMachine(
  reference: ReferenceStore,
  id: string,
  seed: number,
): Promise<SimulatedState> {
  const machine = await reference.newest('machines', id)
  if (!machine) throw new Problem(404, 'not-found', `There is no machine "${id}" here.`)
  const profile = await reference.newest('profiles', machine.profileId)
  const tools = (await reference.all('tools')).rows.filter(({ machineId }) => machineId === machine.id)
  return doubleOf(seed, { machine, profile, tools })
}

function simulatedExercise(id: string, unit: LengthUnit, seed: number): SimulatedState {
  const exercise = exerciseOf(id)
  if (!exercise) throw new Problem(404, 'not-found', `There is no exercise "${id}".`)
  const simulated = exercise.start(seed, unit)
  if (!simulated) throw new Problem(422, 'on-paper', 'This exercise is done on paper, without a machine.')
  return simulated
}

/** The simulated machines of this server. They live in its memory: a restart switches them off. */
export function simulatedMachines(reference: ReferenceStore, threads: Threads, clock: () => number) {
  const sessions = new Map<string, Session>()

  const noteSeen = (session: Session, seen: readonly { id: string; value: string }[]) => {
    for (const { id, value } of seen) {
      if (session.newest.get(id)?.value === value) continue
      const observation = { id, value, at: clock(), sequence: session.next++ }
      session.newest.set(id, observation)
      session.observations.push(observation)
    }
    if (session.observations.length > BUFFER)
      session.observations.splice(0, session.observations.length - BUFFER)
  }

  /** Lets time pass and does something, in a thread where a program is to be worked out. */
  const work = async (session: Session, actions: readonly SimulatedAction[]): Promise<Session> => {
    const now = clock()
    const seconds = Math.max(0, now - session.advancedTo) / 1000
    session.advancedTo = now
    session.touchedAt = now
    const asked = { simulated: session.simulated, seconds, actions }
    const programs =
      session.simulated.run?.phase === 'running' || actions.some(({ do: does }) => RUNS.has(does))
    try {
      const { simulated, seen } = programs ? await threads.simulate(asked) : simulate(asked)
      session.simulated = simulated
      for (const each of seen) noteSeen(session, each)
      return session
    } catch (error) {
      if (!(error instanceof TooLong)) throw error
      // What was before stands, without a program that would take as long the next time.
      session.simulated = { ...session.simulated, run: null, plan: null, says: 'The program was taken out.' }
      throw new Problem(
        422,
        'too-long',
        `This program takes more than ${threads.programsLimit / 1000} seconds to work out, and was taken out: others work at this server meanwhile. Look for a loop that goes on, or pecks and passes that are too small; Prove on the tablet reads longer ones.`,
      )
    }
  }

  /** One piece of work at a machine after the other. */
  const inItsTurn = (session: Session, actions: readonly SimulatedAction[]) =>
    session.turn(() => work(session, actions))

  const find = async (id: string): Promise<Session | undefined> => {
    const session = sessions.get(id)
    return session && inItsTurn(session, [])
  }

  const theOne = (id: string): Session => {
    const session = sessions.get(id)
    if (!session)
      throw new Problem(
        404,
        'switched-off',
        'This simulated machine is switched off: nobody switched it on, or the server was started again. Switch it on.',
      )
    return session
  }

  const wanted = async (id: string): Promise<Session> => inItsTurn(theOne(id), [])
  const carryOut = async (id: string, actions: readonly SimulatedAction[]): Promise<Session> =>
    inItsTurn(theOne(id), actions)

  const begin = async (id: string, from: Begins): Promise<Session> => {
    const seed = from.seed ?? randomInt(1, SEEDS)
    const simulated =
      'machine' in from
        ? await simulatedMachine(reference, from.machine, seed)
        : simulatedExercise(from.exercise, from.unit, seed)
    const now = clock()
    const session: Session = {
      id,
      instance: randomInt(1, 2 ** 31),
      simulated,
      seed,
      unit: simulated.world.unit,
      exercise: 'exercise' in from ? from.exercise : null,
      startedAt: now,
      advancedTo: now,
      touchedAt: now,
      observations: [],
      newest: new Map(),
      next: 1,
      turn: inTurn(),
    }
    if (sessions.size >= MOST && !sessions.has(id)) {
      const idle = [...sessions.values()].sort((a, b) => a.touchedAt - b.touchedAt)[0]
      if (!idle || now - idle.touchedAt < IDLE_MS)
        throw new Problem(
          503,
          'all-taken',
          `${MOST} simulated machines are on, and each is being worked at. Switch on when one is free: ten minutes after its page was closed.`,
        )
      sessions.delete(idle.id)
    }
    sessions.set(id, session)
    noteSeen(session, observe(simulated))
    return session
  }

  return { begin, find, wanted, carryOut }
}
export type SimulatedMachines = ReturnType<typeof simulatedMachines>

/** A session as the page sees it. */
export const seenOf = ({ id, simulated, seed, startedAt }: Session): SimulatedMachine => ({
  id,
  seed,
  startedAt: new Date(startedAt).toISOString(),
  view: viewOf(simulated),
})

/** The machine that a session doubles, by its row. */
export const machineOf = ({ simulated }: Session): Machine => simulated.world.machine
