import { type LinearAxis, type Machine, travelIn, withinTravel } from '@dogleg/core/machine'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { type FrameRoom, frame, type Point } from './frame.ts'
import { Words } from './marks.tsx'

interface TravelBarProps {
  machine: Machine
  axis: LinearAxis
  unit: LengthUnit
  room: FrameRoom
  /** Machine position of the value in hand. */
  value: number | undefined
  /** The value that stood before. */
  last: number | undefined
}

/** The whole travel of the axis, to scale, with where the value lies on it: a slip of sign or unit shows at once. */
export function TravelBar({ machine, axis, unit, room, value, last }: TravelBarProps) {
  const { least, greatest } = travelIn(machine, axis, unit)
  const along = frame(least, greatest, room)
  const held = (at: number) => Math.min(greatest, Math.max(least, at))
  const ends = [along.place(least, 0), along.place(greatest, 0)] as const
  const inside = value === undefined || withinTravel(machine, axis, value, unit)
  const marker = value === undefined ? undefined : along.place(held(value), 0)
  const before = last === undefined ? undefined : along.place(held(last), 0)
  const label = (at: number, { x, y }: Point, low: boolean) => (
    <Words
      at={along.upright ? { x, y: y + (low ? 19 : -9) } : { x, y: y + 22 }}
      anchor={along.upright ? 'middle' : low ? 'start' : 'end'}
    >
      {formatLength(at, unit, { digits: 0 })}
    </Words>
  )
  return (
    <g>
      <line
        x1={ends[0].x}
        y1={ends[0].y}
        x2={ends[1].x}
        y2={ends[1].y}
        stroke="var(--color-scribe-dim)"
        strokeWidth={5}
        strokeLinecap="square"
      />
      {label(least, ends[0], true)}
      {label(greatest, ends[1], false)}
      {before && (
        <circle
          cx={before.x}
          cy={before.y}
          r={7}
          fill="var(--color-layout)"
          stroke="var(--color-scribe)"
          strokeWidth={2}
        />
      )}
      {marker && (
        <circle
          cx={marker.x}
          cy={marker.y}
          r={6}
          fill="var(--color-brass)"
          stroke="var(--color-layout-deep)"
        />
      )}
      {!along.upright && (
        <Words at={{ x: (ends[0].x + ends[1].x) / 2, y: ends[0].y + 22 }} plain>
          {inside ? `travel of ${axis}` : `outside the travel of ${axis}`}
        </Words>
      )}
      {along.upright && !inside && marker && (
        <Words at={{ x: marker.x - 12, y: marker.y }} anchor="end">
          outside
        </Words>
      )}
    </g>
  )
}
