import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import type { RepeatHistory } from '@dogleg/core/setup'
import { format } from 'date-fns'
import { memo } from 'react'
import {
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceArea,
  ReferenceDot,
  ResponsiveContainer,
  XAxis,
  YAxis,
} from 'recharts'
import { useRem } from '../tablet/rem.ts'

const INK = 'var(--color-scribe)'

interface RepeatChartProps {
  history: RepeatHistory
  unit: LengthUnit
}

/** A zero over the last times, what is usual as a band, and this time's. */
export const RepeatChart = memo(function RepeatChart({ history, unit }: RepeatChartProps) {
  const rem = useRem()
  const { earlier, now, usual, axis } = history
  const rows = [
    ...earlier.map(({ at, value }, index) => ({ n: index + 1, value, day: format(new Date(at), 'd MMM') })),
    { n: earlier.length + 1, value: now, day: 'now' },
  ]
  const values = [...rows.map(({ value }) => value), ...(usual ? [usual.lower, usual.upper] : [])]
  const [least, greatest] = [Math.min(...values), Math.max(...values)]
  const room = (greatest - least || 0.001) * 0.15
  return (
    <figure className="rounded-sm bg-layout p-2 text-scribe">
      <figcaption className="text-sm">
        {axis} of each time{usual ? '; the band is what is usual' : ''}
      </figcaption>
      <ResponsiveContainer width="100%" height={140} minWidth={100}>
        <ComposedChart data={rows} margin={{ top: 8, right: 14, bottom: 0, left: 8 }}>
          <CartesianGrid stroke="var(--color-scribe-dim)" strokeOpacity={0.3} vertical={false} />
          <XAxis
            dataKey="n"
            type="number"
            domain={[0.5, rows.length + 0.5]}
            ticks={rows.map(({ n }) => n)}
            tickFormatter={(n: number) => rows[n - 1]?.day ?? ''}
            stroke={INK}
            tick={{ fill: INK, fontSize: '1rem' }}
            interval="preserveStartEnd"
          />
          <YAxis
            domain={[least - room, greatest + room]}
            tickFormatter={(value: number) => formatLength(value, unit)}
            stroke={INK}
            tick={{ fill: INK, fontSize: '1rem' }}
            width={5.5 * rem}
            tickCount={3}
          />
          {usual && (
            <ReferenceArea
              y1={usual.lower}
              y2={usual.upper}
              fill="var(--color-scribe)"
              fillOpacity={0.18}
              stroke="none"
            />
          )}
          <Line
            dataKey="value"
            stroke={INK}
            strokeWidth={1.5}
            dot={{ r: 3, fill: INK }}
            isAnimationActive={false}
          />
          <ReferenceDot
            x={rows.length}
            y={now}
            r={7}
            fill="var(--color-brass)"
            stroke="var(--color-layout-deep)"
          />
        </ComposedChart>
      </ResponsiveContainer>
    </figure>
  )
})
