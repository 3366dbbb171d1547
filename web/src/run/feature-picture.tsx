import {
  approachOf,
  characteristicsOf,
  correctionOf,
  decisionSketch,
  type FeatureParams,
  gaugeSketch,
  targetOf,
} from '@dogleg/core/gauge'
import { probeSketch } from '@dogleg/core/probe'
import type { LengthUnit } from '@dogleg/core/quantity'
import { useMemo } from 'react'
import { ApproachDrawing } from './approach-drawing.tsx'
import { DecisionDrawing } from './decision-drawing.tsx'
import type { FeaturePart } from './feature-form.tsx'
import { formatValue } from './format-value.ts'
import { GaugePlanDrawing } from './gauge-plan-drawing.tsx'
import type { Gauging } from './use-gauging.ts'

interface FeaturePictureProps {
  part: FeaturePart
  gauging: Gauging
  feature: FeatureParams | undefined
  id: string
  lit: string | undefined
  unit: LengthUnit
  onChoose: (id: string) => void
}

/** The picture for the part of the form that is open: from above, from the side, or the result on its scale. */
export function FeaturePicture({ part, gauging, feature, id, lit, unit, onChoose }: FeaturePictureProps) {
  const { plan } = gauging.read
  const { where } = gauging.program
  const own = plan?.features.find((each) => each.id === id)
  const sketch = useMemo(() => (plan && where ? gaugeSketch(plan, where) : undefined), [plan, where])
  const sideways = lit === 'depth' || lit === 'gap' || lit === 'past' || lit === 'top'
  if (part === 'where' && sideways && own && where && feature) {
    const { task, past } = approachOf(own, where, 0)
    return (
      <ApproachDrawing
        sketch={probeSketch(task, where.shape)}
        task={task}
        past={past}
        unit={unit}
        lit={lit}
      />
    )
  }
  const [of] = own ? characteristicsOf(own, unit) : []
  if (own && of && feature && (part === 'result' || !sketch)) {
    const corrects = where !== undefined && targetOf(own, of, where) !== undefined
    const correction = correctionOf(own, of, unit)
    return (
      <DecisionDrawing
        sketch={decisionSketch(of, corrects ? correction : undefined)}
        name={of.key}
        lit={lit}
        format={(value) => formatValue(value, of.unit)}
        says={SAYS[feature.react]}
      />
    )
  }
  return sketch && where ? (
    <GaugePlanDrawing sketch={sketch} chosen={id} lit={lit} stylus={where.shape.stylus} onChoose={onChoose} />
  ) : (
    <p className="text-ink-soft">The picture appears once the fields are understood.</p>
  )
}

const SAYS: Record<FeatureParams['react'], { within: string; beyond: string }> = {
  record: { within: 'recorded', beyond: 'recorded' },
  stop: { within: 'goes on', beyond: 'stops' },
  wear: { within: 'nothing, or corrected', beyond: 'stops' },
  offset: { within: 'nothing, or corrected', beyond: 'stops' },
  skip: { within: 'goes on', beyond: 'skips the rest' },
  'right-part': { within: 'the right part', beyond: 'wrong part: stops' },
}
