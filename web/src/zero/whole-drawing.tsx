import { type ProbeDraft, type ProbeField, wholeSketch } from '@dogleg/core/probe'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { frame } from '../drawing/frame.ts'
import { Dimension, Head, Scribe, Tip, Words } from '../drawing/marks.tsx'
import { plan } from '../drawing/plan.ts'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 470
const HEIGHT = 500
/** The plan stands above, the view from the front below it, on one scale. */
const PLAN = { left: 74, top: 42, width: WIDTH - 184, height: 216 }
const FRONT = 396

interface WholeDrawingProps {
  draft: ProbeDraft
  unit: LengthUnit
  stylus: number
  lit: ProbeField | undefined
}

/** A block or a corner in plan and from the front: where the probe was put, the touches in their order, and how far each is searched. */
export function WholeDrawing({ draft, unit, stylus, lit }: WholeDrawingProps) {
  const sketch = wholeSketch(draft, unit, stylus)
  const { part, touches, at, over, within, values, known, isCorner } = sketch
  const xs = [part.x0, part.x1, ...touches.flatMap(({ from }) => [from.x])]
  const ys = [part.y0, part.y1, ...touches.flatMap(({ from }) => [from.y])]
  const [left, right] = [Math.min(...xs), Math.max(...xs)]
  const [low, high] = [Math.min(...ys), Math.max(...ys)]
  const tall = sketch.stands - part.bottom
  // Both views share the scale of the tighter one.
  const most = Math.min(PLAN.height / (high - low || 1), 108 / (tall || 1))
  const on = plan({ x: left, y: low }, { x: right, y: high }, PLAN, most)
  const { scale } = on
  const front = (x: number, z: number) => ({ x: on.place({ x, y: 0 }).x, y: FRONT - (z - part.top) * scale })
  const number = (field: ProbeField) => {
    const value = values[field]
    return value === undefined ? '?' : formatLength(value, unit)
  }
  const mark = (field: ProbeField) => ({ lit: lit === field, known: known.has(field) })
  const along = frame(0, 1, {
    upright: false,
    from: on.place({ x: 0, y: 0 }).x,
    to: on.place({ x: 1, y: 0 }).x,
    middle: on.place({ x: 0, y: part.y0 }).y,
  })
  const across = frame(0, 1, {
    upright: true,
    from: on.place({ x: 0, y: 0 }).y,
    to: on.place({ x: 0, y: 1 }).y,
    middle: on.place({ x: right, y: 0 }).x,
  })
  const upright = frame(0, 1, {
    upright: true,
    from: front(0, 0).y,
    to: front(0, 1).y,
    middle: 0,
  })
  const corners = [on.place({ x: part.x0, y: part.y1 }), on.place({ x: part.x1, y: part.y0 })] as const
  const band = within * scale
  const ball = Math.max(5, sketch.radius * scale)
  const stand = front(over.x, sketch.stands)
  const zero = on.place({ x: 0, y: 0 })
  const first = touches[0]
  // On the far side of a corner there is room for its dimension.
  const up = over.y > at.y
  const away = { up, y: corners[up ? 0 : 1].y }
  const sides = [front(part.x0, part.top), front(part.x1, part.bottom)] as const
  return (
    <CycleSheet
      label={`Plan and front view of the ${isCorner ? 'corner' : 'block'} as it is touched`}
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-[31.5rem]"
    >
      <rect
        x={corners[0].x - band}
        y={corners[0].y - band}
        width={corners[1].x - corners[0].x + 2 * band}
        height={corners[1].y - corners[0].y + 2 * band}
        fill="none"
        stroke={lit === 'within' ? 'var(--color-brass)' : 'var(--color-scribe-dim)'}
        strokeWidth={lit === 'within' ? 3 : 1}
        strokeDasharray="4 5"
        className="lights-up"
      />
      <rect
        x={corners[0].x}
        y={corners[0].y}
        width={corners[1].x - corners[0].x}
        height={corners[1].y - corners[0].y}
        fill="var(--color-scribe)"
        fillOpacity={0.13}
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      <g
        stroke="var(--color-scribe)"
        strokeWidth={lit === 'x' || lit === 'y' ? 3 : 1.5}
        strokeDasharray="14 4 3 4"
      >
        <line x1={zero.x - 34} x2={zero.x + 34} y1={zero.y} y2={zero.y} />
        <line x1={zero.x} x2={zero.x} y1={zero.y - 34} y2={zero.y + 34} />
      </g>
      {touches.map(({ from, to, axis }, index) => {
        const [a, b] = [on.place(from), on.place(to)]
        const [dx, dy] = [Math.sign(b.x - a.x), Math.sign(b.y - a.y)]
        return (
          <g key={`${axis}${from.x}${from.y}`}>
            <Tip at={a} radius={ball} lit={lit === 'gap'} />
            <Scribe from={a} to={b} ink="measured" lit={lit === 'gap'} />
            <Head at={b} dx={dx} dy={dy} ink="measured" lit={lit === 'gap'} />
            <Words at={{ x: a.x - 17 * dx, y: a.y + 5 - 17 * dy }} ink="measured" bold>
              {index + 2}
            </Words>
          </g>
        )
      })}
      <Tip at={on.place(over)} radius={ball} lit={lit?.startsWith('start') === true || lit === 'inset'} />
      <Words at={{ x: on.place(over).x + ball + 9, y: on.place(over).y - 6 }} ink="measured" bold>
        1
      </Words>
      {isCorner ? (
        <Dimension
          frame={{ ...along, place: (u, v) => ({ x: along.place(u, 0).x, y: away.y + v }) }}
          from={at.x}
          to={over.x}
          v={away.up ? -20 : 20}
          ink="measured"
          name="in"
          label={number('inset')}
          {...mark('inset')}
        />
      ) : (
        <>
          <Dimension
            frame={along}
            from={part.x0}
            to={part.x1}
            v={ball + (first ? Math.abs(on.place(first.from).x - corners[1].x) : 0) + 22}
            name="length"
            label={number('size')}
            {...mark('size')}
          />
          <Dimension
            frame={across}
            from={part.y0}
            to={part.y1}
            v={34}
            base={0}
            name="width"
            label={number('sizeY')}
            {...mark('sizeY')}
          />
        </>
      )}
      <rect
        x={sides[0].x}
        y={sides[0].y}
        width={sides[1].x - sides[0].x}
        height={sides[1].y - sides[0].y}
        fill="var(--color-scribe)"
        fillOpacity={0.13}
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      <line
        x1={sides[0].x - 20}
        x2={sides[1].x + 20}
        y1={front(0, 0).y}
        y2={front(0, 0).y}
        stroke="var(--color-scribe)"
        strokeWidth={lit === 'top' ? 3 : 1.5}
        strokeDasharray="14 4 3 4"
      />
      <Words at={{ x: sides[0].x - 26, y: front(0, 0).y + 5 }} anchor="end">
        Z0
      </Words>
      <Scribe from={{ x: stand.x, y: stand.y - 34 }} to={stand} ink="measured" lit={lit === 'startZ'} />
      <Tip
        at={{ x: stand.x, y: stand.y - ball }}
        radius={ball}
        lit={lit === 'startZ' || lit === 'clearance'}
      />
      {touches
        .filter(({ axis }) => axis === 'X')
        .map(({ to }) => (
          <Tip key={to.x} at={front(to.x, sketch.beside)} radius={ball} lit={lit === 'depth'} />
        ))}
      <Dimension
        frame={{ ...upright, place: (z, v) => ({ x: stand.x + ball + v, y: front(0, z).y }) }}
        from={part.top}
        to={sketch.stands}
        v={18}
        base={0}
        ink="measured"
        name="stands above"
        aside={24}
        label={number('clearance')}
        {...mark('clearance')}
      />
      <Dimension
        frame={{ ...upright, place: (z, v) => ({ x: on.place({ x: right, y: 0 }).x + v, y: front(0, z).y }) }}
        from={part.top}
        to={sketch.beside}
        v={14}
        base={0}
        ink="measured"
        name="depth"
        label={number('depth')}
        {...mark('depth')}
      />
      <Words at={{ x: 14, y: HEIGHT - 12 }} anchor="start" plain>
        Touched in the order of the numbers, the top first
      </Words>
    </CycleSheet>
  )
}
