import { type Chart, type Drift, RULES } from '@dogleg/core/gauge'
import type { ValueSeries } from '@dogleg/core/setup'
import {
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts'
import { useRem } from '../tablet/rem.ts'
import { formatValue } from './format-value.ts'

const INK = 'var(--color-scribe)'
const DIM = 'var(--color-scribe-dim)'
const BRASS = 'var(--color-brass)'
const GROUND = 'var(--color-layout-deep)'

/** More corrections than these are not marked one by one. */
const MOST_MARKED = 12

interface ValueChartProps {
  series: ValueSeries
  chart: Chart | undefined
  drift: Drift | undefined
}

interface Row {
  n: number
  label: string
  value: number
  range: number | undefined
  line: number | undefined
  flagged: boolean
  out: boolean
}

/** One value over the parts, with its limits and its drift; under it what two parts in a row lie apart. */
export function ValueChart({ series, chart, drift }: ValueChartProps) {
  const { of, values, parts, corrections } = series
  const rem = useRem()
  const format = (value: number) => formatValue(value, of.unit)
  const flags = new Map((chart?.signals ?? []).map(({ at, rule }) => [at, RULES[rule]]))
  const rows = values.map(
    (value, at): Row => ({
      n: at + 1,
      label: parts[at]?.label ?? '',
      value,
      range: chart?.ranges[at],
      line:
        drift && at === drift.line.from
          ? drift.line.a
          : drift && at === drift.line.to
            ? drift.line.b
            : undefined,
      flagged: flags.has(at),
      out: parts[at]?.out.includes(of.key) ?? false,
    }),
  )
  const edges = [...values, of.lower, of.upper, ...(chart ? [chart.lower, chart.upper] : [])]
  const [least, greatest] = [Math.min(...edges), Math.max(...edges)]
  const room = (greatest - least || 1e-4) * 0.06
  const x = {
    dataKey: 'n',
    type: 'number' as const,
    domain: [0, rows.length + 1] as [number, number],
    allowDataOverflow: true,
    stroke: INK,
    tick: { fill: INK, fontSize: '1rem' },
    tickFormatter: (n: number) => parts[n - 1]?.label ?? '',
  }
  const y = { stroke: INK, tick: { fill: INK, fontSize: '1rem' }, tickFormatter: format, width: 5.5 * rem }
  const shownCorrections = corrections.length <= MOST_MARKED ? corrections : []
  const said = flags.size === 0 ? 'no rule speaks' : `rules speak at ${flags.size} parts`
  return (
    <figure
      className="rounded-sm bg-layout p-2 text-scribe"
      aria-label={`${of.key} over ${rows.length} parts: ${said}`}
    >
      <figcaption className="text-sm">
        {of.key} of each part. Solid: tolerance. Dashed: control limits. Band: within them.
        {shownCorrections.length > 0 && ' Upright: corrected.'}
      </figcaption>
      <ResponsiveContainer width="100%" height={340} minWidth={100}>
        <ComposedChart data={rows} margin={{ top: 10, right: 12, bottom: 0, left: 6 }}>
          <CartesianGrid stroke={DIM} strokeOpacity={0.25} vertical={false} />
          <XAxis {...x} />
          <YAxis
            {...y}
            domain={[least - room, greatest + room]}
            allowDataOverflow
            ticks={[of.lower, of.middle, of.upper]}
          />
          <Tooltip
            isAnimationActive={false}
            content={({ payload }) => {
              const row = payload?.[0]?.payload as Row | undefined
              if (!row) return null
              return (
                <p className="rounded-sm border border-ink bg-stock px-2 py-1 text-ink">
                  Part {row.label}: <span className="digits font-semibold">{format(row.value)}</span>
                  {row.out && ', out of tolerance'}
                  {row.flagged && <span className="block text-sm">{flags.get(row.n - 1)}</span>}
                </p>
              )
            }}
          />
          {chart && (
            <ReferenceArea y1={chart.lower} y2={chart.upper} fill={INK} fillOpacity={0.12} stroke="none" />
          )}
          {chart && <ReferenceLine y={chart.mean} stroke={DIM} />}
          {chart &&
            [chart.lower, chart.upper].map((limit) => (
              <ReferenceLine key={limit} y={limit} stroke={INK} strokeDasharray="6 4" />
            ))}
          {[of.lower, of.upper].map((limit) => (
            <ReferenceLine key={limit} y={limit} stroke={INK} strokeWidth={2.5} />
          ))}
          {shownCorrections.map((at) => (
            <ReferenceLine key={at} x={at + 0.5} stroke={BRASS} strokeDasharray="2 3" />
          ))}
          <Line
            dataKey="value"
            stroke={BRASS}
            strokeWidth={1}
            strokeOpacity={0.6}
            isAnimationActive={false}
            dot={({ cx, cy, payload, key }) => <Dot key={key} cx={cx} cy={cy} row={payload as Row} />}
            activeDot={false}
          />
          {drift?.seen && (
            <Line
              dataKey="line"
              stroke={INK}
              strokeWidth={3}
              connectNulls
              dot={false}
              activeDot={false}
              isAnimationActive={false}
            />
          )}
        </ComposedChart>
      </ResponsiveContainer>
      {chart && (
        <>
          <p className="text-sm">From one part to the next. Dashed: its limit.</p>
          <ResponsiveContainer width="100%" height={100} minWidth={100}>
            <ComposedChart data={rows} margin={{ top: 6, right: 12, bottom: 0, left: 6 }}>
              <XAxis {...x} />
              <YAxis {...y} domain={[0, 'auto']} tickCount={3} />
              <ReferenceLine y={chart.rangeUpper} stroke={INK} strokeDasharray="6 4" />
              <ReferenceLine y={chart.movingRange} stroke={DIM} />
              <Line
                dataKey="range"
                stroke={BRASS}
                strokeWidth={1.2}
                dot={false}
                activeDot={false}
                isAnimationActive={false}
              />
            </ComposedChart>
          </ResponsiveContainer>
        </>
      )}
    </figure>
  )
}

/** A part: a dot; a ring where a rule speaks; a square where it is out of tolerance. */
function Dot({ cx, cy, row }: { cx?: number | undefined; cy?: number | undefined; row: Row }) {
  if (cx === undefined || cy === undefined) return null
  if (row.out)
    return <rect x={cx - 7} y={cy - 7} width={14} height={14} fill={BRASS} stroke={INK} strokeWidth={2.5} />
  return (
    <circle
      cx={cx}
      cy={cy}
      r={row.flagged ? 3.5 : 2.5}
      fill={BRASS}
      stroke={row.flagged ? INK : GROUND}
      strokeWidth={row.flagged ? 1.5 : 0.5}
    />
  )
}
