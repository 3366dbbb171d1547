import {
  characteristicsOf,
  correctionFor,
  type GaugeCase,
  type GaugePlan,
  heldWithin,
  targetOf,
} from '@dogleg/core/gauge'
import { formatLength, readLength } from '@dogleg/core/quantity'
import { z } from 'zod'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { LengthEntryField } from '../ui/entry-field.tsx'

const typed = z.object({ drift: z.string(), scatter: z.string() })

/** What the corrections hold over many parts: for how much the size moves by itself, and scatters. */
export function HoldsPanel({ plan, where }: { plan: GaugePlan; where: GaugeCase }) {
  const { setup } = useOpenSetup()
  const { unit } = setup
  const [draft, change] = useKept(`${setup.id}.holds`, typed, () => ({ drift: '', scatter: '' }))
  const corrected = plan.features.flatMap((feature) =>
    characteristicsOf(feature, unit).flatMap((of) => (targetOf(feature, of, where) ? [{ feature, of }] : [])),
  )
  if (corrected.length === 0) return null
  const drift = readLength(draft.drift, unit)
  const scatter = readLength(draft.scatter, unit)
  const known = drift.ok && (scatter.ok || scatter.empty)
  return (
    <section aria-label="Over many parts" className="border-t border-rule pt-1">
      <h2 className="font-semibold">Over many parts</h2>
      <div className="grid grid-cols-2 gap-x-3">
        <LengthEntryField
          label="It moves by, a part"
          unit={unit}
          value={draft.drift}
          onChange={(text) => change({ ...draft, drift: text })}
          hint="The chart shows it."
          narrow
        />
        <LengthEntryField
          label="Scatter, either way"
          unit={unit}
          value={draft.scatter}
          onChange={(text) => change({ ...draft, scatter: text })}
          hint="From part to part."
          narrow
        />
      </div>
      {known &&
        corrected.map(({ feature, of }) => {
          const held = heldWithin(
            correctionFor(feature, of, unit, {
              drift: drift.value,
              scatter: scatter.ok ? Math.abs(scatter.value) : 0,
            }),
          )
          return (
            <p key={of.key}>
              <span className="font-semibold">{of.key}</span> within{' '}
              <span className="digits">±{formatLength(held.most, unit)}</span> of the middle. {held.says}
            </p>
          )
        })}
    </section>
  )
}
