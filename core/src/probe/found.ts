import { z } from 'zod'
import { type Reading, reading } from '../pickup/index.ts'
import { type DraftRead, type FieldProblems, type LengthUnit, lengthFields } from '../quantity/index.ts'
import { isWhole, type ProbeTask } from './task.ts'

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
  const own = (value: number) => ({ text: String(value), value, unit })
  const typed = Object.fromEntries(foundFields(task).map((field) => [field, length(field, draft[field])]))
  const readings: Reading[] = []
  for (const axis of ['X', 'Y', 'Z'] as const) {
    const size = axis === 'Z' ? undefined : typed[SIZES[axis]]
    const asked = axis === 'X' ? task.size : (task.sizeY ?? 0)
    const at = { X: task.x, Y: task.y, Z: task.top }[axis]
    const read = reading.safeParse({
      method: 'probe-set',
      axis,
      shown: typed[axis],
      drawingPosition: own(at),
      ...(size ? { size, width: own(asked) } : {}),
    })
    if (read.success) readings.push(read.data)
    else if (typed[axis])
      for (const { message } of read.error.issues)
        problems[axis === 'Z' ? axis : SIZES[axis]] ??= { says: message, empty: false }
  }
  return Object.keys(problems).length > 0 ? { ok: false, problems } : { ok: true, value: readings }
}
