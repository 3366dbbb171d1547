import {
  type Body,
  bandOutline,
  boundsOf,
  partBox,
  type RapidStop,
  type ToolPart,
  type Triple,
} from '@dogleg/core/prove'
import type { LengthUnit } from '@dogleg/core/quantity'
import { Maximize, ZoomIn, ZoomOut } from 'lucide-react'
import { useMemo, useRef, useState } from 'react'
import type { Drawing } from './drawing.ts'
import { PathCanvas } from './path-canvas.tsx'
import { useSize } from './use-size.ts'
import { type Extent, fit, fromView, type Side, toView, type Window } from './view-frame.ts'

interface StraightViewProps {
  side: Side
  extent: Extent
  /** The path, and how far it is done. */
  drawing: Drawing
  bodies: readonly Body[]
  /** The body that is lit, and whether bodies may be dragged. */
  lit?: string | undefined
  onMove?: ((id: string, by: Triple) => void) | undefined
  parts: readonly ToolPart[]
  tip: Triple
  /** The path of the next press. */
  next: readonly Triple[]
  /** Where its rapids may go as well. */
  bands: readonly (readonly RapidStop[])[]
  crashes: boolean
  hit?: Triple | undefined
  unit: LengthUnit
}

/** A place that is dragged snaps to these, in the unit of the setup. */
const SNAP: Record<LengthUnit, number> = { inch: 1 / 16, mm: 1 }
const LETTERS = ['X', 'Y', 'Z'] as const

/** The work area from one side: bodies and tool to scale, the whole path, the next move bright, the hit marked. */
export function StraightView(props: StraightViewProps) {
  const { side, extent, drawing, bodies, lit, onMove, parts, tip, next, bands, crashes, hit, unit } = props
  const [ref, size] = useSize()
  const [moved, setMoved] = useState<Window>()
  const whole = useMemo(() => fit(extent, side, size), [extent, side, size])
  const window = moved ?? whole
  const eye = useMemo(() => ({ side, window }), [side, window])
  const held = useRef<{ id: string | undefined; right: number; up: number; from: Window }>(undefined)
  const at = (point: Triple) => toView(point, side, window, size)

  const place = (event: React.PointerEvent) => {
    const box = event.currentTarget.getBoundingClientRect()
    return fromView(event.clientX - box.left, event.clientY - box.top, held.current?.from ?? window, size)
  }
  const bodyAt = (right: number, up: number) =>
    [...bodies]
      .sort((a, b) => areaOf(a, side) - areaOf(b, side))
      .find((body) => {
        const { least, greatest } = boundsOf(body)
        return (
          right >= least[side.right] &&
          right <= greatest[side.right] &&
          up >= least[side.up] &&
          up <= greatest[side.up]
        )
      })
  const drag = (event: React.PointerEvent) => {
    if (!held.current) return
    const now = place(event)
    const [dr, du] = [now.right - held.current.right, now.up - held.current.up]
    const { id, from } = held.current
    if (id !== undefined && onMove) {
      const snapped = [dr, du].map((each) => Math.round(each / SNAP[unit]) * SNAP[unit]) as [number, number]
      if (snapped[0] === 0 && snapped[1] === 0) return
      const by: [number, number, number] = [0, 0, 0]
      by[side.right] = snapped[0]
      by[side.up] = snapped[1]
      held.current.right += snapped[0]
      held.current.up += snapped[1]
      onMove(id, by)
    } else setMoved({ ...from, right: from.right - dr, up: from.up - du })
  }
  const zoom = (by: number) => setMoved({ ...window, scale: window.scale * by })
  const path = next.map((point) => at(point))
  const names = namedOnes(bodies, at)
  return (
    <figure className="relative h-full min-h-0 contain-strict" aria-label={side.label}>
      <div
        ref={ref}
        className="on-layout absolute inset-0 touch-none overflow-hidden rounded-sm bg-layout"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId)
          const { right, up } = place(event)
          held.current = { id: onMove ? bodyAt(right, up)?.id : undefined, right, up, from: window }
        }}
        onPointerMove={drag}
        onPointerUp={() => {
          held.current = undefined
        }}
        onPointerCancel={() => {
          held.current = undefined
        }}
        onWheel={(event) => zoom(Math.exp(-event.deltaY / 500))}
      >
        {size.width > 0 && <PathCanvas drawing={drawing} eye={eye} size={size} />}
        {size.width > 0 && (
          <svg
            width={size.width}
            height={size.height}
            className="pointer-events-none absolute inset-0"
            aria-hidden
          >
            {bodies.map((body) => (
              <BodyMark
                key={body.id}
                body={body}
                side={side}
                at={at}
                scale={window.scale}
                lit={body.id === lit}
                named={names.has(body.id)}
              />
            ))}
            {bands.map((band, n) => (
              <polygon
                // biome-ignore lint/suspicious/noArrayIndexKey: the bands of one press have no other name
                key={n}
                points={pointsOf(bandOutline(band, side.right, side.up).map(at))}
                className="fill-scribe/25 stroke-scribe/60"
              />
            ))}
            {path.length > 1 && (
              <polyline
                points={pointsOf(path)}
                fill="none"
                stroke={crashes ? 'var(--color-stock)' : 'var(--color-scribe)'}
                strokeWidth={crashes ? 5 : 3}
                strokeDasharray={crashes ? '10 5' : undefined}
              />
            )}
            <ToolMark parts={parts} tip={tip} side={side} at={at} scale={window.scale} />
            {hit && <HitMark {...at(hit)} />}
            <text x={8} y={size.height - 8} className="fill-scribe text-base">
              {LETTERS[side.right]} right, {LETTERS[side.up]} up
            </text>
          </svg>
        )}
      </div>
      <figcaption className="pointer-events-none absolute top-1 left-2 text-sm font-semibold text-scribe">
        {side.label}
      </figcaption>
      <div className="absolute top-1 right-1 flex gap-1">
        {(
          [
            ['Closer', ZoomIn, () => zoom(1.4)],
            ['Farther', ZoomOut, () => zoom(1 / 1.4)],
            ['All of it', Maximize, () => setMoved(undefined)],
          ] as const
        ).map(([label, Icon, go]) => (
          <button
            key={label}
            type="button"
            aria-label={`${label}: ${side.label}`}
            onClick={go}
            className="inline-flex size-11 items-center justify-center rounded-sm text-scribe hover:bg-layout-deep"
          >
            <Icon aria-hidden size={20} />
          </button>
        ))}
      </div>
    </figure>
  )
}

