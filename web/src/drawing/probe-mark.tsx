import type { ProbeSketch } from '@dogleg/core/probe'
import type { Point } from './frame.ts'
import { Scribe } from './marks.tsx'
import { polygon } from './plan.ts'

interface ProbeMarkProps {
  /** Where the centre of its ball is. */
  at: { u: number; z: number }
  sketch: Pick<ProbeSketch, 'radius' | 'reach' | 'body'>
  place: (u: number, z: number) => Point
  /** It is where it may come to, not where it is. */
  dim?: boolean
}

/** The probe from the side with its ball at a place: stylus and body to scale. */
export function ProbeMark({ at, sketch, place, dim }: ProbeMarkProps) {
  const { radius, reach, body } = sketch
  const ball = place(at.u, at.z)
  const r = Math.max(3, Math.abs(place(radius, 0).x - place(0, 0).x))
  const corners = [
    place(at.u - body / 2, at.z + reach),
    place(at.u + body / 2, at.z + reach),
    place(at.u + body / 2, at.z + 1.35 * reach),
    place(at.u - body / 2, at.z + 1.35 * reach),
  ]
  return (
    <g opacity={dim ? 0.35 : 1}>
      <Scribe from={ball} to={place(at.u, at.z + reach)} ink="measured" />
      <polygon
        points={polygon(corners)}
        fill="var(--color-layout-deep)"
        stroke="var(--color-brass)"
        strokeWidth={2}
      />
      <circle cx={ball.x} cy={ball.y} r={r} fill="var(--color-brass)" />
    </g>
  )
}
