import { travelIn } from '@dogleg/core/machine'
import { formatLength } from '@dogleg/core/quantity'
import type { OffsetState, Setup } from '@dogleg/core/setup'
import { frame } from '../drawing/frame.ts'
import { Words } from '../drawing/marks.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 470
const HEIGHT = 500
const MARGIN = 44

/** The whole X and Y travel from above, to scale, with home and the place where the point must stand. */
export function TravelDrawing({ setup, offset }: { setup: Setup; offset: OffsetState }) {
  const { machine, unit } = setup
  const x = travelIn(machine, 'X', unit)
  const y = travelIn(machine, 'Y', unit)
  const scale = Math.min(
    (WIDTH - 2 * MARGIN) / (x.greatest - x.least),
    (HEIGHT - 3 * MARGIN) / (y.greatest - y.least),
  )
  const [wide, high] = [(x.greatest - x.least) * scale, (y.greatest - y.least) * scale]
  const left = (WIDTH - wide) / 2
  const top = (HEIGHT - high) / 2
  const alongX = frame(x.least, x.greatest, { upright: false, from: left, to: left + wide, middle: 0 })
  const alongY = frame(y.least, y.greatest, { upright: true, from: top + high, to: top, middle: 0 })
  const point = (px: number, py: number) => ({ x: alongX.place(px, 0).x, y: alongY.place(py, 0).y })
  const home = point(x.greatest, y.greatest)
  const { X, Y } = offset.axes
  const zero = X && Y ? point(X.value, Y.value) : undefined
  return (
    <CycleSheet
      label="Plan view of the X and Y travel with part zero"
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-[31.5rem]"
    >
      <rect
        x={left}
        y={top}
        width={wide}
        height={high}
        fill="none"
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      <Words at={{ x: left + wide / 2, y: top + high + 24 }}>
        X {formatLength(x.least, unit, { digits: 0 })} to {formatLength(x.greatest, unit, { digits: 0 })}
      </Words>
      <Words at={{ x: left + 2, y: top - 10 }} anchor="start">
        Y {formatLength(y.least, unit, { digits: 0 })} to {formatLength(y.greatest, unit, { digits: 0 })}
      </Words>
      <circle cx={home.x} cy={home.y} r={5} fill="var(--color-scribe)" />
      <Words at={{ x: home.x, y: home.y - 10 }} anchor="end" plain>
        home
      </Words>
      {zero && (
        <g stroke="var(--color-brass)" strokeWidth={2}>
          <line x1={left} x2={left + wide} y1={zero.y} y2={zero.y} strokeDasharray="14 4 3 4" />
          <line x1={zero.x} x2={zero.x} y1={top} y2={top + high} strokeDasharray="14 4 3 4" />
          <circle cx={zero.x} cy={zero.y} r={9} fill="none" />
        </g>
      )}
      {zero && (
        <Words
          at={{ x: zero.x + 14, y: zero.y - 12 }}
          anchor={zero.x > WIDTH / 2 ? 'end' : 'start'}
          ink="measured"
          bold
        >
          X0 Y0 of {offset.name}
        </Words>
      )}
      <Words at={{ x: WIDTH / 2, y: HEIGHT - 14 }} plain>
        {zero ? 'The point must stand here' : 'X and Y are not taken yet'}
      </Words>
    </CycleSheet>
  )
}
