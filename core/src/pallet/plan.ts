import { z } from 'zod'
import { computed, duration, formOf, number, words, yesNo } from '../cycles/cycle/index.ts'
import type { FieldProblems, LengthUnit } from '../quantity/index.ts'

/** Longer texts are not kept in the log. */
const LONGEST_TEXT = 200_000
const MOST_PALLETS = 12

const programNumber = number({
  least: 1,
  most: 99_999,
  whole: true,
  says: 'A program number from 1 to 99999.',
})

const PALLET = {
  operation: words(40, 'Say what is done on it.'),
  fixture: words(40, 'Name the fixture.'),
  parts: number({ least: 1, most: 500, whole: true, says: 'How many parts are on it: 1 to 500.' }),
  table: programNumber,
  unload: duration(),
  load: duration({ above: 0 }),
  aside: duration(),
  finishes: yesNo,
} as const
const palletForm = formOf(PALLET)

const SHIFT = {
  length: duration({ above: 0, of: 'hours' }),
  hands: number({ least: 1, most: 6, whole: true, says: 'How many people load: 1 to 6.' }),
  /** Seconds of one change; the machine's own where it is left empty. */
  swap: computed(duration({ above: 0 })),
} as const
const shiftForm = formOf(SHIFT)

const text = z.string().max(LONGEST_TEXT, 'That program is too long to be kept with the pallets.')
const program = z.object({ title: z.string().max(80), text })
const main = z.object({ number: z.int().min(1).max(99_999), text: text.min(1) })

/** What runs on each pallet of a machine, as it stands in the log. Times in seconds; pallet n is the n-th. */
export const palletPlan = z.object({
  pallets: z
    .array(
      z.object({
        params: palletForm.params,
        program: program.extend({ text: text.min(1, 'Choose its program.') }),
      }),
    )
    .min(2)
    .max(MOST_PALLETS),
  main: main.nullable().describe('the program that calls each in turn; null where they call each other'),
  shift: shiftForm.params,
})
export type PalletPlan = z.infer<typeof palletPlan>

/** What stands in the form: everything as typed. */
export const palletPlanDraft = z.object({
  pallets: z
    .array(z.object({ draft: palletForm.draft, program }))
    .min(2)
    .max(MOST_PALLETS),
  main: main.nullable(),
  shift: shiftForm.draft,
})
export type PalletPlanDraft = z.infer<typeof palletPlanDraft>

export const newPalletPlan = (count: number): PalletPlanDraft => ({
  pallets: Array.from({ length: count }, (_, index) => ({
    draft: {
      operation: '',
      fixture: '',
      parts: '1',
      table: '',
      unload: '',
      load: '',
      aside: '0',
      finishes: index === count - 1,
    },
    program: { title: '', text: '' },
  })),
  main: null,
  shift: { length: '8 h', hands: '1', swap: '' },
})

export const draftOfPallets = ({ pallets, main: of, shift }: PalletPlan): PalletPlanDraft => ({
  pallets: pallets.map(({ params, program: own }) => ({ draft: palletForm.write(params), program: own })),
  main: of,
  shift: shiftForm.write(shift),
})

/** What a form comes to; problems by 'shift.field' and 'pallets.0.field'. */
export function readPalletPlan(
  draft: PalletPlanDraft,
  unit: LengthUnit,
): { plan: PalletPlan | undefined; problems: FieldProblems } {
  const problems: FieldProblems = {}
  const note = (under: string, found: FieldProblems) => {
    for (const [field, problem] of Object.entries(found)) problems[`${under}.${field}`] = problem
  }
  const shift = shiftForm.read(draft.shift, unit)
  if (!shift.ok) note('shift', shift.problems)
  const pallets = draft.pallets.map(({ draft: typed, program: own }, index) => {
    const read = palletForm.read(typed, unit)
    if (!read.ok) note(`pallets.${index}`, read.problems)
    if (own.text.trim() === '')
      problems[`pallets.${index}.program`] = { says: 'Choose its program.', empty: true }
    else if (own.text.length > LONGEST_TEXT)
      problems[`pallets.${index}.program`] = {
        says: 'Longer than 200,000 characters: it can’t be kept with the pallets.',
        empty: false,
      }
    return read.ok ? { params: read.value, program: own } : undefined
  })
  if (!draft.pallets.some(({ draft: { finishes } }) => finishes))
    problems['pallets.0.finishes'] = {
      says: 'Say off which pallet the parts come finished.',
      empty: false,
    }
  const whole = pallets.filter((pallet) => pallet !== undefined)
  const plan =
    shift.ok && Object.keys(problems).length === 0
      ? { pallets: whole, main: draft.main, shift: shift.value }
      : undefined
  return { plan, problems }
}
