import {
  cylinderOutline,
  flatLines,
  onCylinder,
  seen,
  turningArrow,
  type WrapParams,
  type WrapSizes,
} from '@dogleg/core/cycles/wrapping'
import type { RotaryAxis } from '@dogleg/core/machine'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { useState } from 'react'
import { Head, Words } from '../drawing/marks.tsx'
import { plan, polygon } from '../drawing/plan.ts'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 700
const HEIGHT = 210
/** Where the flat view ends and the turned one begins. */
const MIDDLE = 350

interface WrapDrawingProps {
  params: WrapParams
  sizes: WrapSizes
  rotary: RotaryAxis | null
  unit: LengthUnit
  lit: string | undefined
}

const LAYOUT_FIELDS = new Set([
  'divisions',
  'span',
  'shortLine',
  'middleLine',
  'longLine',
  'text',
  'textHeight',
  'slots',
  'holes',
  'program',
  'numeralHeight',
])

/** The layout flat, round to the right and along the axis down; beside it on the cylinder, turned as wanted; the seam in both. */
export function WrapDrawing({ params, sizes, rotary, unit, lit }: WrapDrawingProps) {
  const [turned, setTurned] = useState(0)
  const { radius, mapped, about, seam, extent } = sizes
  const lines = flatLines(sizes)
  const say = (value: number) => formatLength(value, unit)
  const [x0, x1] = extent?.x ?? [-radius, 0]
  const reach = Math.max(radius, x1 - x0)
  const [from, to] = [x0 - 0.25 * reach, x1 + 0.25 * reach]
  const [y0, y1] = [Math.min(seam, extent?.y[0] ?? seam), Math.max(seam + about, extent?.y[1] ?? seam)]
  // Unrolled: round to the right, along the axis down.
  const flat = plan(
    { x: y0, y: -to },
    { x: y1, y: -from },
    { left: 20, top: 34, width: MIDDLE - 44, height: HEIGHT - 70 },
  )
  const unrolled = (x: number, y: number) => flat.place({ x: y, y: -x })
  const outline = cylinderOutline(from, to, radius)
  const all = [...outline.near, ...outline.far]
  const [xs, ys] = [all.map(({ x }) => x), all.map(({ y }) => y)]
  const view = plan(
    { x: Math.min(...xs), y: Math.min(...ys) },
    { x: Math.max(...xs), y: Math.max(...ys) },
    { left: MIDDLE + 30, top: 34, width: WIDTH - MIDDLE - 60, height: HEIGHT - 70 },
  )
  const round = (x: number, y: number) => {
    const at = onCylinder(x, y, radius, mapped, turned)
    return { ...view.place(at), near: at.near }
  }
  const sides = outline.sides
    .map((side) => `M${side.map((point) => Object.values(view.place(point)).join(' ')).join('L')}`)
    .join('')
  const ink = lit !== undefined && LAYOUT_FIELDS.has(lit) ? 'var(--color-brass)' : 'var(--color-scribe)'
  const zero = view.place(seen(to, 0, params.zZero === 'top' ? radius : 0))
  const is = (field: string) => lit === field
  return (
    <div className="flex h-full flex-col gap-1">
      <CycleSheet
        label={`The layout flat, ${say(about)} once round, and on the cylinder of ${say(2 * radius)}; ${sizes.gap < 0 ? `it overlaps by ${say(-sizes.gap)}` : `${say(sizes.gap)} left at the seam`}`}
        width={WIDTH}
        height={HEIGHT}
        tallest="max-h-full"
      >
        <polygon
          points={polygon([
            unrolled(from, seam),
            unrolled(to, seam),
            unrolled(to, seam + about),
            unrolled(from, seam + about),
          ])}
          fill="none"
          stroke="var(--color-scribe-dim)"
          strokeWidth={1}
        />
        {[seam, seam + about].map((y) => (
          <Seam key={y} a={unrolled(from, y)} b={unrolled(to, y)} />
        ))}
        <Marks lines={lines} place={unrolled} ink={ink} />
        <Words at={{ x: MIDDLE / 2, y: 20 }} plain>
          flat: once round is {say(about)}
        </Words>
        <Words at={{ x: MIDDLE / 2, y: HEIGHT - 12 }} bold={sizes.gap < 0}>
          {sizes.gap < 0 ? `overlaps ${say(-sizes.gap)}` : `${say(sizes.gap)} left at the seam`}
        </Words>
        <line
          x1={MIDDLE}
          x2={MIDDLE}
          y1={12}
          y2={HEIGHT - 12}
          stroke="var(--color-scribe-dim)"
          strokeWidth={1}
        />

        <polyline
          points={polygon(outline.far.map(view.place))}
          fill="none"
          stroke="var(--color-scribe-dim)"
          strokeWidth={1}
        />
        <polygon
          points={polygon(outline.near.map(view.place))}
          fill="none"
          stroke={is('diameter') ? 'var(--color-brass)' : 'var(--color-scribe)'}
          strokeWidth={is('diameter') ? 3.5 : 2}
        />
        <path d={sides} stroke="var(--color-scribe)" strokeWidth={2} />
        <NearSeam a={round(from, seam)} b={round(to, seam)} />
        <OnCylinder lines={lines} place={round} ink={ink} />
        <circle cx={zero.x} cy={zero.y} r={is('zZero') ? 7 : 4} fill="var(--color-brass)" />
        <Words at={{ x: zero.x + 10, y: zero.y - 8 }} anchor="start" bold={is('zZero')}>
          Z0
        </Words>
        {rotary && <Turning rotary={rotary} radius={radius} x={from} place={view.place} />}
        <Words at={{ x: WIDTH - 14, y: 20 }} anchor="end" plain>
          {rotary
            ? `${rotary.word} counts up: top goes ${rotary.top === 'front' ? 'to the front' : 'to the back'}`
            : 'which way it turns is not known'}
        </Words>
        <Words at={{ x: WIDTH - 14, y: HEIGHT - 12 }} anchor="end">
          R{say(mapped)}, {Math.round(sizes.turnsFrom)}° to {Math.round(sizes.turnsTo)}°
        </Words>
      </CycleSheet>
      <label className="flex min-h-11 items-center gap-3 text-sm">
        Turn the picture
        <input
          type="range"
          min={-360}
          max={360}
          step={5}
          value={turned}
          onChange={({ target }) => setTurned(Number(target.value))}
          className="h-11 flex-1 accent-ink"
        />
        <span className="digits w-14 text-right">{turned}°</span>
      </label>
    </div>
  )
}

