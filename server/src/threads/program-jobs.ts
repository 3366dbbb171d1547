import type { LengthUnit } from '@dogleg/core/quantity'
import {
  act,
  advance,
  exerciseOf,
  goodHandAt,
  type SimulatedAction,
  type SimulatedState,
} from '@dogleg/core/simulated'
import { observe } from '../simulated/observations.ts'

// What runs programs: in threads of its own, so that no program that anybody writes holds up the server. Each job is given all that
// it needs, and may be ended at any moment.

export interface SimulateAsked {
  simulated: SimulatedState
  /** Seconds of the clock that a running program goes on for first. */
  seconds: number
  actions: readonly SimulatedAction[]
}

export interface Simulated {
  simulated: SimulatedState
  /** What is seen of the machine after the time has passed, and after each action. */
  seen: { id: string; value: string }[][]
}

/** Lets time pass for a machine, and works at it. */
export function simulate({ simulated, seconds, actions }: SimulateAsked): Simulated {
  let now = advance(simulated, seconds)
  const seen = [observe(now)]
  for (const action of actions) {
    now = act(now, action)
    seen.push(observe(now))
  }
  return { simulated: now, seen }
}

export interface JudgeAsked {
  exercise: string
  simulated: SimulatedState | null
  seed: number
  unit: LengthUnit
  answers: Record<string, string>
}

/** Judges an answer to an exercise, and does the exercise as a good hand would. */
export function judge({ exercise: id, simulated, seed, unit, answers }: JudgeAsked) {
  const exercise = exerciseOf(id)
  if (!exercise) throw new Error(`There is no exercise ${id}.`)
  const { good, figures, remarks } = exercise.judge(simulated, seed, unit, answers)
  const hand = goodHandAt(exercise, seed, unit)
  return {
    good,
    figures,
    remarks,
    goodHand: { errors: hand.judged.figures.map(({ error }) => error), seconds: hand.seconds },
  }
}
export type Judged = ReturnType<typeof judge>
