import type { Point } from './frame.ts'
import { Words } from './marks.tsx'
import { readable } from './readable.ts'

interface DialProps {
  at: Point
  radius: number
  /** What it shows, and what it must show; in the unit of `label`. */
  value: number
  target: number | undefined
  /** Half of what the face carries: the needle stands at the end there. */
  range: number
  /** What it shows in figures, and a number of its face. */
  label: (value: number) => string
  mark: (value: number) => string
  known: boolean
}

/** Half of the face, in degrees. */
const SWEEP = 135
const MARKS = [-1, -0.8, -0.6, -0.4, -0.2, 0, 0.2, 0.4, 0.6, 0.8, 1]

/** A balanced dial: zero on top, plus to the right. The mark at its rim is where the needle has to go. */
export function Dial({ at, radius, value, target, range, label, mark, known }: DialProps) {
  const on = (share: number, r: number): Point => {
    const angle = ((Math.max(-1, Math.min(1, share)) * SWEEP - 90) * Math.PI) / 180
    return { x: at.x + r * Math.cos(angle), y: at.y + r * Math.sin(angle) }
  }
  const needle = on(value / range, radius - 10)
  const tail = on(value / range, -14)
  const goal =
    target === undefined ? undefined : [on(target / range, radius - 2), on(target / range, radius + 14)]
  return (
    <g>
      <circle
        cx={at.x}
        cy={at.y}
        r={radius}
        fill="var(--color-layout-deep)"
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      {MARKS.map((share) => {
        const [outer, inner] = [on(share, radius - 3), on(share, radius - (share % 1 === 0 ? 16 : 10))]
        return (
          <line
            key={share}
            x1={outer.x}
            y1={outer.y}
            x2={inner.x}
            y2={inner.y}
            stroke="var(--color-scribe)"
            strokeWidth={1.5}
          />
        )
      })}
      {[-1, 0, 1].map((share) => {
        const place = on(share, radius - 27)
        return (
          <text
            key={share}
            // Large as they are, the two at the ends must not meet.
            x={place.x + 7 * share}
            y={place.y + 5}
            textAnchor="middle"
            style={{ fontSize: readable(16) }}
            fill="var(--color-scribe)"
            className="digits"
          >
            {share === 0 ? '0' : known ? mark(share * range) : share < 0 ? '-' : '+'}
          </text>
        )
      })}
      {goal?.[0] && goal[1] && (
        <line
          x1={goal[0].x}
          y1={goal[0].y}
          x2={goal[1].x}
          y2={goal[1].y}
          stroke="var(--color-brass)"
          strokeWidth={6}
        />
      )}
      {known && (
        <line
          x1={tail.x}
          y1={tail.y}
          x2={needle.x}
          y2={needle.y}
          stroke="var(--color-brass)"
          strokeWidth={3}
          strokeLinecap="round"
        />
      )}
      <circle cx={at.x} cy={at.y} r={5} fill="var(--color-brass)" />
      <Words at={{ x: at.x, y: at.y + radius + 24 }} ink="measured" bold size={20}>
        {known ? label(value) : ''}
      </Words>
    </g>
  )
}
