import type { HoleSketch } from '@dogleg/core/cycles/tapping'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { type Frame, frame } from '../drawing/frame.ts'
import { Dimension, Words } from '../drawing/marks.tsx'
import { polygon } from '../drawing/plan.ts'
import { CycleSheet } from '../drawing/sheet.tsx'

interface HoleDrawingProps {
  sketch: HoleSketch
  unit: LengthUnit
  lit: string | undefined
  threadName: string
  /** How it turns, feeds and comes out, each with the fields that it comes from. */
  says: readonly (readonly [words: string, ...fields: string[]])[]
}

const WIDTH = 700
const HEIGHT = 244
const MIDDLE = 300

/** A tapped hole in section: what each depth measures, to scale. */
export function HoleDrawing({ sketch, unit, lit, threadName, says }: HoleDrawingProps) {
  const { wall, thread, thickness, drillDepth, r, deepest } = sketch
  const widest = Math.max(...wall.map(({ across }) => across), thread?.across ?? 0, 1e-6)
  const top = Math.min(r, -deepest * 0.04)
  const down: Frame = frame(top, deepest * 1.06, { upright: true, from: 40, to: HEIGHT - 12, middle: MIDDLE })
  // One scale both ways, unless the hole is so thin that nothing would be seen.
  const across = Math.min(110 / widest, Math.max(down.scale, 22 / widest))
  const at = (side: number, wide: number, depth: number) => down.place(depth, side * wide * across)
  const surface = down.place(0, 0).y
  const bottom = down.place(thickness ?? deepest * 1.06, 0).y
  const outline = [
    ...wall.map(({ across: wide, depth }) => at(-1, wide, depth)),
    ...[...wall].reverse().map(({ across: wide, depth }) => at(1, wide, depth)),
  ]
  const say = (value: number) => formatLength(value, unit)
  const is = (...fields: string[]) => lit !== undefined && fields.includes(lit)
  return (
    <CycleSheet
      label={`The hole in section: ${threadName}${thread ? `, full thread ${say(thread.full)}, tap tip ${say(thread.tip)}` : ''}, drilled ${say(drillDepth)}`}
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-full"
    >
      <defs>
        <pattern id="stock" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="9" stroke="var(--color-scribe-dim)" strokeWidth="1" />
        </pattern>
      </defs>
      <rect
        x={MIDDLE - 150}
        y={surface}
        width={300}
        height={Math.max(0, bottom - surface)}
        fill="url(#stock)"
      />
      <Face y={surface} />
      {thickness !== null && <Face y={bottom} />}
      <polygon
        points={polygon(outline)}
        fill="var(--color-layout)"
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      {thread && <Thread thread={thread} at={at} lit={is('thread', 'hand', 'feedMode')} />}
      <line
        x1={MIDDLE}
        x2={MIDDLE}
        y1={30}
        y2={HEIGHT - 8}
        stroke="var(--color-scribe-dim)"
        strokeDasharray="14 4 3 4"
      />
      <line
        x1={MIDDLE - 60}
        x2={MIDDLE + 60}
        y1={down.place(r, 0).y}
        y2={down.place(r, 0).y}
        stroke={is('rPlane') ? 'var(--color-brass)' : 'var(--color-scribe)'}
        strokeWidth={is('rPlane') ? 4 : 1.5}
        strokeDasharray="8 5"
      />
      <Words at={{ x: MIDDLE + 68, y: down.place(r, 0).y + 5 }} anchor="start" bold={is('rPlane')}>
        R {say(-r)}
      </Words>
      {thread && (
        <>
          <Dimension
            frame={down}
            from={0}
            to={thread.full}
            v={-170}
            base={-110}
            name="full thread"
            label={say(thread.full)}
            lit={is('threadDepth', 'thickness')}
          />
          <Dimension
            frame={down}
            from={0}
            to={thread.tip}
            v={170}
            base={110}
            name="tap tip"
            label={say(thread.tip)}
            lit={is('tapDepth', 'lead')}
          />
        </>
      )}
      <Dimension
        frame={down}
        from={0}
        to={drillDepth}
        v={thread ? 285 : 170}
        base={110}
        name="drilled"
        label={say(drillDepth)}
        lit={is('drillDepth')}
      />
      <Words at={{ x: 14, y: 24 }} anchor="start" bold={is('thread')} plain size={17}>
        {threadName}
      </Words>
      {says.map(([words, ...fields], index) => (
        <Words
          key={words}
          at={{ x: 14, y: HEIGHT - 14 }}
          row={index + 1 - says.length}
          anchor="start"
          bold={is(...fields)}
        >
          {words}
        </Words>
      ))}
    </CycleSheet>
  )
}

interface ThreadProps {
  thread: NonNullable<HoleSketch['thread']>
  at: (side: number, wide: number, depth: number) => { x: number; y: number }
  lit: boolean
}

const MOST_TURNS = 60

/** The flanks of the thread, turn by turn, as far as they are full. */
function Thread({ thread, at, lit }: ThreadProps) {
  const { across, drilled, pitch, full } = thread
  const turns = Math.min(MOST_TURNS, Math.floor(full / pitch))
  const flank = (side: number) =>
    Array.from({ length: turns }, (_, n) => [
      at(side, drilled, n * pitch),
      at(side, across, (n + 0.5) * pitch),
    ])
      .flat()
      .concat(at(side, drilled, turns * pitch))
  return (
    <g fill="none" stroke={lit ? 'var(--color-brass)' : 'var(--color-scribe)'} strokeWidth={lit ? 2.5 : 1.3}>
      {[-1, 1].map((side) => (
        <polyline key={side} points={polygon(flank(side))} />
      ))}
    </g>
  )
}

/** An outer face of the part. */
const Face = ({ y }: { y: number }) => (
  <line x1={MIDDLE - 150} x2={MIDDLE + 150} y1={y} y2={y} stroke="var(--color-scribe)" strokeWidth={2} />
)
