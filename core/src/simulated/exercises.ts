import type { LengthUnit } from '../quantity/index.ts'
import type { Answers, Exercise, Judged } from './exercise.ts'
import { colletAndStop } from './grip-exercise.ts'
import { grooveStart } from './groove-exercise.ts'
import { keyInPallets } from './pallet-exercise.ts'
import { PICKUP_EXERCISES } from './pickup-exercises.ts'
import { spotTheClamp, wrongLength } from './program-exercises.ts'
import { squareTheVise, touchOff } from './setting-exercises.ts'
import type { SimulatedState } from './state.ts'

/** Every exercise, in the order in which a newcomer takes them. */
export const EXERCISES: readonly Exercise[] = [
  ...PICKUP_EXERCISES,
  squareTheVise,
  wrongLength,
  spotTheClamp,
  touchOff,
  colletAndStop,
  grooveStart,
  keyInPallets,
]

export const exerciseOf = (id: string) => EXERCISES.find((exercise) => exercise.id === id)

/** What a good hand comes to with the same machine and the same seed: its answer judged alike, and the time of its moves. */
export function goodHandAt(
  exercise: Exercise,
  seed: number,
  unit: LengthUnit,
): { judged: Judged; seconds: number; answers: Answers; simulated: SimulatedState | null } {
  const { answers, simulated } = exercise.byGoodHand(exercise.start(seed, unit), seed, unit)
  return {
    judged: exercise.judge(simulated, seed, unit, answers),
    seconds: simulated?.worked ?? 0,
    answers,
    simulated,
  }
}
