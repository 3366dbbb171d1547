import { Position, ZeroLine } from '../../drawing/marks.tsx'
import { Bodies, Of, type PartProps } from './parts.tsx'

/** Part zero where the offset page shows it, without what was touched. */
export function Shown({ sketch, frame, mark, number, onPick }: PartProps) {
  return (
    <>
      <Bodies sketch={sketch} frame={frame} v1={-56} v2={56} />
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
