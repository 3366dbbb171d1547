import { formatLength } from '@dogleg/core/quantity'
import {
  type EndSketch,
  endSketch,
  type SimulatedView,
  type TableSketch,
  tableSketch,
} from '@dogleg/core/simulated'
import { Words } from '../drawing/marks.tsx'
import { type Plan, plan, polygon } from '../drawing/plan.ts'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 560
const FRONT_WIDTH = 280
const HEIGHT = 600
const MIDDLE = 340
const PLAN = { left: 10, top: 30, width: 540, height: 300 }
const SIDE = { left: 10, top: MIDDLE + 28, width: 540, height: 224 }
/** Side by side, where there are keys below. */
const LOW = 384
const LOW_PLAN = { left: 8, top: 30, width: 330, height: 346 }
const LOW_SIDE = { left: 356, top: 52, width: 196, height: 324 }
/** The front view alone. */
const FRONT = { left: 8, top: 34, width: 264, height: 206 }

type Seen = NonNullable<SimulatedView['seen']>

const inkOf = (role: string) => ({
  fill: role === 'part' ? 'var(--color-scribe)' : 'var(--color-layout-deep)',
  fillOpacity: role === 'part' ? 0.16 : 1,
  stroke: role === 'part' ? 'var(--color-scribe)' : 'var(--color-scribe-dim)',
  strokeWidth: role === 'part' ? 2 : 1.25,
})

/** The vise and the part from above, with the spindle's axis and what touches. */
function FromAbove({
  seen,
  sketch,
  to,
  kicked,
}: {
  seen: Seen
  sketch: TableSketch
  to: Plan
  kicked: boolean
}) {
  const tip = to.place(sketch.tip)
  const spindle = to.place(seen.spindle)
  const radius = Math.max(3, seen.tipRadius * to.scale)
  return (
    <g>
      {seen.bodies.map(({ id, role, corners }) => (
        <polygon key={id} points={polygon(corners.map(to.place))} {...inkOf(role)} />
      ))}
      {seen.bodies.flatMap(({ id, name, corners }) => {
        const [front] = corners
        return id === 'setter' && front
          ? [
              <Words key={id} at={{ x: to.place(front).x, y: to.place(front).y + 18 }} plain>
                {name.replace('tool ', '')}
              </Words>,
            ]
          : []
      })}
      {sketch.inPlan && Math.hypot(tip.x - spindle.x, tip.y - spindle.y) > 3 && (
        <line
          x1={spindle.x}
          y1={spindle.y}
          x2={tip.x}
          y2={tip.y}
          stroke="var(--color-brass)"
          strokeWidth={3}
        />
      )}
      <circle
        cx={tip.x + (kicked ? radius * 0.6 : 0)}
        cy={tip.y + (kicked ? radius * 0.4 : 0)}
        r={radius}
        fill="var(--color-brass)"
        fillOpacity={sketch.inPlan ? 0.35 : 0}
        stroke="var(--color-brass)"
        strokeWidth={2}
        strokeDasharray={sketch.inPlan ? undefined : '3 3'}
      />
      {!sketch.inPlan && (
        <Words at={{ x: 16, y: 44 }} anchor="start" ink="measured" plain>
          the spindle is further off
        </Words>
      )}
    </g>
  )
}

/** What is in the spindle, from its tip up, as far as the ceiling. */
function Pieces({
  seen,
  tip,
  to,
  ceiling,
}: {
  seen: Seen
  tip: { x: number; y: number }
  to: Plan
  ceiling: number
}) {
  return seen.pieces.map(({ radius, from, to: up }) => {
    const [a, b] = [
      to.place({ x: tip.x - radius, y: tip.y + up }),
      to.place({ x: tip.x + radius, y: tip.y + from }),
    ]
    const top = Math.max(a.y, ceiling)
    return (
      <rect
        key={`${from}-${up}`}
        x={a.x}
        y={top}
        width={Math.max(2, b.x - a.x)}
        height={Math.max(0, b.y - top)}
        fill="var(--color-brass)"
        fillOpacity={0.25}
        stroke="var(--color-brass)"
        strokeWidth={1.5}
      />
    )
  })
}

interface FrontProps {
  seen: Seen
  sketch: TableSketch
  to: Plan
  /** Nothing is drawn above it. */
  ceiling: number
}

/** The same from the front: how high the tip stands. */
function FromTheFront({ seen, sketch, to, ceiling }: FrontProps) {
  const tip = to.place(sketch.tipInSide)
  return (
    <g>
      {sketch.bodies.map(({ id, role, x0, x1, bottom, top }) => {
        const [a, b] = [to.place({ x: x0, y: top }), to.place({ x: x1, y: bottom })]
        return <rect key={id} x={a.x} y={a.y} width={b.x - a.x} height={b.y - a.y} {...inkOf(role)} />
      })}
      {sketch.inSide && <Pieces seen={seen} tip={sketch.tipInSide} to={to} ceiling={ceiling} />}
      {!sketch.inSide && (
        <line
          x1={tip.x - 8}
          y1={tip.y}
          x2={tip.x + 8}
          y2={tip.y}
          stroke="var(--color-brass)"
          strokeWidth={4}
          strokeDasharray="4 3"
        />
      )}
    </g>
  )
}

