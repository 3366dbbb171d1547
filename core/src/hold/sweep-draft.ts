import { z } from 'zod'
import {
  type DraftRead,
  draftRead,
  type FieldProblems,
  formatLength,
  type LengthUnit,
  lengthFields,
  readDegrees,
} from '../quantity/index.ts'
import { bolts, plusMeans, type Sweep, sweep } from './sweep.ts'

/** What stands in the form of a sweep: everything as typed, nothing promised. */
export const sweepDraft = z.object({
  bolts,
  plusMeans,
  pivot: z.string(),
  points: z
    .array(z.object({ at: z.string(), reading: z.string() }))
    .min(2)
    .max(20),
  stylusAngle: z.string(),
  dialStep: z.string(),
  partLength: z.string(),
  allowed: z.string(),
})
export type SweepDraft = z.infer<typeof sweepDraft>

/** The form with a part as long as the jaw where no length was typed: what most of the jaw grips is as good a guess as any. */
export const withPartLength = (draft: SweepDraft, jawLength: number, unit: LengthUnit): SweepDraft =>
  draft.partLength.trim() === '' ? { ...draft, partLength: formatLength(jawLength, unit) } : draft

/** Turns the form into a sweep, or says what each field still needs. Lengths are read in `unit`. */
export function readSweepDraft(draft: SweepDraft, unit: LengthUnit): DraftRead<Sweep> {
  const problems: FieldProblems = {}
  const length = lengthFields(unit, problems)
  const angle = readDegrees(draft.stylusAngle, 'Type the angle; 0 when the stylus lies flat along the jaw.')
  if (!angle.ok) problems.stylusAngle = { says: angle.says, empty: angle.empty }
  return draftRead(
    sweep.safeParse({
      bolts: draft.bolts,
      plusMeans: draft.plusMeans,
      pivot: length('pivot', draft.pivot),
      points: draft.points.map(({ at, reading }, index) => ({
        at: length(`points.${index}.at`, at),
        reading: length(`points.${index}.reading`, reading),
      })),
      stylusAngle: angle.ok ? angle.value : 0,
      dialStep: length('dialStep', draft.dialStep),
      partLength: length('partLength', draft.partLength),
      allowed: length('allowed', draft.allowed),
    }),
    problems,
  )
}
