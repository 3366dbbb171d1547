import { z } from 'zod'
import { type Finding, finding } from '../fact/index.ts'
import { LINEAR_AXES, type LinearAxis } from '../machine/index.ts'
import { type Reading, type ReadingOf, reading } from '../pickup/index.ts'
import {
  computedLength,
  type DraftRead,
  type FieldProblems,
  formatLength,
  formatWithUnit,
  type LengthUnit,
  lengthFields,
} from '../quantity/index.ts'
import { isWhole, type ProbeTask } from './task.ts'
import { roughZero } from './whole.ts'

/** What a program for a whole zero found, as it is read from the offset page and the variables: everything as typed. */
export const foundDraft = z.object({
  X: z.string(),
  Y: z.string(),
  Z: z.string(),
  length: z.string(),
  width: z.string(),
})
export type FoundDraft = z.infer<typeof foundDraft>
export type FoundField = keyof FoundDraft

export const emptyFound: FoundDraft = { X: '', Y: '', Z: '', length: '', width: '' }

/** The fields that a feature leaves something for. */
export const foundFields = (task: Pick<ProbeTask, 'feature'>): readonly FoundField[] =>
  !isWhole(task) ? [] : task.feature === 'block' ? ['X', 'Y', 'Z', 'length', 'width'] : ['X', 'Y', 'Z']

const SIZES = { X: 'length', Y: 'width' } as const

/** Turns what was found into a reading an axis, or says what each field still needs. Lengths are read in `unit`. */
export function readFound(draft: FoundDraft, task: ProbeTask, unit: LengthUnit): DraftRead<Reading[]> {
  const problems: FieldProblems = {}
  const length = lengthFields(unit, problems)
  const typed = Object.fromEntries(foundFields(task).map((field) => [field, length(field, draft[field])]))
  const readings: Reading[] = []
  for (const axis of ['X', 'Y', 'Z'] as const) {
    const size = axis === 'Z' ? undefined : typed[SIZES[axis]]
    const at = { X: task.x, Y: task.y, Z: task.top }[axis]
    const read = reading.safeParse({
      method: 'probe-set',
      axis,
      shown: typed[axis],
      drawingPosition: computedLength(at, unit),
      ...(size ? { size } : {}),
    })
    if (read.success) readings.push(read.data)
    else if (typed[axis])
      for (const { message } of read.error.issues)
        problems[axis === 'Z' ? axis : SIZES[axis]] ??= { says: message, empty: false }
  }
  return Object.keys(problems).length > 0 ? { ok: false, problems } : { ok: true, value: readings }
}

interface FoundBefore {
  unit: LengthUnit
  offset: string
  /** Last digit of the display, in the unit. */
  leastStep: number
  /** What stood in the offset before, as far as it is known, and whether it still held. */
  last: Partial<Record<LinearAxis, { value: number; fresh: boolean }>>
}

const isSet = (each: Reading): each is ReadingOf<'probe-set'> => each.method === 'probe-set'

/**
 * Whether what is read can have come from the program in hand: it searches no further than a face may lie off, so that no axis can
 * have gone further from where it began; and a result that is what stood before, on every axis, shows that it did not run where the
 * part was moved since. On a part that nothing happened to, a probe that repeats to a digit of the display finds the same often enough
 * (common practice). `found` in the unit of `before`.
 */
export function judgeFound(found: readonly Reading[], task: ProbeTask, before: FoundBefore): Finding[] {
  const { unit, offset, leastStep, last } = before
  const shown = new Map(found.filter(isSet).map(({ axis, shown: { value } }) => [axis, value]))
  const { start, within = 0 } = task
  const rough = start && roughZero(task, start)
  const same = LINEAR_AXES.filter((axis) => {
    const [value, was] = [shown.get(axis), last[axis]?.value]
    return value !== undefined && was !== undefined && Math.abs(value - was) < leastStep / 100
  })
  if (same.length === LINEAR_AXES.length) {
    const held = same.every((axis) => last[axis]?.fresh)
    return [
      finding(
        held ? 'note' : 'look',
        'old-program-ran',
        'X',
        `All three axes of ${offset} are what stood there before, to the last digit.`,
        held
          ? 'A probe can find the same again on a part that did not move. On one that did, the program that ran was the old one, or none.'
          : 'What stood there is stale: the program that ran was most likely the old one, or none.',
        'See that this program is selected at the control, run it, and read the offset page again.',
      ),
    ]
  }
  const far = LINEAR_AXES.filter((axis) => {
    const value = shown.get(axis)
    return rough && value !== undefined && Math.abs(value - rough[axis]) > within + 2 * leastStep
  })
  return far.map((axis) =>
    finding(
      'look',
      'not-from-this-program',
      axis,
      `${axis} of ${offset} shows ${formatLength(shown.get(axis) ?? 0, unit)}; this program began at ${formatLength(rough?.[axis] ?? 0, unit)} and goes no further than ${formatWithUnit(within, unit)} from there.`,
      'What ran was another program, or the probe was put elsewhere since.',
      'Look which program is selected at the control. If the probe was put elsewhere, take its position again, and the program with it.',
    ),
  )
}