/** Across the rotary, from its right end: how the flat is turned, and where the tip stands to it. */
function FromTheEnd({
  seen,
  sketch,
  to,
  ceiling,
}: {
  seen: Seen
  sketch: EndSketch
  to: Plan
  ceiling: number
}) {
  return (
    <g>
      {sketch.round.map(({ id, role, middle, radius, flat }) => {
        const at = to.place(middle)
        const r = radius * to.scale
        const [a, b] = flat.map(to.place)
        return a && b ? (
          <path
            key={id}
            // The long way round, and back along the flat.
            d={`M ${a.x} ${a.y} A ${r} ${r} 0 1 1 ${b.x} ${b.y} Z`}
            {...inkOf(role)}
          />
        ) : (
          <circle key={id} cx={at.x} cy={at.y} r={r} {...inkOf(role)} />
        )
      })}
      {sketch.inSight && <Pieces seen={seen} tip={sketch.tip} to={to} ceiling={ceiling} />}
      {!sketch.inSight && (
        <circle
          cx={to.place(sketch.tip).x}
          cy={to.place(sketch.tip).y}
          r={6}
          fill="none"
          stroke="var(--color-brass)"
          strokeWidth={3}
          strokeDasharray="4 3"
        />
      )}
    </g>
  )
}

/** How high the tip stands, as an eye tells it. */
const overWords = ({ over, overWhat }: TableSketch, unit: SimulatedView['unit']) =>
  `${formatLength(Math.abs(over), unit, { digits: unit === 'inch' ? 2 : 1 })} ${over < 0 ? 'below' : 'over'} the ${overWhat}`

const sideBox = ({ plan: from, side }: TableSketch) => ({
  least: { x: from.least.x, y: side.least.y },
  greatest: { x: from.greatest.x, y: side.greatest.y },
})

/** The table of a simulated mill, as well as an eye sees it: from above, and from the front. */
export function TableDrawing({
  view,
  low,
}: {
  view: SimulatedView /** With keys below it. */
  low?: boolean
}) {
  const sketch = tableSketch(view)
  if (!view.seen || !sketch) return null
  const end = endSketch(view)
  const side = sideBox(sketch)
  // One scale for both, so that what stands over the other is over it.
  const { scale } = plan(side.least, side.greatest, low ? LOW_SIDE : SIDE)
  const above = plan(sketch.plan.least, sketch.plan.greatest, low ? LOW_PLAN : PLAN, low ? undefined : scale)
  const front = low
    ? plan(side.least, side.greatest, LOW_SIDE)
    : plan(side.least, side.greatest, SIDE, above.scale)
  const words = low ? { x: 356, y: 22 } : { x: 16, y: MIDDLE + 22 }
  const line = low ? { x1: 346, x2: 346, y1: 0, y2: LOW } : { x1: 0, x2: WIDTH, y1: MIDDLE, y2: MIDDLE }
  return (
    <CycleSheet
      label={`The table from above and from ${end ? 'the right end' : 'the front'}, as the eye sees it: the tip ${overWords(sketch, view.unit)}`}
      width={WIDTH}
      height={low ? LOW : HEIGHT}
      tallest={low ? 'max-h-[24rem]' : 'max-h-[38rem]'}
    >
      <FromAbove seen={view.seen} sketch={sketch} to={above} kicked={view.mounted.kicked} />
      <Words at={{ x: 16, y: 22 }} anchor="start" plain>
        from above: X to the right, Y to the back
      </Words>
      <line {...line} stroke="var(--color-scribe-dim)" strokeWidth={1} />
      {end ? (
        <FromTheEnd
          seen={view.seen}
          sketch={end}
          to={plan(end.box.least, end.box.greatest, low ? LOW_SIDE : SIDE)}
          ceiling={low ? LOW_SIDE.top : MIDDLE}
        />
      ) : (
        <FromTheFront seen={view.seen} sketch={sketch} to={front} ceiling={low ? LOW_SIDE.top : MIDDLE} />
      )}
      <Words at={words} anchor="start" plain>
        {end ? 'from the right end' : 'from the front'}
      </Words>
      <Words
        at={low ? { x: 356, y: 42 } : { x: 544, y: MIDDLE + 22 }}
        anchor={low ? 'start' : 'end'}
        ink="measured"
        plain
      >
        {overWords(sketch, view.unit)}
      </Words>
    </CycleSheet>
  )
}

/** From the front alone, beside a program: what the eye sees against the distance to go. */
export function FrontDrawing({ view }: { view: SimulatedView }) {
  const sketch = tableSketch(view)
  if (!view.seen || !sketch) return null
  const side = sideBox(sketch)
  return (
    <CycleSheet
      label={`The table from the front, as the eye sees it: the tip ${overWords(sketch, view.unit)}`}
      width={FRONT_WIDTH}
      height={256}
      tallest="max-h-64"
    >
      <FromTheFront
        seen={view.seen}
        sketch={sketch}
        to={plan(side.least, side.greatest, FRONT)}
        ceiling={FRONT.top}
      />
      <Words at={{ x: 140, y: 22 }} ink="measured" bold plain>
        {overWords(sketch, view.unit)}
      </Words>
    </CycleSheet>
  )
}
