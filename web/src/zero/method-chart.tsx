import type { MethodAdvice } from '@dogleg/core/pickup'
import { formatLength, type LengthUnit, unitSymbol } from '@dogleg/core/quantity'
import { memo } from 'react'
import { Bar, BarChart, Cell, LabelList, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts'
import { useRem } from '../tablet/rem.ts'

const INK = 'var(--color-scribe)'
/** Words keep a ground of their own where a line runs through. */
const OVER_LINES = { stroke: 'var(--color-layout)', strokeWidth: 4, style: { paintOrder: 'stroke' } }

/** How high a bar is with its room, in rem. */
const ROW = 1.5

interface MethodChartProps {
  advice: MethodAdvice
  tolerance: number
  unit: LengthUnit
}

/** The doubt that each method would leave, as bars, against what the part allows. It stands still while readings are typed. */
export const MethodChart = memo(function MethodChart({ advice, tolerance, unit }: MethodChartProps) {
  const rem = useRem()
  const rows = advice.offers.map(({ name, doubt }) => ({ name, doubt, label: formatLength(doubt, unit) }))
  const most = Math.max(tolerance, ...rows.map(({ doubt }) => doubt)) * 1.6
  return (
    <figure className="rounded-sm bg-layout p-2 text-scribe">
      <figcaption className="text-sm">
        How far off each would leave it, {unitSymbol(unit)}; the line is the {formatLength(tolerance, unit)}{' '}
        allowed
      </figcaption>
      <ResponsiveContainer width="100%" height={ROW * rem * rows.length + 10} minWidth={100}>
        <BarChart data={rows} layout="vertical" margin={{ top: 4, right: 8, bottom: 4, left: 4 }}>
          <XAxis type="number" domain={[0, most]} hide />
          <YAxis
            type="category"
            dataKey="name"
            width={11 * rem}
            interval={0}
            stroke={INK}
            tick={{ fill: INK, fontSize: '1rem' }}
            tickLine={false}
          />
          <Bar dataKey="doubt" isAnimationActive={false}>
            {rows.map(({ name }) => (
              <Cell
                key={name}
                fill={name === advice.advised.name ? 'var(--color-brass)' : 'var(--color-scribe-dim)'}
              />
            ))}
            <LabelList dataKey="label" position="right" fill={INK} fontSize="1rem" {...OVER_LINES} />
          </Bar>
          <ReferenceLine x={tolerance} zIndex={100} stroke={INK} strokeDasharray="6 4" strokeWidth={2} />
        </BarChart>
      </ResponsiveContainer>
    </figure>
  )
})
