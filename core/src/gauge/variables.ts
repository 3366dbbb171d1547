import type { Macros } from '../control/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import { characteristicsOf, endsOf, type Feature } from './characteristic.ts'
import type { GaugePlan } from './plan.ts'

/** The variables that a program uses. */
export interface GaugeVariables {
  /** Of each value, by its key. */
  values: ReadonlyMap<string, number>
  /** Places of features that a distance is taken between, by feature id. */
  places: ReadonlyMap<string, Partial<Record<'X' | 'Y', number>>>
  /** Set to 1 where what follows was skipped. */
  skipped: number
  error: number
  correction: number
  /** How many it takes, and how many there are. */
  needs: number
  has: number
}

/** Three variables at the end of those that are free: skipped, error, correction. */
const KEPT_BACK = 3

const placedAxes = ({ params }: Feature): readonly ('X' | 'Y')[] =>
  params.what === 'web' || params.what === 'pocket' || params.what === 'surface'
    ? params.axis === 'Z'
      ? []
      : [params.axis]
    : ['X', 'Y']

/** Which variable holds what, in the order of the plan. */
export function variablesOf({ features }: GaugePlan, unit: LengthUnit, { free }: Macros): GaugeVariables {
  let next = free.first
  const values = new Map<string, number>()
  const places = new Map<string, Partial<Record<'X' | 'Y', number>>>()
  for (const feature of features)
    if (feature.params.what !== 'hand')
      for (const { key } of characteristicsOf(feature, unit)) values.set(key, next++)
  const ends = new Set(features.flatMap(endsOf))
  for (const feature of features)
    if (ends.has(feature.id))
      places.set(feature.id, Object.fromEntries(placedAxes(feature).map((axis) => [axis, next++])))
  return {
    values,
    places,
    skipped: free.last - 2,
    error: free.last - 1,
    correction: free.last,
    needs: next - free.first + KEPT_BACK,
    has: free.last - free.first + 1,
  }
}
