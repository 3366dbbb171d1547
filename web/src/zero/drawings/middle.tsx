import { Dimension, Position, Scribe, Tip, ZeroLine } from '../../drawing/marks.tsx'
import { Bodies, DrawingPosition, Of, type PartProps } from './parts.tsx'

const LEAST_RADIUS = 7

/** Two faces of a web or a pocket, in plan, with what touched at each and the middle between them. */
export function Middle(props: PartProps) {
  const { sketch, frame, mark, number, onPick } = props
  const [low, high] = sketch.faces as [number, number]
  const { upright } = frame
  const bothKnown = sketch.known.has('low') && sketch.known.has('high')
  const sides = sketch.spindles.map(({ at, field }, index) => ({
    field,
    at,
    face: sketch.faces[index] ?? at,
    name: index === 0 ? 'minus side' : 'plus side',
    to: upright ? -84 : index === 0 ? -74 : -112,
  }))
  return (
    <>
      <Bodies sketch={sketch} frame={frame} v1={-56} v2={56} />
      <ZeroLine frame={frame} at={sketch.zero} reach={150} name={`${sketch.axis}0`} />
      {sketch.zero !== sketch.feature && (
        <Scribe
          from={frame.place(sketch.feature, -64)}
          to={frame.place(sketch.feature, 64)}
          known={bothKnown}
        />
      )}
      {sides.map(({ field, at, face, name, to }) => {
        const centre = frame.place(at, 0)
        const radius =
          sketch.tip === 0 ? LEAST_RADIUS : Math.max(LEAST_RADIUS, (sketch.tip / 2) * frame.scale)
        const { lit, known } = mark(field)
        return (
          <Of key={field} field={field} onPick={onPick}>
            <Scribe
              from={frame.place(face, -62)}
              to={frame.place(face, 62)}
              ink="measured"
              lit={lit}
              known={known}
            />
            <Tip at={centre} radius={radius} lit={lit || mark('diameter').lit} />
            <Position
              frame={frame}
              at={at}
              from={0}
              to={to}
              name={name}
              label={number(field, at)}
              lit={lit}
              known={known}
            />
          </Of>
        )
      })}
      <Of field="width" onPick={onPick}>
        <Dimension
          frame={frame}
          from={low}
          to={high}
          v={upright ? 100 : 92}
          base={56}
          ink="measured"
          name={sketch.inside ? 'pocket' : 'web'}
          label={bothKnown ? props.length(Math.abs(high - low)) : '?'}
          lit={mark('width').lit}
          known={bothKnown}
        />
      </Of>
      <DrawingPosition {...props} v={150} base={56} />
    </>
  )
}
