import { lengthOf, wordValue } from './block.ts'
import type { Run } from './run.ts'

/** Holes beyond this are not made: a word is wrong. */
const MOST_HOLES = 1_000

/**
 * Where the holes of a pattern lie about where the tool stands, in the plane: on a whole circle of radius I, the first at the angle J, L of them
 * (G70); or on an arc of it, K degrees from one to the next (G71). Angles from the plane's first axis, counter-clockwise. Undefined where a
 * word is missing or makes no sense. Common practice, from memory.
 */
export function holesAround(run: Run, code: 70 | 71): [number, number][] | undefined {
  const radius = lengthOf(run, 'I')
  const [start, step, count] = [wordValue(run, 'J') ?? 0, wordValue(run, 'K'), wordValue(run, 'L')]
  const lacks = [
    radius === undefined ? 'I, the radius' : '',
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
    run.wrong('pattern-words', 'stop', `G${code} with a radius of ${radius} and ${count} holes.`, {
      does: 'The control stops with an alarm.',
    })
    return undefined
  }
  const between = code === 70 ? 360 / holes : (step as number)
  return Array.from({ length: holes }, (_, n) => {
    const angle = ((start + between * n) * Math.PI) / 180
    return [(radius as number) * Math.cos(angle), (radius as number) * Math.sin(angle)]
  })
}
