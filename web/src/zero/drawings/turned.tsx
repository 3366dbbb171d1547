import { Dimension, Position, ZeroLine } from '../../drawing/marks.tsx'
import { Bodies, DrawingPosition, Of, type PartProps } from './parts.tsx'

/** A turned bar with the tool at its diameter (X up), or at its face (Z to the right). */
export function Turned(props: PartProps) {
  const { sketch, frame, mark, number, onPick } = props
  const { upright } = frame
  const at = sketch.feature
  const tip = frame.place(at, 0)
  const size = 34
  // The tool comes from above on the diameter, from the right on the face.
  const tool = upright
    ? `M ${tip.x} ${tip.y} l ${size} ${-size} h ${size} v ${-size} h ${-2 * size} z`
    : `M ${tip.x} ${tip.y} l ${size} ${-size} v ${-size} h ${size} v ${2 * size} z`
  const centre = upright ? undefined : frame.place(sketch.least, 70)
  return (
    <>
      <Bodies sketch={sketch} frame={frame} v1={-90} v2={upright ? 60 : 70} />
      {centre && (
        <line
          x1={centre.x}
          x2={frame.place(at, 0).x + 20}
          y1={centre.y - 80}
          y2={centre.y - 80}
          stroke="var(--color-scribe-dim)"
          strokeDasharray="14 4 3 4"
        />
      )}
      <path
        d={tool}
        fill="var(--color-brass)"
        fillOpacity={0.25}
        stroke="var(--color-brass)"
        strokeWidth={2}
      />
      <Of field="machinePosition" onPick={onPick}>
        <Position
          frame={frame}
          at={at}
          from={0}
          to={upright ? -112 : 120}
          name="machine"
          label={number('machinePosition', at)}
          {...mark('machinePosition')}
        />
      </Of>
      <ZeroLine frame={frame} at={sketch.zero} reach={upright ? 100 : 110} name={`${sketch.axis}0`} />
      {sketch.kind === 'turned' && (
        <Of field="measured" onPick={onPick}>
          <Dimension
            frame={frame}
            from={sketch.bodies[0]?.from ?? at}
            to={at}
            v={100}
            base={60}
            ink="measured"
            name="diameter"
            label={number('measured', at - sketch.zero)}
            {...mark('measured')}
          />
        </Of>
      )}
      {sketch.kind === 'faced' && <DrawingPosition {...props} v={-152} base={-90} />}
    </>
  )
}
