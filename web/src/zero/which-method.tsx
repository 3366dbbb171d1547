import type { LinearAxis } from '@dogleg/core/machine'
import { adviseMethod, type PickupMethod } from '@dogleg/core/pickup'
import type { Setup } from '@dogleg/core/setup'
import { Suspense, useMemo } from 'react'
import { Button } from '../ui/button.tsx'
import { lazyPart, NoChart } from '../ui/lazy-part.tsx'

const MethodChart = lazyPart(async () => (await import('./method-chart.tsx')).MethodChart, NoChart)

interface WhichMethodProps {
  setup: Setup
  axis: LinearAxis
  onMethod: (method: PickupMethod) => void
}

/** Which way of finding the axis is good enough here, with the doubt that each would leave. */
export function WhichMethod({ setup, axis, onMethod }: WhichMethodProps) {
  const { machine, unit, tolerance } = setup
  const advice = useMemo(() => adviseMethod(axis, machine, unit, tolerance), [axis, machine, unit, tolerance])
  if (!advice) return null
  return (
    <section aria-label="Which method" className="space-y-2 text-ink">
      <p className="text-lg font-semibold">{advice.says}</p>
      <p>{advice.why}</p>
      <Suspense fallback={<div className="h-60" />}>
        <MethodChart advice={advice} tolerance={tolerance} unit={unit} />
      </Suspense>
      <Button onClick={() => onMethod(advice.advised.method)}>Take {advice.advised.name}</Button>
    </section>
  )
}
