import { barSketch, type SimulatedView } from '@dogleg/core/simulated'
import { Words } from '../drawing/marks.tsx'
import { plan } from '../drawing/plan.ts'
import { CycleSheet } from '../drawing/sheet.tsx'

const ROOM = { left: 16, top: 30, width: 528, height: 380 }

/** The bar of a simulated lathe from the front, the chuck on the left, and the tip of the tool. */
export function BarDrawing({ view }: { view: SimulatedView }) {
  const sketch = barSketch(view)
  if (!sketch) return null
  const { box, face, radius, turned, tip, inSight } = sketch
  const { place } = plan(box.least, box.greatest, ROOM)
  const rect = (z0: number, z1: number, r0: number, r1: number) => {
    const [a, b] = [place({ x: z0, y: r1 }), place({ x: z1, y: r0 })]
    return { x: a.x, y: a.y, width: b.x - a.x, height: b.y - a.y }
  }
  const material = {
    fill: 'var(--color-scribe)',
    fillOpacity: 0.16,
    stroke: 'var(--color-scribe)',
    strokeWidth: 2,
  }
  const at = tip && place(tip)
  return (
    <CycleSheet
      label="The bar in the chuck, as the eye sees it"
      width={560}
      height={430}
      tallest="max-h-[27rem]"
    >
      <rect
        {...rect(box.least.x, 0, box.least.y, box.greatest.y * 0.9)}
        fill="var(--color-layout-deep)"
        stroke="var(--color-scribe-dim)"
      />
      <rect {...rect(0, turned ? turned.to : face, -radius, radius)} {...material} />
      {turned && <rect {...rect(turned.to, face, -turned.radius, turned.radius)} {...material} />}
      {(() => {
        const [a, b] = [place({ x: box.least.x, y: 0 }), place({ x: box.greatest.x, y: 0 })]
        return (
          <line
            x1={a.x}
            y1={a.y}
            x2={b.x}
            y2={b.y}
            stroke="var(--color-scribe-dim)"
            strokeDasharray="14 4 3 4"
          />
        )
      })()}
      {at && (
        <polygon
          points={`${at.x},${at.y} ${at.x + 22},${at.y - 34} ${at.x + 34},${at.y - 16}`}
          fill="var(--color-brass)"
          fillOpacity={inSight ? 0.5 : 0}
          stroke="var(--color-brass)"
          strokeWidth={2}
          strokeDasharray={inSight ? undefined : '3 3'}
        />
      )}
      <Words at={{ x: 16, y: 24 }} anchor="start" plain>
        the chuck on the left, X up, Z to the right
      </Words>
      {at && !inSight && (
        <Words at={{ x: 544, y: 420 }} anchor="end" ink="measured" plain>
          the tool is further off
        </Words>
      )}
    </CycleSheet>
  )
}