type Seen = { x: number; y: number }
type Line = readonly (readonly [number, number])[]
/** Pieces that a stroke is drawn in where it goes round. */
const PIECES = 24

const Seam = ({ a, b }: { a: Seen; b: Seen }) => (
  <line
    x1={a.x}
    y1={a.y}
    x2={b.x}
    y2={b.y}
    stroke="var(--color-brass)"
    strokeWidth={2}
    strokeDasharray="10 5"
  />
)

const NearSeam = ({ a, b }: { a: Seen & { near: boolean }; b: Seen }) =>
  a.near ? <Seam a={a} b={b} /> : null

/** The lines of the flat view; a hole is a dot. */
function Marks({
  lines,
  place,
  ink,
}: {
  lines: readonly Line[]
  place: (x: number, y: number) => Seen
  ink: string
}) {
  return (
    <g fill="none" stroke={ink} strokeWidth={1.5} strokeLinejoin="round" strokeLinecap="round">
      {lines.map((line, n) => {
        const points = line.map(([x, y]) => place(x, y))
        const [first] = points
        return points.length === 1 && first ? (
          // biome-ignore lint/suspicious/noArrayIndexKey: a line is known by its place in the layout
          <circle key={n} cx={first.x} cy={first.y} r={4} />
        ) : (
          // biome-ignore lint/suspicious/noArrayIndexKey: a line is known by its place in the layout
          <polyline key={n} points={polygon(points)} />
        )
      })}
    </g>
  )
}

/** Pieces of a line on the cylinder, each on one side of it; a long way round follows the face. */
function piecesOf(line: Line, place: (x: number, y: number) => Seen & { near: boolean }) {
  const points = line.flatMap(([x, y], at) => {
    const [px, py] = line[at - 1] ?? [x, y]
    const pieces = at === 0 ? 1 : PIECES
    return Array.from({ length: pieces }, (_, piece) =>
      place(px + ((x - px) * (piece + 1)) / pieces, py + ((y - py) * (piece + 1)) / pieces),
    )
  })
  const pieces: { near: boolean; points: Seen[] }[] = []
  for (const point of points) {
    const last = pieces.at(-1)
    if (last) last.points.push(point)
    if (!last || last.near !== point.near) pieces.push({ near: point.near, points: [point] })
  }
  return pieces
}

/** The lines on the near side, full; those behind, faint. */
function OnCylinder({
  lines,
  place,
  ink,
}: {
  lines: readonly Line[]
  place: (x: number, y: number) => Seen & { near: boolean }
  ink: string
}) {
  return (
    <g fill="none" strokeLinejoin="round" strokeLinecap="round">
      {lines.flatMap((line, n) =>
        piecesOf(line, place).map(({ near, points }, piece) => {
          const look = {
            stroke: near ? ink : 'var(--color-scribe-dim)',
            strokeWidth: near ? 1.8 : 1,
            strokeOpacity: near ? 1 : 0.4,
          }
          const [first] = points
          const key = `${n}-${piece}`
          return line.length === 1 && first ? (
            <circle key={key} cx={first.x} cy={first.y} r={3.5} {...look} />
          ) : (
            <polyline key={key} points={polygon(points)} {...look} />
          )
        }),
      )}
    </g>
  )
}

/** An arrow over the far end: the way that the top goes as the axis counts up. */
function Turning({
  rotary,
  radius,
  x,
  place,
}: {
  rotary: RotaryAxis
  radius: number
  x: number
  place: (at: Seen) => Seen
}) {
  const points = turningArrow(x, radius, rotary.top === 'front' ? -1 : 1).map(place)
  const [before, end] = [points.at(-2), points.at(-1)]
  return (
    <g>
      <polyline points={polygon(points)} fill="none" stroke="var(--color-brass)" strokeWidth={2} />
      {before && end && <Head at={end} dx={end.x - before.x} dy={end.y - before.y} ink="measured" />}
    </g>
  )
}
