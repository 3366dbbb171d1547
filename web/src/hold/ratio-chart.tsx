import {
  chartOfRatio,
  type LengthMeasured,
  type MeasuredPairs,
  type Moving,
  type RatioFit,
} from '@dogleg/core/hold'
import { formatLength, type LengthUnit, unitSymbol } from '@dogleg/core/quantity'
import { CartesianGrid, ComposedChart, Line, ResponsiveContainer, Scatter, XAxis, YAxis } from 'recharts'
import { useRem } from '../tablet/rem.ts'

interface RatioChartProps {
  pairs: MeasuredPairs
  what: LengthMeasured
  fit: RatioFit
  expected: Moving
  unit: LengthUnit
}

const INK = 'var(--color-scribe)'

/** What was measured, the line through it, and the line that was expected. */
export function RatioChart({ pairs, what, fit, expected, unit }: RatioChartProps) {
  const { points, lines } = chartOfRatio(pairs, what, fit, expected, unit)
  const rem = useRem()
  const tick = (value: number) => formatLength(value, unit)
  const axis = {
    type: 'number' as const,
    domain: ['auto', 'auto'] as const,
    stroke: INK,
    tick: { fill: INK, fontSize: '1rem' },
  }
  return (
    <figure className="rounded-sm bg-layout p-3 text-scribe">
      <figcaption className="pb-2 text-sm">
        {what === 'face' ? 'Where the face stood' : 'Length after facing'} over the diameter,{' '}
        {unitSymbol(unit)}. Brass: measured, and the line through it. Dashed: as expected.
      </figcaption>
      <ResponsiveContainer width="100%" height={340}>
        <ComposedChart margin={{ top: 8, right: 24, bottom: 8, left: 24 }} accessibilityLayer={false}>
          <CartesianGrid stroke="var(--color-scribe-dim)" strokeOpacity={0.35} />
          <XAxis dataKey="diameter" {...axis} domain={['dataMin', 'dataMax']} tickFormatter={tick} />
          <YAxis {...axis} domain={['auto', 'auto']} tickFormatter={tick} width={5.25 * rem} />
          <Line
            data={lines}
            dataKey="expected"
            stroke={INK}
            strokeDasharray="6 5"
            dot={false}
            isAnimationActive={false}
          />
          <Line
            data={lines}
            dataKey="fitted"
            stroke="var(--color-brass)"
            strokeWidth={2}
            dot={false}
            isAnimationActive={false}
          />
          <Scatter data={points} dataKey="length" fill="var(--color-brass)" isAnimationActive={false} />
        </ComposedChart>
      </ResponsiveContainer>
    </figure>
  )
}
