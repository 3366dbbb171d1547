import { type Box, boundsOf, type Layout } from '@dogleg/core/prove'
import { formatLength } from '@dogleg/core/quantity'
import { Words } from '../drawing/marks.tsx'

const WIDTH = 400
const HEIGHT = 300
const EDGE = 34

/** The two directions that are seen: in plan X and Y, on a lathe Z and X with both sides of the centre line. */
function flat(boxes: readonly Box[], lathe: boolean) {
  return boxes.map(({ least, greatest }) =>
    lathe
      ? {
          u0: least[2],
          u1: greatest[2],
          v0: -Math.max(greatest[0], -least[0]),
          v1: Math.max(greatest[0], -least[0]),
        }
      : { u0: least[0], u1: greatest[0], v0: least[1], v1: greatest[1] },
  )
}

/** What stands in the work area, to scale, with part zero: in plan on a mill, along the centre line on a lathe. */
export function SheetPicture({ layout, lathe }: { layout: Layout | undefined; lathe: boolean }) {
  if (!layout || layout.bodies.length === 0)
    return (
      <p className="mt-3 self-start border border-rule p-3 text-sm text-ink-soft">
        Nothing is placed in the work area.
      </p>
    )
  const { bodies, unit } = layout
  const boxes = flat(bodies.map(boundsOf), lathe)
  const [u0, u1] = [Math.min(0, ...boxes.map((box) => box.u0)), Math.max(0, ...boxes.map((box) => box.u1))]
  const [v0, v1] = [Math.min(0, ...boxes.map((box) => box.v0)), Math.max(0, ...boxes.map((box) => box.v1))]
  const scale = Math.min((WIDTH - 2 * EDGE) / (u1 - u0 || 1), (HEIGHT - 2 * EDGE) / (v1 - v0 || 1))
  const x = (u: number) => WIDTH / 2 + (u - (u0 + u1) / 2) * scale
  const y = (v: number) => HEIGHT / 2 - (v - (v0 + v1) / 2) * scale
  const part = boxes[bodies.findIndex(({ role }) => role === 'part')]
  const middle = part ? (part.u0 + part.u1) / 2 : (u0 + u1) / 2
  /** In its middle where there is room; else over it, away from the part. */
  const nameAt = (name: string, box: (typeof boxes)[number], isPart: boolean) => {
    const at = (box.u0 + box.u1) / 2
    if (isPart || (box.u1 - box.u0) * scale > (2 * WIDTH) / 3)
      return { at: { x: x(at), y: isPart ? y((box.v0 + box.v1) / 2) + 5 : y(box.v1) + 18 } }
    if ((box.u1 - box.u0) * scale > 8 * name.length)
      return { at: { x: x(at), y: y((box.v0 + box.v1) / 2) + 5 } }
    return at < middle
      ? { at: { x: x(box.u1), y: y(box.v1) - 5 }, anchor: 'end' as const }
      : { at: { x: x(box.u0), y: y(box.v1) - 5 }, anchor: 'start' as const }
  }
  // The part last: what holds it lies under it.
  const order = [...bodies.keys()].sort(
    (a, b) => Number(bodies[a]?.role === 'part') - Number(bodies[b]?.role === 'part'),
  )
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`${lathe ? 'Along the centre line' : 'In plan'}: ${bodies.map(({ name }) => name).join(', ')}`}
      className="on-layout mt-3 w-full self-start rounded-sm bg-layout"
    >
      {order.map((index) => {
        const box = boxes[index] as (typeof boxes)[number]
        const body = bodies[index] as (typeof bodies)[number]
        const isPart = body.role === 'part'
        const round = !lathe && body.shape === 'cylinder' && body.axis === 'Z'
        const size = { width: (box.u1 - box.u0) * scale, height: (box.v1 - box.v0) * scale }
        return (
          <g key={body.id}>
            <rect
              x={x(box.u0)}
              y={y(box.v1)}
              {...size}
              rx={round ? size.width / 2 : 0}
              fill={isPart ? 'var(--color-layout-deep)' : 'none'}
              stroke={isPart ? 'var(--color-scribe)' : 'var(--color-scribe-dim)'}
              strokeWidth={isPart ? 2.5 : 1.5}
            />
          </g>
        )
      })}
      {order.map((index) => {
        const { id, name, role } = bodies[index] as (typeof bodies)[number]
        const isPart = role === 'part'
        return (
          <Words
            key={id}
            {...nameAt(name, boxes[index] as (typeof boxes)[number], isPart)}
            plain
            bold={isPart}
          >
            {name}
          </Words>
        )
      })}
      {part && (
        <Words at={{ x: x((part.u0 + part.u1) / 2), y: HEIGHT - 10 }}>
          {lathe
            ? `Ø${formatLength(part.v1 - part.v0, unit)} × ${formatLength(part.u1 - part.u0, unit)}`
            : `${formatLength(part.u1 - part.u0, unit)} × ${formatLength(part.v1 - part.v0, unit)}`}
        </Words>
      )}
      <g stroke="var(--color-brass)" strokeWidth={2.5}>
        <line x1={x(0) - 14} x2={x(0) + 14} y1={y(0)} y2={y(0)} />
        <line x1={x(0)} x2={x(0)} y1={y(0) - 14} y2={y(0) + 14} />
      </g>
      <Words at={{ x: x(0) - 18, y: y(0) - 12 }} ink="measured" anchor="end" plain bold>
        zero
      </Words>
    </svg>
  )
}
