import type { FieldName, PlanSketch } from '@dogleg/core/pickup'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { Scribe, Tip, Words } from '../drawing/marks.tsx'
import { type Plan, plan, polygon } from '../drawing/plan.ts'
import { CycleSheet } from '../drawing/sheet.tsx'
import { Of } from './drawings/parts.tsx'
import type { LitField } from './pickup-drawing.tsx'

interface PlanDrawingProps {
  sketch: PlanSketch
  unit: LengthUnit
  lit: LitField
  onPick: (field: FieldName) => void
}

const WIDTH = 470
const HEIGHT = 500
const ROOM = { left: 44, top: 40, width: WIDTH - 88, height: HEIGHT - 120 }
const LEAST_RADIUS = 5

function Circle({ circle, on }: { circle: NonNullable<PlanSketch['circle']>; on: Plan }) {
  const centre = on.place(circle.centre)
  return (
    <>
      <circle
        cx={centre.x}
        cy={centre.y}
        r={circle.radius * on.scale}
        fill={circle.inside ? 'var(--color-layout-deep)' : 'var(--color-scribe)'}
        fillOpacity={circle.inside ? 1 : 0.13}
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      <circle cx={centre.x} cy={centre.y} r={4} fill="var(--color-brass)" />
    </>
  )
}

/** The material of an outside corner lies between its faces; of an inside corner, on the other side of them. */
function Corner({ corner, on }: { corner: NonNullable<PlanSketch['corner']>; on: Plan }) {
  const [a, b] = corner.along
  const far = { x: a.x + b.x - corner.at.x, y: a.y + b.y - corner.at.y }
  const points = [corner.at, a, far, b].map(on.place)
  const [at, alongX, , alongY] = points as [
    (typeof points)[0],
    (typeof points)[0],
    unknown,
    (typeof points)[0],
  ]
  return (
    <>
      <polygon
        points={polygon(points)}
        fill={corner.inside ? 'var(--color-layout-deep)' : 'var(--color-scribe)'}
        fillOpacity={corner.inside ? 1 : 0.13}
      />
      <Scribe from={at} to={alongX} />
      <Scribe from={at} to={alongY} />
      <circle cx={at.x} cy={at.y} r={4} fill="var(--color-brass)" />
    </>
  )
}

/** Part zero in plan: both axes through it. */
function Zero({ zero, on, unit }: { zero: NonNullable<PlanSketch['zero']>; on: Plan; unit: LengthUnit }) {
  const at = on.place(zero)
  return (
    <g>
      <g stroke="var(--color-scribe)" strokeWidth={2} strokeDasharray="14 4 3 4">
        <line x1={at.x - 60} x2={at.x + 60} y1={at.y} y2={at.y} />
        <line x1={at.x} x2={at.x} y1={at.y - 60} y2={at.y + 60} />
      </g>
      <Words at={{ x: at.x + 10, y: at.y - 66 }} anchor="start" bold size={18}>
        X0 Y0
      </Words>
      <Words at={{ x: WIDTH - 14, y: HEIGHT - 14 }} anchor="end" ink="measured">
        X {formatLength(zero.x, unit)} Y {formatLength(zero.y, unit)}
      </Words>
    </g>
  )
}

/** A circle or a corner in plan, to scale: the touches as they were typed, the fit, part zero. */
export function PlanDrawing({ sketch, unit, lit, onPick }: PlanDrawingProps) {
  const on = plan(sketch.least, sketch.greatest, ROOM)
  return (
    <CycleSheet label="Plan view of the touches" width={WIDTH} height={HEIGHT} tallest="max-h-[31.5rem]">
      {sketch.circle && <Circle circle={sketch.circle} on={on} />}
      {sketch.corner && <Corner corner={sketch.corner} on={on} />}
      {sketch.zero && <Zero zero={sketch.zero} on={on} unit={unit} />}
      {sketch.touches.map((touch) => {
        const at = on.place(touch)
        const radius = Math.max(LEAST_RADIUS, (sketch.tip / 2) * on.scale)
        // The number stands in the tip, or beside one that is too small for it.
        const beside = radius < 12
        const left = beside && touch.field === 'pointsX'
        const words = left
          ? { x: at.x - radius - 10, y: at.y + 5 }
          : { x: at.x, y: at.y + (beside ? radius + 18 : 5) }
        const isLit = lit === touch.field || lit === 'diameter'
        return (
          <Of key={`${touch.field}-${touch.number}`} field={touch.field} onPick={onPick}>
            <Tip at={at} radius={radius} lit={isLit} />
            <Words at={words} ink="measured" bold>
              {touch.number}
            </Words>
          </Of>
        )
      })}
      <Words at={{ x: 14, y: HEIGHT - 14 }} anchor="start" plain>
        {sketch.touches.length === 0
          ? 'The touches appear here as they are typed'
          : sketch.zero
            ? 'part zero at machine'
            : 'more touches are needed'}
      </Words>
    </CycleSheet>
  )
}
