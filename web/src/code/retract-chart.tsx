import { retractCurve, type TapStroke } from '@dogleg/core/cycles/tapping'
import {
  CartesianGrid,
  Line,
  LineChart,
  ReferenceDot,
  ReferenceLine,
  ResponsiveContainer,
  XAxis,
  YAxis,
} from 'recharts'
import { useRem } from '../tablet/rem.ts'

interface RetractChartProps {
  stroke: TapStroke
  most: number
  /** Highest that speed and control allow. */
  cap: number
  knee: number
  chosen: number
}

const INK = 'var(--color-scribe)'

/** Time of one hole over the multiple, with the knee beyond which nothing is saved, and the cap. */
export function RetractChart({ stroke, most, cap, knee, chosen }: RetractChartProps) {
  const data = retractCurve(stroke, most)
  const at = data.find(({ multiple }) => multiple >= chosen - 1e-9)
  const rem = useRem()
  const tick = { fill: INK, fontSize: '1rem' }
  return (
    <figure className="h-full rounded-sm bg-layout p-2 text-scribe">
      <figcaption className="text-sm">Seconds a hole over the multiple; brass: this one</figcaption>
      <ResponsiveContainer width="100%" height={190}>
        <LineChart data={data} margin={{ top: 8, right: 18, bottom: 2, left: 0 }} accessibilityLayer={false}>
          <CartesianGrid stroke="var(--color-scribe-dim)" strokeOpacity={0.35} />
          <XAxis
            dataKey="multiple"
            type="number"
            domain={[1, most]}
            ticks={[1, 2, 3, 4, 5, 6, 7, 8, 9]}
            stroke={INK}
            tick={tick}
          />
          <YAxis
            type="number"
            domain={['auto', 'auto']}
            stroke={INK}
            tick={tick}
            width={3.4 * rem}
            tickFormatter={(value: number) => value.toFixed(2)}
          />
          <Line dataKey="seconds" stroke={INK} strokeWidth={2} dot={false} isAnimationActive={false} />
          {knee < most && (
            <ReferenceLine
              x={knee}
              stroke={INK}
              strokeDasharray="6 5"
              label={{ value: 'knee', fill: INK, position: 'insideTopRight', fontSize: '1rem' }}
            />
          )}
          {cap < most && (
            <ReferenceLine
              x={cap}
              stroke={INK}
              strokeDasharray="2 4"
              label={{ value: 'cap', fill: INK, position: 'insideTopLeft', fontSize: '1rem' }}
            />
          )}
          {at && (
            <ReferenceDot x={at.multiple} y={at.seconds} r={6} fill="var(--color-brass)" stroke="none" />
          )}
        </LineChart>
      </ResponsiveContainer>
    </figure>
  )
}
