import { z } from 'zod'
import type { Machine } from '../machine/index.ts'
import {
  convertLength,
  type DraftRead,
  draftRead,
  type FieldProblems,
  type LengthUnit,
  lengthFields,
  typedLength,
} from '../quantity/index.ts'

/** Where a vise stands on the table and what is asked of it, as typed. */
export const visePlace = z.object({
  jawAt: typedLength.describe("the fixed jaw's gripping face along the table, from its front edge"),
  wanted: typedLength.refine(({ value }) => value >= 0, {
    error: 'A gap that is wanted cannot be negative. Type the length that must stay free at both ends.',
  }),
  lowestZ: typedLength.describe('the lowest machine position of Z that the job goes to'),
})
export type Placed = z.infer<typeof visePlace>

/** What stands in the form of a clearance: everything as typed, nothing promised. */
export const placedDraft = z.object({
  vise: z.string(),
  jawAt: z.string(),
  wanted: z.string(),
  lowestZ: z.string(),
})
export type PlacedDraft = z.infer<typeof placedDraft>

/** Turns the form into a place, or says what each field still needs. Lengths are read in `unit`. */
export function readPlacedDraft(draft: PlacedDraft, unit: LengthUnit): DraftRead<Placed> {
  const problems: FieldProblems = {}
  const length = lengthFields(unit, problems)
  return draftRead(
    visePlace.safeParse({
      jawAt: length('jawAt', draft.jawAt),
      wanted: length('wanted', draft.wanted),
      lowestZ: length('lowestZ', draft.lowestZ),
    }),
    problems,
  )
}

/** What is asked of a place that is not known yet; undefined where that is not understood either. */
export function placeWanted(draft: PlacedDraft, unit: LengthUnit): Placed | undefined {
  const read = readPlacedDraft({ ...draft, jawAt: '0' }, unit)
  return read.ok ? read.value : undefined
}

/** Where a vise is drawn before its place is typed: its jaw over the middle of the table, in the unit asked for. */
export const middleOfTable = ({ around, unit: own }: Machine, unit: LengthUnit) =>
  convertLength(around?.tableDepth ?? 0, own, unit) / 2
