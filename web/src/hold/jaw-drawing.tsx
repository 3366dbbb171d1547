import { dialRange, type JawSketch, type Tap } from '@dogleg/core/hold'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { useRef } from 'react'
import { Dial } from '../drawing/dial.tsx'
import { frame } from '../drawing/frame.ts'
import { Head, Words } from '../drawing/marks.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'
import { useDrag } from '../drawing/use-drag.ts'

const WIDTH = 470
const HEIGHT = 392
/** Where the face of the square jaw lies in the picture, and the bolt behind it. */
const FACE = 120
const BOLT = -58
const JAW = 34

/** A place that can be dragged: 'pivot', or the path of a swept point ('points.0.at'). */
export type JawHandle = 'pivot' | `points.${number}.at`

interface JawDrawingProps {
  sketch: JawSketch
  tap: Tap | undefined
  /** +1 where a plus on the dial means that the jaw comes towards it. */
  towardsDial: 1 | -1
  unit: LengthUnit
  /** What became of the other bolt. */
  held: string
  lit: string | undefined
  /** How far the tap has gone, 0 to 1. */
  progress: number
  onDrag: (handle: JawHandle, at: number) => void
}

/** The jaw from above, turned by its slope times a stated factor, and the dial at the far end. */
export function JawDrawing({ sketch, tap, towardsDial, unit, held, lit, progress, onDrag }: JawDrawingProps) {
  const svg = useRef<SVGSVGElement>(null)
  const margin = 0.04 * (sketch.greatest - sketch.least)
  const own = frame(sketch.least - margin, sketch.greatest + margin, {
    upright: false,
    from: 30,
    to: WIDTH - 30,
    middle: FACE,
  })
  const { frame: along, handlers } = useDrag<JawHandle>(svg, own, unit, onDrag)
  const { pivot, points, jawLength, slope, exaggeration } = sketch
  const drawnSlope = slope * towardsDial * exaggeration * (1 - progress)
  const bolt = along.place(pivot.at, BOLT)
  const turned = `rotate(${(Math.atan(drawnSlope) * 180) / Math.PI} ${bolt.x} ${FACE})`
  const [left, right] = [along.place(0, 0), along.place(jawLength, 0)]
  const length = (value: number) => formatLength(value, unit)
  const far = tap && points.find(({ at }) => at === tap.at)
  const shown = tap ? tap.from + (tap.target - tap.from) * progress : 0
  const range = tap ? dialRange(tap) : 1
  const onFace = (at: number) => {
    const { x } = along.place(at, 0)
    return { x, y: FACE + drawnSlope * (x - bolt.x) }
  }
  return (
    <CycleSheet
      ref={svg}
      label="Plan view of the fixed jaw with the bolt and the swept points, and the dial"
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-[25rem]"
    >
      <Words at={{ x: 14, y: 24 }} anchor="start" plain>
        from above; the dial stands in front
      </Words>
      <Words at={{ x: 20, y: HEIGHT - 16 }} anchor="start" plain>
        {slope === 0 ? '' : `angle drawn x${exaggeration}`}
      </Words>
      <line
        x1={20}
        y1={FACE}
        x2={WIDTH - 20}
        y2={FACE}
        stroke="var(--color-scribe-dim)"
        strokeDasharray="10 5"
        strokeWidth={1.5}
      />
      <g transform={turned}>
        <rect
          x={left.x}
          y={FACE - JAW}
          width={right.x - left.x}
          height={JAW}
          fill="var(--color-scribe)"
          fillOpacity={0.16}
          stroke="var(--color-scribe)"
          strokeWidth={2}
        />
        <line x1={left.x} y1={FACE} x2={right.x} y2={FACE} stroke="var(--color-scribe)" strokeWidth={3.5} />
      </g>

      <circle
        cx={along.place(sketch.otherBolt, 0).x}
        cy={bolt.y}
        r={11}
        fill="none"
        stroke="var(--color-scribe-dim)"
        strokeDasharray="3 3"
      />
      <Words at={{ x: along.place(sketch.otherBolt, 0).x, y: bolt.y + 28 }} plain>
        {held}
      </Words>

      <g {...handlers('pivot')} className="cursor-ew-resize">
        <circle cx={bolt.x} cy={bolt.y} r={24} fill="transparent" />
        <circle
          cx={bolt.x}
          cy={bolt.y}
          r={13}
          fill="var(--color-layout-deep)"
          stroke={lit === 'pivot' ? 'var(--color-brass)' : 'var(--color-scribe)'}
          strokeWidth={lit === 'pivot' ? 4 : 2}
          strokeDasharray={pivot.known ? undefined : '4 3'}
        />
        <path
          d={`M ${bolt.x - 6} ${bolt.y} h 12 M ${bolt.x} ${bolt.y - 6} v 12`}
          stroke="var(--color-scribe)"
          strokeWidth={2}
        />
        <Words at={{ x: bolt.x, y: bolt.y - 22 }} bold={lit === 'pivot'}>
          {pivot.known ? length(pivot.at) : 'bolt ?'}
        </Words>
        <line
          x1={bolt.x}
          y1={bolt.y + 13}
          x2={bolt.x}
          y2={FACE}
          stroke="var(--color-scribe-dim)"
          strokeDasharray="3 4"
        />
      </g>

      {points.map(({ at, known, reading, readingKnown }, index) => {
        const face = onFace(at)
        const handle: JawHandle = `points.${index}.at`
        const isLit = lit === handle || lit === `points.${index}.reading`
        const ends = index === 0 || index === points.length - 1
        return (
          <g key={handle} {...handlers(handle)} className="cursor-ew-resize">
            <rect x={face.x - 22} y={FACE + 14} width={44} height={70} fill="transparent" />
            <line
              x1={face.x}
              y1={face.y}
              x2={face.x}
              y2={FACE + 46}
              stroke="var(--color-brass)"
              strokeWidth={isLit ? 4 : 1.5}
            />
            <circle cx={face.x} cy={face.y} r={5} fill="var(--color-brass)" />
            <circle
              cx={face.x}
              cy={FACE + 50}
              r={8}
              fill={known ? 'var(--color-brass)' : 'var(--color-layout)'}
              stroke="var(--color-brass)"
              strokeWidth={2}
            />
            {(ends || isLit) && (
              <>
                <Words at={{ x: face.x, y: FACE + 80 }} ink="measured" bold={isLit}>
                  {known ? length(at) : '?'}
                </Words>
                <Words at={{ x: face.x, y: FACE + 80 }} row={1} ink="measured" bold={isLit} plain>
                  {readingKnown ? `reads ${formatLength(reading, unit, { plus: reading !== 0 })}` : 'reads ?'}
                </Words>
              </>
            )}
          </g>
        )
      })}

      {far && tap && tap.by > 0 && (
        <TapArrow
          at={{ x: along.place(far.at, 0).x, y: FACE }}
          down={tap.way === 'front'}
          rightwards={tap.side === 'right'}
        />
      )}
      <Dial
        at={{ x: 350, y: 298 }}
        radius={62}
        value={shown}
        target={tap?.target}
        range={range}
        known={tap !== undefined}
        label={(value) => formatLength(value, unit, { plus: true })}
        mark={(value) => String(Number(formatLength(value, unit)))}
      />
      <Words at={{ x: 20, y: 278 }} anchor="start" plain size={17}>
        {tap ? `Dial at ${length(tap.at)}` : 'Dial at the far end'}
      </Words>
      {tap && (
        <>
          <Words at={{ x: 20, y: 304 }} anchor="start" plain>
            reads
          </Words>
          <Words at={{ x: 120, y: 304 }} anchor="start" ink="measured" size={18}>
            {formatLength(tap.from, unit, { plus: true })}
          </Words>
          <Words at={{ x: 20, y: 330 }} anchor="start" plain>
            tap until
          </Words>
          <Words at={{ x: 120, y: 330 }} anchor="start" ink="measured" bold size={18}>
            {formatLength(tap.target, unit, { plus: true })}
          </Words>
        </>
      )}
    </CycleSheet>
  )
}

/** Which way the jaw goes at the tapped end. */
function TapArrow({
  at,
  down,
  rightwards,
}: {
  at: { x: number; y: number }
  down: boolean
  rightwards: boolean
}) {
  const x = at.x + (rightwards ? -30 : 30)
  const [from, to] = down ? [at.y - 82, at.y - 50] : [at.y + 26, at.y - 30]
  return (
    <g>
      <line x1={x} y1={from} x2={x} y2={to} stroke="var(--color-scribe)" strokeWidth={4} />
      <Head at={{ x, y: to + (down ? 6 : -6) }} dx={0} dy={down ? 1 : -1} />
      <Words at={{ x, y: Math.min(from, to) - 12 }} plain bold>
        tap
      </Words>
    </g>
  )
}
