import { formatWithUnit } from '../quantity/index.ts'
import type { PracticeResult } from './exercise.ts'

/** How far off each value of a result was, in words: a length without its sign, or right and wrong. */
export const errorsInWords = ({ figures }: Pick<PracticeResult, 'figures'>): string =>
  figures
    .map(({ name, error, unit, good, found }) =>
      error !== null && unit
        ? `${name} off by ${formatWithUnit(Math.abs(error), unit)}`
        : good
          ? `${name} right`
          : `${name}: ${found}, not right`,
    )
    .join('; ')

/** What a good hand was off by, value by value; null where a value is right or wrong only. */
export const goodHandErrors = ({ figures, goodHand }: Pick<PracticeResult, 'figures' | 'goodHand'>) =>
  figures.map(({ unit }, index) => {
    const error = goodHand.errors[index] ?? null
    return error === null || unit === null ? null : { error: Math.abs(error), unit }
  })

/** The results of a person, exercise by exercise: the last one, and how many there are. */
export function byExercise(results: readonly PracticeResult[], by: string) {
  const own = results.filter((result) => result.by === by)
  const found = new Map<string, { last: PracticeResult; times: number; good: number }>()
  for (const result of [...own].sort((a, b) => (a.at < b.at ? 1 : -1))) {
    const known = found.get(result.exercise)
    const good = result.good ? 1 : 0
    if (known) {
      known.times++
      known.good += good
    } else found.set(result.exercise, { last: result, times: 1, good })
  }
  return found
}

/** Everybody who has a result, in the order of the alphabet. */
export const peopleOf = (results: readonly PracticeResult[]) =>
  [...new Set(results.map(({ by }) => by))].sort((a, b) => a.localeCompare(b))
