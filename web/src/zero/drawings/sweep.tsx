import { Position, Words, ZeroLine } from '../../drawing/marks.tsx'
import { DrawingPosition, Of, type PartProps } from './parts.tsx'

/** A bore or boss in plan, the spindle beside its centre, and the dial on both sides of the axis. */
export function Sweep(props: PartProps) {
  const { sketch, frame, mark, number, onPick } = props
  const [low, high] = sketch.faces as [number, number]
  const { upright } = frame
  const at = sketch.spindles[0]?.at ?? 0
  const centre = frame.place(sketch.feature, 0)
  const spindle = frame.place(at, 0)
  const radius = ((high - low) / 2) * frame.scale
  const dials = [
    { field: 'minusDial' as const, u: low, name: 'minus side' },
    { field: 'plusDial' as const, u: high, name: 'plus side' },
  ]
  return (
    <>
      {sketch.inside && (
        <rect
          x={centre.x - 1.4 * radius}
          y={centre.y - 1.4 * radius}
          width={2.8 * radius}
          height={2.8 * radius}
          fill="var(--color-scribe)"
          fillOpacity={0.13}
          stroke="var(--color-scribe)"
          strokeWidth={2}
        />
      )}
      <circle
        cx={centre.x}
        cy={centre.y}
        r={radius}
        fill={sketch.inside ? 'var(--color-layout)' : 'var(--color-scribe)'}
        fillOpacity={sketch.inside ? 1 : 0.13}
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      <ZeroLine frame={frame} at={sketch.zero} reach={Math.min(150, 1.2 * radius)} name={`${sketch.axis}0`} />
      {dials.map(({ field, u, name }) => {
        const place = frame.place(u, 0)
        const away = field === 'minusDial' ? -1 : 1
        const words = upright
          ? { x: place.x + 16, y: place.y + (away > 0 ? -16 : 12) }
          : { x: place.x - away * 8, y: place.y + (away < 0 ? 44 : -44) }
        return (
          <Of key={field} field={field} onPick={onPick}>
            <circle
              cx={place.x}
              cy={place.y}
              r={9}
              fill="var(--color-layout)"
              stroke="var(--color-brass)"
              strokeWidth={mark(field).lit ? 4 : 2}
              className="lights-up"
            />
            <Words at={words} anchor={upright ? 'start' : away < 0 ? 'start' : 'end'} ink="measured" plain>
              {name}
            </Words>
            <Words
              at={words}
              row={1}
              anchor={upright ? 'start' : away < 0 ? 'start' : 'end'}
              ink="measured"
              bold={mark(field).lit}
            >
              {props.typed(field)}
            </Words>
          </Of>
        )
      })}
      <Of field="machinePosition" onPick={onPick}>
        <circle cx={spindle.x} cy={spindle.y} r={5} fill="var(--color-brass)" />
        <Position
          frame={frame}
          at={at}
          from={0}
          to={upright ? 44 : -130}
          name="spindle"
          label={number('machinePosition', at)}
          {...mark('machinePosition')}
        />
      </Of>
      <DrawingPosition {...props} v={upright ? 150 : 150} base={30} />
    </>
  )
}
