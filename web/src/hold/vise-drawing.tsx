import { type Vise, type ViseState, viseBoxes, viseReach } from '@dogleg/core/hold'
import { formatLength } from '@dogleg/core/quantity'
import { frame } from '../drawing/frame.ts'
import { Dimension, Words } from '../drawing/marks.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 640
const HEIGHT = 320
/** Where the top of the table lies. */
const TABLE = 200
const LOOKS = {
  open: { fill: 'none', stroke: 'var(--color-scribe-dim)', strokeDasharray: '5 4' },
  closed: { fill: 'var(--color-scribe)', fillOpacity: 0.16, stroke: 'var(--color-scribe)' },
}

/** A vise from the side, to scale: closed in full lines, open in broken ones, with its length over all in both states. */
export function ViseDrawing({ vise }: { vise: Vise }) {
  const { unit } = vise
  const reach: Record<ViseState, ReturnType<typeof viseReach>> = {
    open: viseReach(vise, 'open'),
    closed: viseReach(vise, 'closed'),
  }
  const [least, greatest] = [
    Math.min(reach.open.front, reach.closed.front),
    Math.max(reach.open.back, reach.closed.back),
  ]
  const along = frame(least, greatest, { upright: false, from: 30, to: WIDTH - 30, middle: TABLE })
  // A tall vise would stand above the picture: its heights are then drawn smaller than its lengths.
  const up = Math.min(along.scale, (TABLE - 44) / reach.closed.top)
  const jaw = along.place(0, 0).x
  return (
    <CycleSheet label="Side view of the vise, open and closed" width={WIDTH} height={HEIGHT}>
      <Words at={{ x: 14, y: 24 }} anchor="start" plain>
        front
      </Words>
      <Words at={{ x: WIDTH / 2, y: 24 }} plain>
        {up === along.scale ? 'to scale' : 'heights drawn smaller'}; closed in full lines, open broken
      </Words>
      <Words at={{ x: WIDTH - 14, y: 24 }} anchor="end" plain>
        back
      </Words>
      <line x1={10} y1={TABLE} x2={WIDTH - 10} y2={TABLE} stroke="var(--color-scribe-dim)" strokeWidth={2} />
      {(['closed', 'open'] as const).map((state) =>
        viseBoxes(vise, state, 0).map(({ name, from, to, bottom, top }) => (
          <rect
            key={`${state}-${name}`}
            x={along.place(from, 0).x}
            y={TABLE - top * up}
            width={(to - from) * along.scale}
            height={(top - bottom) * up}
            strokeWidth={2}
            {...LOOKS[state]}
          />
        )),
      )}
      <line x1={jaw} y1={44} x2={jaw} y2={TABLE + 8} stroke="var(--color-brass)" strokeWidth={2} />
      <Words at={{ x: jaw + 6, y: 56 }} anchor="start" ink="measured" plain>
        0
      </Words>
      {(['closed', 'open'] as const).map((state, index) => (
        <Dimension
          key={state}
          frame={along}
          from={reach[state].front}
          to={reach[state].back}
          v={22 + index * 50}
          name={`over all, ${state}`}
          label={formatLength(reach[state].length, unit)}
        />
      ))}
    </CycleSheet>
  )
}
