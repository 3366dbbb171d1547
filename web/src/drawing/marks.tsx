import type { ReactNode } from 'react'
import { useExample, withoutNumbers } from './example.ts'
import type { Frame, Point } from './frame.ts'
import { readable } from './readable.ts'

/** How a mark of the drawing stands: lit while its field has the focus, dim while its number is not known yet. */
export interface MarkState {
  lit?: boolean
  known?: boolean
}

const INK = { measured: 'var(--color-brass)', part: 'var(--color-scribe)' }
type Ink = keyof typeof INK

const look = ({ lit, known = true }: MarkState, ink: Ink) => ({
  stroke: known || lit ? INK[ink] : 'var(--color-scribe-dim)',
  strokeWidth: lit ? 3.5 : 1.5,
  ...(known ? {} : { strokeDasharray: '5 4' }),
})

const line = (a: Point, b: Point) => ({ x1: a.x, y1: a.y, x2: b.x, y2: b.y })

/** A straight scribed line. */
export function Scribe({
  from,
  to,
  ink = 'part',
  ...state
}: MarkState & { from: Point; to: Point; ink?: Ink }) {
  return <line {...line(from, to)} {...look(state, ink)} className="lights-up" />
}

/** What touched: a finder's tip, a stylus' ball, the place of a sensor. */
export function Tip({ at, radius, lit }: { at: Point; radius: number; lit: boolean }) {
  return (
    <circle
      cx={at.x}
      cy={at.y}
      r={radius}
      fill="var(--color-brass)"
      fillOpacity={0.25}
      stroke="var(--color-brass)"
      strokeWidth={lit ? 4 : 2}
      className="lights-up"
    />
  )
}

/** So far one row of words lies below another, of their height. */
const ROW_EM = 1.15

/**
 * Words on the drawing, read at arm's length: never below the size of the page's own text, however small the drawing stands on it, with
 * a ground of layout blue so that lines do not run through.
 */
export function Words({
  at,
  anchor = 'middle',
  children,
  ink = 'part',
  bold,
  size = 16,
  plain,
  row = 0,
}: {
  at: Point
  anchor?: 'start' | 'middle' | 'end'
  children: ReactNode
  ink?: Ink
  bold?: boolean | undefined
  size?: number
  /** Words rather than digits: the type for words. */
  plain?: boolean
  /** So many rows below the place; above it where it is less than 0. */
  row?: number
}) {
  const example = useExample()
  return (
    <text
      x={at.x}
      y={at.y}
      textAnchor={anchor}
      fill={INK[ink]}
      dy={row === 0 ? undefined : `${row * ROW_EM}em`}
      style={{ fontSize: readable(size) }}
      fontWeight={bold ? 600 : 400}
      stroke="var(--color-layout)"
      strokeWidth={5}
      strokeLinejoin="round"
      paintOrder="stroke"
      className={`lights-up ${plain ? '' : 'digits'}`}
    >
      {example ? withoutNumbers(children) : children}
    </text>
  )
}

/** An arrow head at `at`, pointing along (dx, dy). */
export function Head({
  at,
  dx,
  dy,
  ink = 'part',
  lit,
  known,
}: MarkState & { at: Point; dx: number; dy: number; ink?: Ink }) {
  const length = Math.hypot(dx, dy) || 1
  const [ux, uy] = [dx / length, dy / length]
  const back = { x: at.x - 10 * ux, y: at.y - 10 * uy }
  const points = [at, { x: back.x - 4 * uy, y: back.y + 4 * ux }, { x: back.x + 4 * uy, y: back.y - 4 * ux }]
  return (
    <polygon
      points={points.map(({ x, y }) => `${x},${y}`).join(' ')}
      fill={known === false && !lit ? 'var(--color-scribe-dim)' : INK[ink]}
    />
  )
}

