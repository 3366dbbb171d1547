import { Dimension, Head, Position, Scribe, Tip, ZeroLine } from '../../drawing/marks.tsx'
import { Bodies, DrawingPosition, Of, type PartProps } from './parts.tsx'

const LEAST_RADIUS = 10

/** The finder or stylus against the face, or a sensor over it, in plan, with the way that the spindle moved. */
export function EdgeFinder(props: PartProps & { directionLit: boolean }) {
  const { sketch, frame, mark, number, onPick, directionLit } = props
  const at = sketch.spindles[0]?.at ?? 0
  const s = sketch.direction === '+' ? 1 : -1
  const radius = Math.max(LEAST_RADIUS, (sketch.tip / 2) * frame.scale)
  const contact = frame.place(sketch.feature, 0)
  const spindle = frame.place(at, 0)
  // Where the finder is too small to see, it is drawn larger, still touching the face.
  const centre =
    radius > LEAST_RADIUS || sketch.tip === 0
      ? spindle
      : frame.upright
        ? { x: contact.x, y: contact.y + s * radius }
        : { x: contact.x - s * radius, y: contact.y }
  const tail = frame.place(at - 2.2 * s * Math.max(sketch.tip, (2 * radius) / frame.scale), 0)
  const back = {
    x: centre.x - (frame.upright ? 0 : s * radius),
    y: centre.y + (frame.upright ? s * radius : 0),
  }
  const knownWay = sketch.known.has('direction')
  return (
    <>
      <Bodies sketch={sketch} frame={frame} v1={-56} v2={56} />
      <ZeroLine frame={frame} at={sketch.zero} reach={78} name={`${sketch.axis}0`} />
      {sketch.tip > 0 && (
        <>
          <Scribe from={tail} to={back} ink="measured" known={knownWay} lit={directionLit} />
          <Head
            at={back}
            dx={contact.x - tail.x}
            dy={contact.y - tail.y}
            ink="measured"
            known={knownWay}
            lit={directionLit}
          />
        </>
      )}
      <Of field="diameter" onPick={onPick}>
        <Tip at={centre} radius={radius} lit={mark('diameter').lit} />
        {sketch.tip > 0 && (
          <Dimension
            frame={frame}
            from={at}
            to={sketch.feature}
            v={96}
            base={0}
            ink="measured"
            name="half the tip"
            label={number('diameter', sketch.tip / 2)}
            {...mark('diameter')}
          />
        )}
      </Of>
      <Of field="machinePosition" onPick={onPick}>
        <Position
          frame={frame}
          at={at}
          from={0}
          to={frame.upright ? -80 : -124}
          name="machine"
          label={number('machinePosition', at)}
          {...mark('machinePosition')}
        />
      </Of>
      <DrawingPosition {...props} v={96} base={56} aside={s * (frame.upright ? 44 : 80)} />
    </>
  )
}
