import type { HolePlace } from '@dogleg/core/cycles/cycle'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { Words } from '../drawing/marks.tsx'
import { plan } from '../drawing/plan.ts'
import { CycleSheet } from '../drawing/sheet.tsx'
import { holeRadius, numberedPlaces } from './places-numbers.ts'

const WIDTH = 700
const HEIGHT = 244
const HOLE = 7

interface PlacesDrawingProps {
  places: readonly HolePlace[]
  unit: LengthUnit
  lit: boolean
}

/** The holes in plan, in the order in which they are made, from part zero. */
export function PlacesDrawing({ places, unit, lit }: PlacesDrawingProps) {
  const all = [...places, { x: 0, y: 0 }]
  const [xs, ys] = [all.map(({ x }) => x), all.map(({ y }) => y)]
  const least = { x: Math.min(...xs), y: Math.min(...ys) }
  const greatest = { x: Math.max(...xs), y: Math.max(...ys) }
  const { place } = plan(least, greatest, { left: 60, top: 34, width: WIDTH - 120, height: HEIGHT - 68 })
  const zero = place({ x: 0, y: 0 })
  const points = places.map(place)
  const numbered = new Set(numberedPlaces(points))
  const radius = holeRadius(points, HOLE)
  const ink = lit ? 'var(--color-brass)' : 'var(--color-scribe)'
  const say = (value: number) => formatLength(value, unit)
  const first = places[0]
  return (
    <CycleSheet
      label={`${places.length} holes in plan${first ? `, the first at X ${say(first.x)} Y ${say(first.y)}` : ''}`}
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-full"
    >
      <line
        x1={0}
        x2={WIDTH}
        y1={zero.y}
        y2={zero.y}
        stroke="var(--color-scribe-dim)"
        strokeDasharray="14 4 3 4"
      />
      <line
        x1={zero.x}
        x2={zero.x}
        y1={0}
        y2={HEIGHT}
        stroke="var(--color-scribe-dim)"
        strokeDasharray="14 4 3 4"
      />
      <Words at={{ x: zero.x - 6, y: zero.y + 18 }} anchor="end" plain>
        part zero
      </Words>
      {points.length > 1 && (
        <polyline
          points={points.map(({ x, y }) => `${x},${y}`).join(' ')}
          fill="none"
          stroke="var(--color-scribe-dim)"
          strokeWidth={1}
        />
      )}
      {points.map(({ x, y }, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a hole is known by its number
        <g key={index}>
          <circle
            cx={x}
            cy={y}
            r={radius}
            fill="none"
            stroke={ink}
            strokeWidth={Math.min(lit ? 3.5 : 2, radius / 2)}
          />
          {numbered.has(index) && (
            <Words at={{ x: x + 11, y: y - 7 }} anchor="start">
              {index + 1}
            </Words>
          )}
        </g>
      ))}
      {points.length === 0 && (
        <Words at={{ x: WIDTH / 2, y: HEIGHT / 2 }} plain size={18}>
          The holes appear here as you type.
        </Words>
      )}
    </CycleSheet>
  )
}