interface DimensionProps extends MarkState {
  frame: Frame
  from: number
  to: number
  /** Where the dimension line lies, across the axis. */
  v: number
  /** Where its extension lines begin. */
  base?: number
  ink?: Ink
  label: string
  /** A few words above the number. */
  name: string
  /** How far along the axis, in SVG units, the words stand aside where the dimension is too short for them. */
  aside?: number
}

/** A dimension between two places of the axis, with its name and number. Arrows point inwards where there is no room between. */
export function Dimension({
  frame,
  from,
  to,
  v,
  base = 0,
  ink = 'part',
  label,
  name,
  aside = 0,
  ...state
}: DimensionProps) {
  const { place, upright } = frame
  const [a, b] = [place(from, v), place(to, v)]
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  const wide = Math.hypot(dx, dy) > 34
  const over = Math.sign(v - base) * 6
  const way = wide ? 1 : -1
  const tail = wide ? 0 : 24
  const length = Math.hypot(dx, dy) || 1
  const [ux, uy] = [dx / length, dy / length]
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }
  const away = v < base ? -1 : 1
  const beside = Math.hypot(dx, dy) > 2 * Math.abs(aside) ? 0 : aside
  const text = upright
    ? { x: middle.x + away * (wide ? 10 : 14), y: middle.y - 2 - beside }
    : { x: middle.x + beside, y: middle.y + (away < 0 ? -26 : 22) }
  const anchor = upright ? (away < 0 ? 'end' : 'start') : 'middle'
  return (
    <g>
      {[from, to].map((u, index) => (
        <line
          key={index === 0 ? 'from' : 'to'}
          {...line(place(u, base), place(u, v + over))}
          stroke="var(--color-scribe-dim)"
          strokeWidth={1}
        />
      ))}
      <line
        {...line({ x: a.x - tail * ux, y: a.y - tail * uy }, { x: b.x + tail * ux, y: b.y + tail * uy })}
        {...look(state, ink)}
        className="lights-up"
      />
      <Head at={a} dx={-dx * way} dy={-dy * way} ink={ink} {...state} />
      <Head at={b} dx={dx * way} dy={dy * way} ink={ink} {...state} />
      <Words at={text} anchor={anchor} ink={ink} plain>
        {name}
      </Words>
      <Words at={text} row={1} anchor={anchor} ink={ink} bold={state.lit}>
        {label}
      </Words>
    </g>
  )
}

/** A place on the axis with a leader and its machine position. */
export function Position({
  frame,
  at,
  from,
  to,
  name,
  label,
  ...state
}: MarkState & { frame: Frame; at: number; from: number; to: number; name: string; label: string }) {
  const end = frame.place(at, to)
  const away = Math.sign(to - from)
  const text = frame.upright
    ? { x: end.x + away * 6, y: end.y - 3 }
    : { x: end.x, y: end.y + (away < 0 ? -24 : 18) }
  const anchor = frame.upright ? (away < 0 ? 'end' : 'start') : 'middle'
  return (
    <g>
      <Scribe from={frame.place(at, from)} to={end} ink="measured" {...state} />
      <Words at={text} anchor={anchor} ink="measured" plain>
        {name}
      </Words>
      <Words at={text} row={1} anchor={anchor} ink="measured" bold={state.lit}>
        {label}
      </Words>
    </g>
  )
}

/** Part zero: a line across the part and the name of the axis at zero. */
export function ZeroLine({
  frame,
  at,
  reach,
  name,
}: {
  frame: Frame
  at: number
  reach: number
  name: string
}) {
  const [a, b] = [frame.place(at, -reach), frame.place(at, reach)]
  // Upright over the line's own end: what is left of that is for positions.
  const text = { x: a.x, y: a.y - 8 }
  return (
    <g>
      <line {...line(a, b)} stroke="var(--color-scribe)" strokeWidth={2} strokeDasharray="14 4 3 4" />
      <Words at={text} anchor={frame.upright ? 'start' : 'middle'} bold size={18}>
        {name}
      </Words>
    </g>
  )
}
