import { z } from 'zod'
import { computed, formOf, length, number, oneOf, words, yesNo } from '../cycles/cycle/index.ts'
import type { FieldProblems, LengthUnit } from '../quantity/index.ts'
import { type Characteristic, characteristicsOf, type Feature, keyOf } from './characteristic.ts'
import { draftOfFeature, featureDraft, featureParams, isProbed, readFeature } from './feature.ts'

const HEAD = {
  title: words(40, 'Give the program a name.'),
  number: number({ least: 1, most: 99999, whole: true, says: 'An O number from 1 to 99999.' }),
  clearance: computed(length({ above: 0, says: 'The clearance must be more than zero.' })),
  feed: computed(length({ above: 0, says: 'A feed must be more than zero.' })),
  ends: oneOf(['program', 'subprogram']),
  prints: yesNo,
} as const
const head = formOf(HEAD)

/** Features in one plan. */
export const MOST_FEATURES = 24
const id = z.string().min(1).max(40)

/** What is gauged, in one program: what stands in the log. */
export const gaugePlan = z.object({
  head: head.params,
  features: z.array(z.object({ id, params: featureParams })).max(MOST_FEATURES),
})
export type GaugePlan = z.infer<typeof gaugePlan>

/** What stands in the form: everything as typed, and nothing that was typed is too much to be kept. */
export const gaugePlanDraft = z.object({
  head: head.draft,
  features: z.array(z.object({ id, draft: featureDraft })),
})
export type GaugePlanDraft = z.infer<typeof gaugePlanDraft>

export const newPlan = (title: string, number: number): GaugePlanDraft => ({
  head: {
    title: title.slice(0, 40),
    number: String(number),
    clearance: '',
    feed: '',
    ends: 'program',
    prints: true,
  },
  features: [],
})

export const draftOfPlan = ({ head: of, features }: GaugePlan): GaugePlanDraft => ({
  head: head.write(of),
  features: features.map(({ id, params }) => ({ id, draft: draftOfFeature(params) })),
})

export interface PlanRead {
  /** What is understood of it: whole features only. */
  plan: GaugePlan | undefined
  head: FieldProblems
  /** What each feature still needs, by its id. */
  features: Record<string, FieldProblems>
  /** All of it is understood. */
  complete: boolean
}

/** Two features of one name, and distances between what is not there: said at the field. */
function together(features: readonly Feature[], unit: LengthUnit): Record<string, FieldProblems> {
  const problems: Record<string, FieldProblems> = {}
  const names = new Set<string>()
  for (const feature of features) {
    const { id, params } = feature
    const keys = characteristicsOf(feature, unit).map(({ key }) => key)
    const taken = keys.find((key) => names.has(key))
    if (keyOf(params.name) === '') problems[id] = { name: { says: 'Use letters and digits.', empty: false } }
    else if (taken !== undefined)
      problems[id] = {
        name: { says: `Another value is called ${taken}. Give each its own name.`, empty: false },
      }
    for (const key of keys) names.add(key)
    if (params.what !== 'distance') continue
    for (const end of ['from', 'to'] as const) {
      const of = features.find((each) => each.id === params[end])
      if (!of || !isProbed(of.params.what) || of.params.what === 'edge')
        problems[id] = { ...problems[id], [end]: { says: 'Choose a feature that has a place.', empty: true } }
    }
    if (params.from !== '' && params.from === params.to)
      problems[id] = { ...problems[id], to: { says: 'Choose another feature than the first.', empty: false } }
  }
  return problems
}

/** Reads the form of a plan; what is incomplete is left out of the plan, and said. */
export function readPlan(draft: GaugePlanDraft, unit: LengthUnit): PlanRead {
  const top = head.read(draft.head, unit)
  const features: Feature[] = []
  let problems: Record<string, FieldProblems> = {}
  for (const { id, draft: of } of draft.features) {
    const read = readFeature(of, unit)
    if (read.ok) features.push({ id, params: read.value })
    else problems[id] = read.problems
  }
  problems = { ...together(features, unit), ...problems }
  const whole = features.filter(({ id }) => !problems[id])
  return {
    plan: top.ok ? { head: top.value, features: whole } : undefined,
    head: top.ok ? {} : top.problems,
    features: problems,
    complete: top.ok && Object.keys(problems).length === 0,
  }
}

/** Every value that a plan measures, in the order of its features. */
export const characteristicsIn = (
  { features }: Pick<GaugePlan, 'features'>,
  unit: LengthUnit,
): Characteristic[] => features.flatMap((feature) => characteristicsOf(feature, unit))
