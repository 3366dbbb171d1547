import { z } from 'zod'
import {
  type DraftRead,
  draftRead,
  type FieldProblems,
  type LengthUnit,
  lengthFields,
  typedLength,
} from '../quantity/index.ts'
import { bars, operation, seated } from './grip.ts'
import { readDiameters, readPairs } from './measured.ts'
import { lengthMeasured, measuredPairs } from './ratio-fit.ts'
import { stopKind } from './stop.ts'

/** What a choice of collet and stop says of the part: the bars, the operation, and what length it allows. */
export const gripChoice = z.object({
  stop: stopKind,
  operation,
  bars,
  seated: seated
    .nullable()
    .default(null)
    .describe('jaws with a stop in the draw tube; null where nobody said'),
  allowed: typedLength.refine(({ value }) => value > 0, {
    error: 'Type a length above zero: the stock to face, or the length tolerance.',
  }),
})
export type Gripped = z.infer<typeof gripChoice>

/** The part alone: collets and stops are ranked for it before one of them is chosen. */
const grippedPart = gripChoice.pick({ operation: true, bars: true, allowed: true })
type GrippedPart = z.infer<typeof grippedPart>

/** What stands in the form of collet and stop: everything as typed, nothing promised; empty where nobody has chosen yet. */
export const gripDraft = z.object({
  collet: z.string(),
  stop: z.enum(['', ...stopKind.options]),
  operation,
  known: z.enum(['tolerance', 'measured']),
  diameter: z.string(),
  spread: z.string(),
  diameters: z.string(),
  seated: z.enum(['', ...seated.options]).default(''),
  allowed: z.string(),
})
export type GripDraft = z.infer<typeof gripDraft>

/** Turns the form into bars and length, or says what each field of them still needs. Lengths are read in `unit`. */
export function readGripPart(draft: GripDraft, unit: LengthUnit): DraftRead<GrippedPart> {
  const problems: FieldProblems = {}
  const length = lengthFields(unit, problems)
  const measured = () => {
    const list = readDiameters(draft.diameters, unit)
    if (list.ok) return { known: 'measured' as const, diameters: list.rows }
    problems['bars.diameters'] = { says: list.says, empty: list.empty }
    return undefined
  }
  return draftRead(
    grippedPart.safeParse({
      operation: draft.operation,
      bars:
        draft.known === 'measured'
          ? measured()
          : {
              known: 'tolerance',
              diameter: length('bars.diameter', draft.diameter),
              spread: length('bars.spread', draft.spread),
            },
      allowed: length('allowed', draft.allowed),
    }),
    problems,
  )
}

/** Turns the form into what is recorded, or says what each field still needs. Lengths are read in `unit`. */
export function readGripDraft(draft: GripDraft, unit: LengthUnit): DraftRead<Gripped> {
  const part = readGripPart(draft, unit)
  const { stop } = draft
  const problems: FieldProblems = { ...(part.ok ? {} : part.problems) }
  if (draft.collet === '') problems.collet = { says: 'Choose the collet or the jaws.', empty: true }
  if (stop === '') problems.stop = { says: 'Choose the stop.', empty: true }
  return part.ok && stop !== '' && draft.collet !== ''
    ? { ok: true, value: { ...part.value, stop, seated: draft.seated || null } }
    : { ok: false, problems }
}

/** Lengths that were measured on a collet with a stop. */
export const measuredLengths = z.object({ stop: stopKind, what: lengthMeasured, pairs: measuredPairs })
export type MeasuredLengths = z.infer<typeof measuredLengths>

/** What stands in the form of measured lengths. */
export const lengthsDraft = z.object({
  collet: z.string(),
  stop: stopKind,
  what: lengthMeasured,
  pairs: z.string(),
})
export type LengthsDraft = z.infer<typeof lengthsDraft>

/** Turns the form into measured lengths, or says what is wrong with it. Lengths are read in `unit`. */
export function readLengthsDraft(draft: LengthsDraft, unit: LengthUnit): DraftRead<MeasuredLengths> {
  const problems: FieldProblems = {}
  const list = readPairs(draft.pairs, unit)
  if (!list.ok) problems.pairs = { says: list.says, empty: list.empty }
  const { stop, what } = draft
  return draftRead(measuredLengths.safeParse({ stop, what, pairs: list.ok ? list.rows : [] }), problems)
}
