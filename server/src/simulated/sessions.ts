import { randomInt } from 'node:crypto'
import {
  act,
  advance,
  type Bench,
  type BenchAction,
  exerciseOf,
  latheWorld,
  millWorld,
  switchOn,
  viewOf,
} from '@dogleg/core/bench'
import type { Machine } from '@dogleg/core/machine'
import type { LengthUnit } from '@dogleg/core/quantity'
import { Problem } from '../problem.ts'
import type { ReferenceStore } from '../reference/store.ts'
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
  bench: Bench
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
}

/** What a session begins with. */
export type Begins =
  | { machine: string; seed: number | undefined }
  | { exercise: string; unit: LengthUnit; seed: number | undefined }

/** A number that a piece can be asked for by again. */
const SEEDS = 1_000_000

async function benchOfMachine(reference: ReferenceStore, id: string, seed: number): Promise<Bench> {
  const machine = await reference.newest('machines', id)
  if (!machine) throw new Problem(404, 'not-found', `There is no machine "${id}" here.`)
  const profile = await reference.newest('profiles', machine.profileId)
  const tools = (await reference.all('tools')).rows.filter(({ machineId }) => machineId === machine.id)
  const options = { machine, tools, ...(profile ? { profile } : {}) }
  return switchOn(machine.kind === 'mill' ? millWorld(seed, options) : latheWorld(seed, options))
}

function benchOfExercise(id: string, unit: LengthUnit, seed: number): Bench {
  const exercise = exerciseOf(id)
  if (!exercise) throw new Problem(404, 'not-found', `There is no exercise "${id}".`)
  const bench = exercise.start(seed, unit)
  if (!bench) throw new Problem(422, 'on-paper', 'This exercise is done on paper, without a machine.')
  return bench
}

/** The simulated machines of this server. They live in its memory: a restart switches them off. */
export function simulatedMachines(reference: ReferenceStore, clock: () => number) {
  const sessions = new Map<string, Session>()

  const note = (session: Session) => {
    for (const { id, value } of observe(session.bench)) {
      if (session.newest.get(id)?.value === value) continue
      const observation = { id, value, at: clock(), sequence: session.next++ }
      session.newest.set(id, observation)
      session.observations.push(observation)
    }
    if (session.observations.length > BUFFER)
      session.observations.splice(0, session.observations.length - BUFFER)
  }

  /** Lets time pass for a program that runs. */
  const upToNow = (session: Session): Session => {
    const now = clock()
    session.bench = advance(session.bench, Math.max(0, now - session.advancedTo) / 1000)
    session.advancedTo = now
    session.touchedAt = now
    note(session)
    return session
  }

  const find = (id: string): Session | undefined => {
    const session = sessions.get(id)
    return session && upToNow(session)
  }

  const wanted = (id: string): Session => {
    const session = find(id)
    if (!session)
      throw new Problem(
        404,
        'switched-off',
        'This simulated machine is switched off: nobody switched it on, or the server was started again. Switch it on.',
      )
    return session
  }

  const begin = async (id: string, from: Begins): Promise<Session> => {
    const seed = from.seed ?? randomInt(1, SEEDS)
    const bench =
      'machine' in from
        ? await benchOfMachine(reference, from.machine, seed)
        : benchOfExercise(from.exercise, from.unit, seed)
    const now = clock()
    const session: Session = {
      id,
      instance: randomInt(1, 2 ** 31),
      bench,
      seed,
      unit: bench.world.unit,
      exercise: 'exercise' in from ? from.exercise : null,
      startedAt: now,
      advancedTo: now,
      touchedAt: now,
      observations: [],
      newest: new Map(),
      next: 1,
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
    note(session)
    return session
  }

  const carryOut = (session: Session, actions: readonly BenchAction[]) => {
    for (const action of actions) {
      session.bench = act(session.bench, action)
      note(session)
    }
    return session
  }

  return { begin, find, wanted, carryOut }
}
export type SimulatedMachines = ReturnType<typeof simulatedMachines>

/** A session as the page sees it. */
export const seenOf = ({ id, bench, seed, startedAt }: Session) => ({
  id,
  seed,
  startedAt: new Date(startedAt).toISOString(),
  view: viewOf(bench),
})

/** The machine that a session doubles, by its row. */
export const machineOf = ({ bench }: Session): Machine => bench.world.machine
