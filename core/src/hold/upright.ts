import { z } from 'zod'
import {
  type Answer,
  combineDoubt,
  type Finding,
  finding,
  resolutionDoubt,
  type WorkingLine,
  worstFirst,
} from '../fact/index.ts'
import {
  convertLength,
  type DraftRead,
  draftRead,
  type FieldProblems,
  fixedDigits,
  formatLength,
  formatWithUnit,
  type LengthUnit,
  lengthFields,
  readDegrees,
  typedLength,
} from '../quantity/index.ts'
import { DIAL_REPEATS, plusMeans } from './sweep.ts'

const above = (says: string) => typedLength.refine(({ value }) => value > 0, { error: says })

/**
 * Two readings on a fixed jaw that was squared, with the dial that swept it: run up its face, zeroed at the bottom; and on
 * its top, zeroed with the part laid in, read when the part is clamped. Readings are as the dial shows them.
 */
export const jawUpright = z.object({
  height: above('How far the stylus was run up must be more than zero.'),
  up: typedLength.describe('reading at the top of the face, zeroed at the bottom'),
  lift: typedLength.describe('reading on top of the fixed jaw when the part is clamped, zeroed before'),
  plusMeans,
  stylusAngle: z
    .number()
    .min(0, 'The angle of the stylus is between 0 and 80 degrees.')
    .max(80, 'The angle of the stylus is between 0 and 80 degrees.')
    .describe('degrees between the stylus and what it touches'),
  dialStep: above('The step of the dial must be more than zero.'),
  partHeight: above('The height of the part must be more than zero.'),
  allowed: above('What is allowed must be more than zero.').describe(
    'out of square over the height, and lift',
  ),
})
export type JawUpright = z.infer<typeof jawUpright>

/** What stands in the form: everything as typed. */
export const uprightDraft = z.object({
  height: z.string(),
  up: z.string(),
  lift: z.string(),
  plusMeans,
  stylusAngle: z.string(),
  dialStep: z.string(),
  partHeight: z.string(),
  allowed: z.string(),
})
export type UprightDraft = z.infer<typeof uprightDraft>

/** Turns the form into the two readings, or says what each field still needs. Lengths are read in `unit`. */
export function readUprightDraft(draft: UprightDraft, unit: LengthUnit): DraftRead<JawUpright> {
  const problems: FieldProblems = {}
  const length = lengthFields(unit, problems)
  const angle = readDegrees(draft.stylusAngle, 'Type the angle; 0 when the stylus lies flat along the face.')
  if (!angle.ok) problems.stylusAngle = { says: angle.says, empty: angle.empty }
  return draftRead(
    jawUpright.safeParse({
      height: length('height', draft.height),
      up: length('up', draft.up),
      lift: length('lift', draft.lift),
      plusMeans: draft.plusMeans,
      stylusAngle: angle.ok ? angle.value : 0,
      dialStep: length('dialStep', draft.dialStep),
      partHeight: length('partHeight', draft.partHeight),
      allowed: length('allowed', draft.allowed),
    }),
    problems,
  )
}

export interface Uprightness {
  /** How far the part is out of square over its height by the jaw, without sign; in the setup's unit. */
  lean: Answer<number>
  /** Where the top of the jaw stands: over the part (nearer to the operator) or back from it; null where the dial shows nothing. */
  leans: 'over' | 'back' | null
  /** How far the fixed jaw rises as the part is clamped, plus upwards; in the setup's unit. */
  lift: Answer<number>
  findings: Finding[]
}

/**
 * What two readings say of a fixed jaw. lean = |reading| x cos(angle) x part height / height run up; lift = reading x
 * cos(angle). Each is the difference of two positions of the dial, so its doubt is that of one, times the root of two.
 * Derived; small angles.
 */