function areaOf(body: Body, side: Side): number {
  const { least, greatest } = boundsOf(body)
  return (greatest[side.right] - least[side.right]) * (greatest[side.up] - least[side.up])
}

const pointsOf = (points: readonly { x: number; y: number }[]) =>
  points.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ')

type At = (point: Triple) => { x: number; y: number }

const FILLS: Record<Body['role'], string> = {
  part: 'fill-scribe/20',
  vise: 'fill-scribe-dim/15',
  clamp: 'fill-scribe-dim/35',
  stop: 'fill-scribe-dim/35',
  chuck: 'fill-scribe-dim/15',
}

/** Where a body stands in the view, and its name in it. */
function placeOf(body: Body, at: At) {
  const { least, greatest } = boundsOf(body)
  const [a, b] = [at(least), at(greatest)]
  const [x, y, width, height] = [
    Math.min(a.x, b.x),
    Math.min(a.y, b.y),
    Math.abs(b.x - a.x),
    Math.abs(b.y - a.y),
  ]
  return { x, y, width, height, name: { x: x + width / 2, y: y + height - 5 } }
}

/** The bodies whose names have room, none over another. */
function namedOnes(bodies: readonly Body[], at: At): Set<string> {
  const taken: { x: number; y: number; half: number }[] = []
  const named = new Set<string>()
  for (const body of bodies) {
    const { width, height, name } = placeOf(body, at)
    const half = 4.5 * body.name.length
    if (width < 2 * half || height < 19) continue
    if (
      taken.some((other) => Math.abs(other.x - name.x) < half + other.half && Math.abs(other.y - name.y) < 18)
    )
      continue
    taken.push({ ...name, half })
    named.add(body.id)
  }
  return named
}

