import type { LaneState, ShiftSpan } from '@dogleg/core/pallet'
import { formatHours } from '@dogleg/core/quantity'
import { useId, useRef } from 'react'
import { readable, useReadable } from '../../drawing/readable.ts'

const WIDTH = 1200
const LEFT = 92
const LANE = 34
const TOP = 26

/** How each state is drawn on layout blue: told apart without colour. */
const STATES: Record<LaneState, { word: string; fill: string }> = {
  cuts: { word: 'cuts', fill: 'var(--color-brass)' },
  changes: { word: 'changes', fill: 'var(--color-scribe)' },
  waits: { word: 'waits', fill: 'url(#waits)' },
  unloads: { word: 'unloads', fill: 'url(#unloads)' },
  loads: { word: 'loads', fill: 'url(#loads)' },
  ready: { word: 'ready', fill: 'url(#ready)' },
  aside: { word: 'works away from the machine', fill: 'url(#aside)' },
  idle: { word: 'nothing to do', fill: 'none' },
}
const SHOWN: readonly LaneState[] = ['cuts', 'changes', 'waits', 'unloads', 'loads', 'ready', 'aside']

function Patterns({ id }: { id: string }) {
  const lines = (d: string, width = 2) => (
    <path d={d} stroke="var(--color-scribe)" strokeWidth={width} fill="none" />
  )
  return (
    <defs>
      <pattern id={`${id}-waits`} width={8} height={8} patternUnits="userSpaceOnUse">
        {lines('M-2,2 l4,-4 M0,8 l8,-8 M6,10 l4,-4', 1.5)}
      </pattern>
      <pattern id={`${id}-unloads`} width={6} height={6} patternUnits="userSpaceOnUse">
        {lines('M0,3 h6', 2)}
      </pattern>
      <pattern id={`${id}-loads`} width={6} height={6} patternUnits="userSpaceOnUse">
        {lines('M3,0 v6', 2.5)}
      </pattern>
      <pattern id={`${id}-ready`} width={9} height={9} patternUnits="userSpaceOnUse">
        <circle cx={4} cy={4} r={1.4} fill="var(--color-scribe)" />
      </pattern>
      <pattern id={`${id}-aside`} width={7} height={7} patternUnits="userSpaceOnUse">
        {lines('M0,0 l7,7 M7,0 l-7,7', 1)}
      </pattern>
    </defs>
  )
}

/** A step of the time axis that gives ten marks or so, in seconds. */
function stepOf(length: number): number {
  return [60, 300, 600, 900, 1800, 3600].find((step) => length / step <= 14) ?? 7200
}

/** What the machine, each pallet and each person do over time, on layout blue. */
export function ShiftChart({
  spans,
  to,
  pallets,
  hands,
}: {
  spans: readonly ShiftSpan[]
  to: number
  pallets: number
  hands: number
}) {
  const id = useId()
  const lanes = [
    'machine',
    ...Array.from({ length: pallets }, (_, index) => `pallet ${index + 1}`),
    ...Array.from({ length: hands }, (_, index) => `person ${index + 1}`),
  ]
  const height = TOP + lanes.length * LANE + 8
  const svg = useRef<SVGSVGElement>(null)
  useReadable(svg, WIDTH, height)
  const x = (seconds: number) => LEFT + ((WIDTH - LEFT - 10) * Math.min(seconds, to)) / to
  const step = stepOf(to)
  const fill = (state: LaneState) => STATES[state].fill.replace('#', `#${id}-`)
  return (
    <figure>
      <svg
        ref={svg}
        viewBox={`0 0 ${WIDTH} ${height}`}
        role="img"
        aria-label="What the machine, the pallets and the people do over the shift"
        className="on-layout w-full rounded-sm bg-layout"
      >
        <Patterns id={id} />
        {Array.from({ length: Math.floor(to / step) + 1 }, (_, n) => n * step).map((at) => (
          <g key={at}>
            <line
              x1={x(at)}
              x2={x(at)}
              y1={TOP - 6}
              y2={height - 6}
              stroke="var(--color-scribe-dim)"
              strokeWidth={0.7}
            />
            <text
              x={x(at)}
              y={15}
              textAnchor={x(at) > WIDTH - 40 ? 'end' : 'middle'}
              style={{ fontSize: readable(16) }}
              fill="var(--color-scribe)"
              className="digits"
            >
              {formatHours(at)}
            </text>
          </g>
        ))}
        {lanes.map((lane, index) => {
          const y = TOP + index * LANE
          return (
            <g key={lane}>
              <text
                x={8}
                y={y + 21}
                style={{ fontSize: readable(17) }}
                fontWeight={600}
                fill="var(--color-scribe)"
              >
                {lane}
              </text>
              <line
                x1={LEFT}
                x2={WIDTH - 10}
                y1={y + LANE - 4}
                y2={y + LANE - 4}
                stroke="var(--color-scribe-dim)"
                strokeWidth={0.7}
              />
              {spans
                .filter((span) => span.lane === lane && span.from < to)
                .map(({ does, pallet, from, to: end }) => {
                  const width = x(end) - x(from)
                  return (
                    <g key={`${does}-${from}`}>
                      <rect
                        x={x(from)}
                        y={y + 4}
                        width={Math.max(0.5, width)}
                        height={LANE - 10}
                        fill={fill(does)}
                        stroke="var(--color-scribe)"
                        strokeWidth={0.8}
                      />
                      {does === 'cuts' && width > 26 && (
                        <text
                          x={x(from) + width / 2}
                          y={y + 22}
                          textAnchor="middle"
                          style={{ fontSize: readable(17) }}
                          fontWeight={600}
                          fill="var(--color-layout-deep)"
                          className="digits"
                        >
                          {pallet}
                        </text>
                      )}
                    </g>
                  )
                })}
            </g>
          )
        })}
      </svg>
      <figcaption className="flex flex-wrap gap-x-5 gap-y-1 pt-1">
        {SHOWN.map((state) => (
          <span key={state} className="inline-flex items-center gap-1.5">
            <svg width={30} height={18} aria-hidden className="bg-layout">
              <Patterns id={`${id}-k-${state}`} />
              <rect
                width={30}
                height={18}
                fill={STATES[state].fill.replace('#', `#${id}-k-${state}-`)}
                stroke="var(--color-scribe)"
              />
            </svg>
            {STATES[state].word}
          </span>
        ))}
      </figcaption>
    </figure>
  )
}