export function uprightness(from: JawUpright, unit: LengthUnit): Uprightness {
  const plain = (of: { value: number; unit: LengthUnit }) => convertLength(of.value, of.unit, unit)
  const [height, up, lift, step] = [from.height, from.up, from.lift, from.dialStep].map(plain) as [
    number,
    number,
    number,
    number,
  ]
  const [partHeight, allowed] = [plain(from.partHeight), plain(from.allowed)]
  const towardsDial = from.plusMeans === 'towards' ? 1 : -1
  const cosine = Math.cos((from.stylusAngle * Math.PI) / 180)
  const length = (value: number) => formatLength(value, unit)
  const byAngle = cosine === 1 ? '' : ` x ${fixedDigits(cosine, 4)}`
  const answer = (value: number, share: number, working: WorkingLine): Answer<number> => ({
    value,
    unit,
    working: [working],
    doubt: combineDoubt([
      {
        from: `dial reads in steps of ${formatWithUnit(step, unit)}`,
        value: resolutionDoubt(step) * Math.SQRT2 * share,
      },
      { from: 'indicator repeats to', value: DIAL_REPEATS[unit] * Math.SQRT2 * share },
    ]),
  })
  const leanBy = (Math.abs(up) * cosine * partHeight) / height
  const lean = answer(leanBy, (cosine * partHeight) / height, {
    finds: 'leans',
    arithmetic: `|${length(up)}| / ${length(height)} x ${length(partHeight)}${byAngle}`,
    means: `reading / height run up x part height${cosine === 1 ? '' : ' x cosine of the stylus angle'}`,
    gives: length(leanBy),
  })
  const rises = lift * cosine * towardsDial
  const lifted = answer(rises, cosine, {
    finds: 'lifts',
    arithmetic: `${length(lift * towardsDial)}${byAngle}`,
    means: `reading, plus upwards${cosine === 1 ? '' : ', x cosine of the stylus angle'}`,
    gives: formatLength(rises, unit, { plus: true }),
  })
  const leans = up === 0 ? null : up * towardsDial > 0 ? 'over' : 'back'
  return {
    lean,
    leans,
    lift: lifted,
    findings: worstFirst([...onLean(lean, leans, allowed, unit), ...onLift(lifted, allowed, unit)]),
  }
}

/** Said where the dial cannot tell what the part allows. */
const cannotTell = (what: string, doubt: number, allowed: number, unit: LengthUnit) =>
  finding(
    'look',
    `cannot-tell-${what}`,
    what === 'lean' ? 'up' : 'lift',
    `This reading is good for ${formatWithUnit(doubt, unit)}; the part allows ${formatWithUnit(allowed, unit)}.`,
    'The dial was set once and read once.',
    what === 'lean' ? 'Run up more of the jaw, or use a finer dial.' : 'Use a finer dial.',
  )

function onLean(lean: Answer<number>, leans: Uprightness['leans'], allowed: number, unit: LengthUnit) {
  if (lean.value > allowed)
    return [
      finding(
        'look',
        'jaw-leans',
        'up',
        `The fixed jaw leans ${leans === 'over' ? 'over the part' : 'back from the part'} by ${formatWithUnit(lean.value, unit)} over its height; it allows ${formatWithUnit(allowed, unit)}.`,
        'What is milled on top and down the sides is out of square to the face against the jaw by as much.',
        'Take the jaw off, clean and stone its seat and the vise’s, tighten its screws, and read again.',
      ),
    ]
  return lean.doubt.value > allowed ? [cannotTell('lean', lean.doubt.value, allowed, unit)] : []
}

function onLift(lift: Answer<number>, allowed: number, unit: LengthUnit) {
  if (Math.abs(lift.value) > allowed)
    return [
      finding(
        'look',
        'jaw-lifts',
        'lift',
        `The fixed jaw ${lift.value > 0 ? 'rises' : 'goes down'} by ${formatWithUnit(Math.abs(lift.value), unit)} as the part is clamped; it allows ${formatWithUnit(allowed, unit)}.`,
        'The part goes with it: Z and the thickness are off by about as much, and differently with each pull of the handle.',
        'Tighten the screws of the jaw, look for chips under it, clamp with less, and read again.',
      ),
    ]
  return lift.doubt.value > allowed ? [cannotTell('lift', lift.doubt.value, allowed, unit)] : []
}
