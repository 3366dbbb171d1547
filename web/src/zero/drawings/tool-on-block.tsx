import { box } from '../../drawing/frame.ts'
import { Dimension, Position, ZeroLine } from '../../drawing/marks.tsx'
import { Bodies, DrawingPosition, Of, type PartProps } from './parts.tsx'

/** The tool on a gauge block on the face, from the side. */
export function ToolOnBlock(props: PartProps) {
  const { sketch, frame, mark, number, onPick } = props
  const at = sketch.spindles[0]?.at ?? 0
  const tip = at - sketch.toolLength
  const nose = frame.place(at, 0)
  return (
    <>
      <Bodies sketch={sketch} frame={frame} v1={-110} v2={70} />
      <Of field="blockHeight" onPick={onPick}>
        <rect
          {...box(frame, sketch.feature, tip, -40, 40)}
          fill="var(--color-brass)"
          fillOpacity={0.25}
          stroke="var(--color-brass)"
          strokeWidth={mark('blockHeight').lit ? 4 : 2}
          className="lights-up"
        />
        {sketch.blockHeight !== 0 && (
          <Dimension
            frame={frame}
            from={sketch.feature}
            to={tip}
            v={88}
            base={40}
            ink="measured"
            name="block"
            label={number('blockHeight', sketch.blockHeight)}
            {...mark('blockHeight')}
          />
        )}
      </Of>
      <Of field="toolLength" onPick={onPick}>
        <rect
          {...box(frame, tip, at, -9, 9)}
          fill="var(--color-layout)"
          stroke="var(--color-scribe)"
          strokeWidth={mark('toolLength').lit || mark('tool').lit ? 4 : 2}
          className="lights-up"
        />
        <Dimension
          frame={frame}
          from={tip}
          to={at}
          v={88}
          base={10}
          ink="measured"
          name="tool length"
          label={number('toolLength', sketch.toolLength)}
          {...mark('toolLength')}
        />
      </Of>
      <path
        d={`M ${nose.x - 34} ${nose.y} h 68 l 12 -26 h -92 z`}
        fill="var(--color-layout-deep)"
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      <Of field="machinePosition" onPick={onPick}>
        <Position
          frame={frame}
          at={at}
          from={-34}
          to={-62}
          name="machine"
          label={number('machinePosition', at)}
          {...mark('machinePosition')}
        />
      </Of>
      <ZeroLine frame={frame} at={sketch.zero} reach={132} name="Z0" />
      <DrawingPosition {...props} v={-92} base={-60} />
    </>
  )
}
