import { formatLength } from '@dogleg/core/quantity'
import type { Frame } from '../../drawing/frame.ts'
import { Head, Position, Scribe, Words, ZeroLine } from '../../drawing/marks.tsx'
import { Bodies, Body, DrawingPosition, Of, type PartProps } from './parts.tsx'

/** The indicator's own radius, written on its arm. */
function SwingWords({
  frame,
  from,
  to,
  v,
  label,
}: {
  frame: Frame
  from: number
  to: number
  v: number
  label: string
}) {
  const middle = frame.place((from + to) / 2, v)
  const side = v < 0 ? -1 : 1
  const at = frame.upright ? { x: middle.x + side * 8, y: middle.y + 5 } : { x: middle.x, y: middle.y - 8 }
  const anchor = frame.upright ? (side < 0 ? 'end' : 'start') : 'middle'
  return (
    <Words at={at} anchor={anchor} ink="measured" plain>
      swing {label}
    </Words>
  )
}

/** The indicator on both sides of one plane, in plan: on the face itself, and on an insert held against it. */
export function Indicator(props: PartProps) {
  const { sketch, frame, unit, mark, number, onPick } = props
  const bothKnown = sketch.known.has('minusSide') && sketch.known.has('plusSide')
  const insert = 0.1 * sketch.tip
  const sides = [
    {
      field: 'minusSide' as const,
      at: sketch.spindles[0]?.at ?? 0,
      v: 48,
      to: frame.upright ? 104 : 150,
      name: 'minus side',
    },
    {
      field: 'plusSide' as const,
      at: sketch.spindles[1]?.at ?? 0,
      v: -48,
      to: frame.upright ? -96 : -150,
      name: 'plus side',
    },
  ]
  const label = frame.place(sketch.feature - insert, -70)
  return (
    <>
      <Bodies sketch={sketch} frame={frame} v1={0} v2={84} />
      <Body frame={frame} from={sketch.feature - insert} to={sketch.feature} v1={-84} v2={24} />
      <Words at={{ x: label.x - 8, y: label.y + (frame.upright ? 16 : 0) }} anchor="end" plain>
        ground insert,
      </Words>
      <Words at={{ x: label.x - 8, y: label.y + (frame.upright ? 16 : 0) }} row={1} anchor="end" plain>
        pressed flat
      </Words>
      {/* How it is held: pressed flat on the face, its free half beside the part, so that its far side is the same plane. */}
      <Head
        at={frame.place(sketch.feature - insert, -14)}
        dx={frame.place(sketch.feature, -14).x - frame.place(sketch.feature - insert, -14).x}
        dy={frame.place(sketch.feature, -14).y - frame.place(sketch.feature - insert, -14).y}
      />
      {sketch.zero !== sketch.feature && (
        <ZeroLine frame={frame} at={sketch.zero} reach={104} name={`${sketch.axis}0`} />
      )}
      {sides.map(({ field, at, v, to, name }) => {
        const centre = frame.place(at, v)
        const { lit, known } = mark(field)
        return (
          <Of key={field} field={field} onPick={onPick}>
            <Scribe
              from={centre}
              to={frame.place(sketch.feature, v)}
              ink="measured"
              lit={lit}
              known={known}
            />
            <Head
              at={frame.place(sketch.feature, v)}
              dx={frame.place(sketch.feature, v).x - centre.x}
              dy={frame.place(sketch.feature, v).y - centre.y}
              ink="measured"
            />
            <circle
              cx={centre.x}
              cy={centre.y}
              r={13}
              fill="var(--color-layout)"
              stroke="var(--color-brass)"
              strokeWidth={lit ? 4 : 2}
              className="lights-up"
            />
            <circle cx={centre.x} cy={centre.y} r={2.5} fill="var(--color-brass)" />
            <SwingWords
              frame={frame}
              from={at}
              to={sketch.feature}
              v={v}
              label={bothKnown ? formatLength(sketch.tip / 2, unit) : '?'}
            />
            <Position
              frame={frame}
              at={at}
              from={v + Math.sign(v) * 13}
              to={to}
              name={name}
              label={number(field, at)}
              lit={lit}
              known={known}
            />
          </Of>
        )
      })}
      {sketch.zero === sketch.feature && (
        <ZeroLine frame={frame} at={sketch.zero} reach={104} name={`${sketch.axis}0`} />
      )}
      <DrawingPosition {...props} v={128} base={84} />
    </>
  )
}
