import type { Stock, StockField } from '@dogleg/core/pickup'
import { formatLength } from '@dogleg/core/quantity'
import { Scribe, Words } from '../drawing/marks.tsx'
import { plan } from '../drawing/plan.ts'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 470
const HEIGHT = 500
/** The plan stands above, the view from the front below it, on one scale. */
const PLAN = { left: 96, top: 56, width: WIDTH - 192, height: 220 }
const FRONT = { top: 352, height: 96 }
/** What comes off is drawn no thinner than this, so that it can be seen. */
const LEAST_OFF = 9

type Lit = StockField | 'zeroX' | 'zeroY' | 'zeroZ' | undefined

const GHOST = { fill: 'var(--color-brass)', fillOpacity: 0.3, stroke: 'var(--color-brass)', strokeWidth: 1.5 }
const PART = { fill: 'var(--color-scribe)', fillOpacity: 0.13, stroke: 'var(--color-scribe)', strokeWidth: 2 }

/** How thick what comes off a face is drawn, in SVG units; a little where nobody knows it. */
const off = (value: number | undefined, scale: number) =>
  value === undefined ? LEAST_OFF : value < 1e-6 ? 0 : Math.max(LEAST_OFF, value * scale)

/**
 * The finished part in the block that was measured, in plan and from the front: what comes off each face, and where part zero stands. The
 * part is to scale; what comes off is drawn thick enough to be seen, and its number says how much.
 */
export function StockDrawing({
  stock,
  zero,
  lit,
}: {
  stock: Stock
  zero: { x: number; y: number; z: number }
  lit: Lit
}) {
  const { X, Y, Z, unit } = stock
  const high = Z.finished ?? Math.max(X.finished, Y.finished) / 3
  const spare = (value: number | undefined) => Math.max(0, value ?? 0)
  const { scale, place } = plan(
    { x: -spare(X.low), y: -spare(Y.low) },
    { x: X.finished + spare(X.high), y: Y.finished + spare(Y.high) },
    PLAN,
    FRONT.height / (high + spare(Z.bottom)),
  )
  const [a, b] = [place({ x: 0, y: Y.finished }), place({ x: X.finished, y: 0 })]
  const number = (value: number | undefined) => (value === undefined ? '?' : formatLength(value, unit))
  const [left, right] = [off(X.low, scale), off(X.high, scale)]
  const [front, back] = [off(Y.low, scale), off(Y.high, scale)]
  const [top, bottom] = [off(Z.top, scale), off(Z.bottom, scale)]
  const below = { y: FRONT.top, height: high * scale }
  const at = {
    x: place({ x: zero.x, y: 0 }).x,
    y: place({ x: 0, y: zero.y }).y,
    z: FRONT.top - (zero.z > 0 ? top : 0),
  }
  const hot = (...fields: Lit[]) => fields.includes(lit)
  const strong = (on: boolean) => (on ? { strokeWidth: 4 } : {})
  return (
    <CycleSheet
      label="The part in its block, in plan and from the front"
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-[31.5rem]"
    >
      <rect
        x={a.x - left}
        y={a.y - back}
        width={b.x - a.x + left + right}
        height={b.y - a.y + front + back}
        {...GHOST}
        {...strong(hot('offX', 'offY'))}
      />
      <rect x={a.x} y={a.y} width={b.x - a.x} height={b.y - a.y} fill="var(--color-layout)" />
      <rect x={a.x} y={a.y} width={b.x - a.x} height={b.y - a.y} {...PART} {...strong(hot('X', 'Y'))} />
      <rect
        x={a.x - left}
        y={below.y - top}
        width={b.x - a.x + left + right}
        height={below.height + top + bottom}
        {...GHOST}
        {...strong(hot('offTop', 'seat'))}
      />
      <rect x={a.x} y={below.y} width={b.x - a.x} height={below.height} fill="var(--color-layout)" />
      <rect x={a.x} y={below.y} width={b.x - a.x} height={below.height} {...PART} {...strong(hot('Z'))} />
      <g
        stroke="var(--color-scribe)"
        strokeWidth={hot('zeroX', 'zeroY', 'zeroZ') ? 3.5 : 2}
        strokeDasharray="14 4 3 4"
        className="lights-up"
      >
        <line x1={at.x - 40} x2={at.x + 40} y1={at.y} y2={at.y} />
        <line x1={at.x} x2={at.x} y1={at.y - 40} y2={at.y + 40} />
        <line x1={a.x - left - 22} x2={b.x + right + 22} y1={at.z} y2={at.z} />
      </g>
      <Words at={{ x: at.x + 8, y: at.y - 8 }} anchor="start" bold>
        X0 Y0
      </Words>
      <Words at={{ x: a.x - left - 28, y: at.z + 5 }} anchor="end" bold>
        Z0
      </Words>
      <Words
        at={{ x: a.x - left - 8, y: (a.y + b.y) / 2 + 5 }}
        anchor="end"
        ink="measured"
        bold={hot('offX')}
      >
        {number(X.low)}
      </Words>
      <Words at={{ x: b.x + right + 8, y: (a.y + b.y) / 2 + 5 }} anchor="start" ink="measured">
        {number(X.high)}
      </Words>
      <Words at={{ x: (a.x + b.x) / 2, y: a.y - back - 8 }} ink="measured">
        {number(Y.high)}
      </Words>
      <Words at={{ x: (a.x + b.x) / 2, y: b.y + front + 20 }} ink="measured" bold={hot('offY')}>
        {number(Y.low)}
      </Words>
      <Words
        at={{ x: b.x + right + 8, y: below.y - top - 2 }}
        anchor="start"
        ink="measured"
        bold={hot('offTop')}
      >
        {number(Z.top)}
      </Words>
      <Words
        at={{ x: b.x + right + 8, y: below.y + below.height + bottom / 2 + 5 }}
        anchor="start"
        ink="measured"
      >
        {number(Z.bottom)}
      </Words>
      <Scribe from={{ x: 14, y: FRONT.top - 52 }} to={{ x: WIDTH - 14, y: FRONT.top - 52 }} />
      <Words at={{ x: 14, y: 22 }} anchor="start" plain>
        From above
      </Words>
      <Words at={{ x: 14, y: FRONT.top - 30 }} anchor="start" plain>
        From the front
      </Words>
      <Words at={{ x: 14, y: HEIGHT - 12 }} anchor="start" ink="measured" plain>
        What must come off; drawn thicker than it is
      </Words>
    </CycleSheet>
  )
}
