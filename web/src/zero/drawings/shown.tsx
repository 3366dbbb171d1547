import { Dimension, Position, ZeroLine } from '../../drawing/marks.tsx'
import { Bodies, Of, type PartProps } from './parts.tsx'

/** Part zero where the offset page shows it, without what was touched. */
export function Shown({ sketch, frame, mark, number, onPick }: PartProps) {
  return (
    <>
      <Bodies sketch={sketch} frame={frame} v1={-56} v2={56} />
      {sketch.faces.length === 2 && (
        <Of field="size" onPick={onPick}>
          <Dimension
            frame={frame}
            from={sketch.faces[0] as number}
            to={sketch.faces[1] as number}
            v={frame.upright ? 100 : 92}
            base={56}
            ink="measured"
            name="size"
            label={number('size', (sketch.faces[1] as number) - (sketch.faces[0] as number))}
            lit={mark('size').lit || mark('width').lit}
            known
          />
        </Of>
      )}
      <ZeroLine frame={frame} at={sketch.zero} reach={84} name={`${sketch.axis}0`} />
      <Of field="shown" onPick={onPick}>
        <Position
          frame={frame}
          at={sketch.zero}
          from={0}
          to={frame.upright ? -96 : -130}
          name="offset page"
          label={number('shown', sketch.zero)}
          {...mark('shown')}
        />
      </Of>
    </>
  )
}