function BodyMark({
  body,
  side,
  at,
  scale,
  lit,
  named,
}: {
  body: Body
  side: Side
  at: At
  scale: number
  lit: boolean
  named: boolean
}) {
  const { x, y, width, height, name } = placeOf(body, at)
  const edge = lit ? 'stroke-brass' : body.role === 'part' ? 'stroke-scribe' : 'stroke-scribe-dim'
  const look = `${FILLS[body.role]} ${edge} lights-up`
  // A tube that lies across the view: its two walls, and between them the bore.
  const bore = body.shape === 'cylinder' && body.bore && side.up === 0 ? body.bore * scale : 0
  const wall = { x, width, height: (height - bore) / 2 }
  const walls = bore
    ? [
        { ...wall, y },
        { ...wall, y: y + (height + bore) / 2 },
      ]
    : [{ x, y, width, height }]
  const endOn = body.shape === 'cylinder' && LETTERS[side.eye] === body.axis
  return (
    <g>
      {endOn ? (
        <circle
          cx={x + width / 2}
          cy={y + height / 2}
          r={(body.diameter / 2) * scale}
          className={look}
          strokeWidth={lit ? 3 : 1.5}
        />
      ) : (
        walls.map((wall) => <rect key={wall.y} {...wall} className={look} strokeWidth={lit ? 3 : 1.5} />)
      )}
      {named && (
        <text x={name.x} y={name.y} textAnchor="middle" className="fill-scribe text-base">
          {body.name}
        </text>
      )}
    </g>
  )
}

const TOOL_FILLS: Record<ToolPart['name'], string> = {
  cutter: 'fill-stock/70',
  shank: 'fill-stock/25',
  holder: 'fill-stock/25',
  nose: 'fill-stock/10 stroke-1',
  head: 'fill-none stroke-1',
  turret: 'fill-stock/5 stroke-1',
  station: 'fill-none stroke-1',
}

/** The tool where it stands: circles from above, its outline from the side. */
function ToolMark({
  parts,
  tip,
  side,
  at,
  scale,
}: {
  parts: readonly ToolPart[]
  tip: Triple
  side: Side
  at: At
  scale: number
}) {
  const { x, y } = at(tip)
  return (
    <g className="stroke-stock" strokeWidth={2}>
      {[...parts].reverse().map((part, index) => {
        const key = `${part.name}-${index}`
        const fill = TOOL_FILLS[part.name]
        if (part.form === 'round' && side.name === 'plan')
          return <circle key={key} cx={x} cy={y} r={Math.max(part.radius * scale, 2)} className={fill} />
        const { least, greatest } = partBox(part)
        const wide = Math.max((greatest[side.right] - least[side.right]) * scale, 2)
        const high = Math.max((greatest[side.up] - least[side.up]) * scale, 1)
        // Of what has no top as much as fills any drawing.
        const shown = Math.min(high, 20_000)
        return (
          <rect
            key={key}
            x={x + ((least[side.right] + greatest[side.right]) / 2) * scale - wide / 2}
            y={y - greatest[side.up] * scale + (high - shown)}
            width={wide}
            height={shown}
            className={fill}
            strokeDasharray={part.form === 'flat' && part.beside ? '4 4' : undefined}
          />
        )
      })}
      <path d={`M${x - 7} ${y}H${x + 7}M${x} ${y - 7}V${y + 7}`} />
    </g>
  )
}

/** Where it hits: a cross in a ring, on a ground that it stands out from. */
const HitMark = ({ x, y }: { x: number; y: number }) => (
  <g>
    <circle cx={x} cy={y} r={15} className="fill-hazard stroke-stock" strokeWidth={3} />
    <path d={`M${x - 6} ${y - 6}l12 12M${x + 6} ${y - 6}l-12 12`} className="stroke-stock" strokeWidth={3} />
  </g>
)
