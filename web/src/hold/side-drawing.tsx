import type { SideBox, SideSketch, ViseState } from '@dogleg/core/hold'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { useRef } from 'react'
import { frame } from '../drawing/frame.ts'
import { Dimension, Words } from '../drawing/marks.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'
import { useDrag } from '../drawing/use-drag.ts'

const WIDTH = 520
const HEIGHT = 318
const SIDE = 14
/** Where the top of the table lies. */
const TABLE = 172

interface SideDrawingProps {
  sketch: SideSketch
  state: ViseState
  unit: LengthUnit
  /** Fixed jaw along the table, as it is typed; undefined while it is not: then it stands anywhere, and nothing is said of it. */
  jawAt: number | undefined
  lit: string | undefined
  onDrag: (jawAt: number) => void
}

/** The table with its vise from the side, to scale, and what stands round it. */
export function SideDrawing({ sketch, state, unit, jawAt, lit, onDrag }: SideDrawingProps) {
  const svg = useRef<SVGSVGElement>(null)
  const own = frame(sketch.least, sketch.greatest, {
    upright: false,
    from: SIDE,
    to: WIDTH - SIDE,
    middle: TABLE,
  })
  const { frame: along, handlers } = useDrag<'jaw'>(svg, own, unit, (_, at) => onDrag(at - sketch.table.from))
  const { scale } = along
  const rect = ({ from, to, bottom, top }: SideBox) => ({
    x: along.place(from, 0).x,
    y: TABLE - top * scale,
    width: Math.max(1, (to - from) * scale),
    height: Math.max(1, (top - bottom) * scale),
  })
  const other: ViseState = state === 'open' ? 'closed' : 'open'
  const jaw = along.place(sketch.jaw, 0).x
  const jawTop = TABLE - Math.max(...sketch.vise[state].map(({ top }) => top)) * scale
  const jawLit = lit === 'jawAt'
  return (
    <CycleSheet
      ref={svg}
      label="Side view of table and vise with what stands round them, to scale"
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-[20rem]"
    >
      <Words at={{ x: SIDE, y: 24 }} anchor="start" plain>
        front
      </Words>
      <Words at={{ x: WIDTH / 2, y: 24 }} plain>
        from the side, to scale; vise {state}
      </Words>
      <Words at={{ x: WIDTH - SIDE, y: 24 }} anchor="end" plain>
        back
      </Words>
      {sketch.obstacles.map((each) => {
        const box = rect(each)
        return (
          <g key={each.name}>
            <rect
              {...box}
              fill="var(--color-layout-deep)"
              stroke={lit === 'lowestZ' && each.comesDown ? 'var(--color-brass)' : 'var(--color-scribe-dim)'}
              strokeWidth={lit === 'lowestZ' && each.comesDown ? 3.5 : 1.5}
              className="lights-up"
            />
            <Words
              at={{
                x: each.side === 'back' ? box.x + box.width : box.x,
                // What comes down with the head has its name above it, what stands below has it underneath.
                y: each.comesDown ? box.y - 7 : box.y + box.height + 18,
              }}
              anchor={each.side === 'back' ? 'end' : 'start'}
              plain
            >
              {each.name}
            </Words>
          </g>
        )
      })}
      <rect
        {...rect(sketch.table)}
        fill="var(--color-scribe)"
        fillOpacity={0.2}
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      {sketch.vise[other].map((each) => (
        <rect
          key={each.name}
          {...rect(each)}
          fill="none"
          stroke="var(--color-scribe-dim)"
          strokeWidth={1.2}
          strokeDasharray="4 4"
        />
      ))}
      {sketch.vise[state].map((each) => (
        <rect
          key={each.name}
          {...rect(each)}
          fill="var(--color-scribe)"
          fillOpacity={0.16}
          stroke="var(--color-scribe)"
          strokeWidth={2}
        />
      ))}
      {(jawAt === undefined ? [] : sketch.gaps).map(({ side, from, to, height }) =>
        to < from ? (
          <Overlap
            key={side}
            from={along.place(to, 0).x}
            to={along.place(from, 0).x}
            y={TABLE - height * scale}
          />
        ) : (
          <Dimension
            key={side}
            frame={along}
            from={from}
            to={to}
            v={side === 'back' ? 96 : 66}
            base={-height * scale}
            ink="measured"
            lit={lit === 'wanted'}
            name={side === 'back' ? 'back' : 'front'}
            label={formatLength(to - from, unit)}
            aside={side === 'back' ? -40 : 40}
          />
        ),
      )}
      <g {...handlers('jaw')} className="cursor-ew-resize">
        <line
          x1={jaw}
          y1={jawTop - 14}
          x2={jaw}
          y2={TABLE + 34}
          stroke="var(--color-brass)"
          strokeWidth={jawLit ? 4 : 2}
          className="lights-up"
        />
        <circle cx={jaw} cy={jawTop - 20} r={24} fill="transparent" />
        <circle cx={jaw} cy={jawTop - 20} r={9} fill="var(--color-brass)" />
        <Words at={{ x: jaw - 16, y: jawTop - 15 }} anchor="end" ink="measured" bold={jawLit}>
          {jawAt === undefined ? '?' : formatLength(jawAt, unit)}
        </Words>
      </g>
    </CycleSheet>
  )
}

/** Where two things would have to be at one place. */
function Overlap({ from, to, y }: { from: number; to: number; y: number }) {
  return (
    <g>
      <rect
        x={from}
        y={y - 16}
        width={Math.max(4, to - from)}
        height={32}
        fill="var(--color-hazard)"
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      <Words at={{ x: (from + to) / 2, y: y - 24 }} plain bold>
        hits
      </Words>
    </g>
  )
}
