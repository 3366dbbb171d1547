import { lengthOf, wordValue } from './block.ts'
import type { Run } from './run.ts'

/** Holes beyond this are not made: a word is wrong. */
const MOST_HOLES = 1_000

/**
 * Where the holes of a pattern lie about where the tool stands, in the plane: on a whole circle of radius I, the first at the angle J, L of them
 * (G70); or on an arc of it, K degrees from one to the next (G71); or on a line in the direction J, I from one to the next, the first where the
 * tool stands (G72). Angles from the plane's first axis, counter-clockwise. Undefined where a word is missing or makes no sense. Common
 * practice, from memory.
 */
export function holesAround(run: Run, code: 70 | 71 | 72): [number, number][] | undefined {
  const radius = lengthOf(run, 'I')
  const [start, step, count] = [wordValue(run, 'J'), wordValue(run, 'K'), wordValue(run, 'L')]
  const lacks = [
    radius === undefined ? (code === 72 ? 'I, the distance' : 'I, the radius') : '',
    code === 72 && start === undefined ? 'J, the direction' : '',
    code === 71 && step === undefined ? 'K, the angle between' : '',
    count === undefined ? 'L, how many' : '',
  ].filter(Boolean)
  if (lacks.length > 0) {
    run.wrong('pattern-words', 'stop', `G${code} without ${lacks.join(' and ')}.`, {
      does: 'The control stops with an alarm.',
    })
    return undefined
  }
  const holes = Math.floor(count as number)
  if (!((radius as number) > 0) || holes < 1 || holes > MOST_HOLES) {
    run.wrong('pattern-words', 'stop', `G${code} with I${radius} and ${count} holes.`, {
      does: 'The control stops with an alarm.',
    })
    return undefined
  }
  const first = start ?? 0
  if (code === 72) return Array.from({ length: holes }, (_, n) => polar((radius as number) * n, first))
  const between = code === 70 ? 360 / holes : (step as number)
  return Array.from({ length: holes }, (_, n) => polar(radius as number, first + between * n))
}

const polar = (radius: number, degrees: number): [number, number] => [
  radius * Math.cos((degrees * Math.PI) / 180),
  radius * Math.sin((degrees * Math.PI) / 180),
]
