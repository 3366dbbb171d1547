import { fitCircle, type PlanePoint, radians } from '../geometry/index.ts'
import { type LengthUnit, readDegrees, readLength, readRows } from '../quantity/index.ts'
import { cornerIn } from './corner.ts'
import type { PickupDraft } from './draft.ts'
import type { FieldName } from './methods.ts'

/** A touch as it is drawn: where the spindle stood, and the field that says so. */
interface PlanTouch extends PlanePoint {
  field: FieldName
  /** Its number in its list, from 1. */
  number: number
}

/** A pickup in plan, in machine positions in the setup's unit, as far as it has been typed. */
export interface PlanSketch {
  touches: PlanTouch[]
  tip: number
  /** The bore or boss itself: the fitted circle less or more half the tip. */
  circle?: { centre: PlanePoint; radius: number; inside: boolean }
  /** The corner, and a point of each face away from it. */
  corner?: { at: PlanePoint; along: [PlanePoint, PlanePoint]; inside: boolean }
  /** Part zero, once the feature is found. */
  zero?: PlanePoint
  least: PlanePoint
  greatest: PlanePoint
}

const STAND_IN = { inch: 1, mm: 25 }

function touchesIn(
  draft: PickupDraft,
  field: FieldName,
  unit: LengthUnit,
): { touch: PlanTouch; typed: Touched }[] {
  const list = readRows(draft.fields[field] ?? '', unit, { columns: ['X', 'Y'], needs: '', least: 1 })
  if (!list.ok) return []
  return list.rows.flatMap(({ cells: [x, y] }, index) =>
    x && y ? [{ touch: { x: x.value, y: y.value, field, number: index + 1 }, typed: { x, y } }] : [],
  )
}
type Touched = Parameters<typeof cornerIn>[0]['pointsX'][number]

const lengthIn = (draft: PickupDraft, field: FieldName, unit: LengthUnit) => {
  const entry = readLength(draft.fields[field] ?? '', unit)
  return entry.ok ? entry.value : 0
}

/** Where to draw the end of a face: at its farthest touch, and a little on. */
function endOf(at: PlanePoint, touches: readonly PlanePoint[], direction: number, reach: number): PlanePoint {
  const [c, s] = [Math.cos(radians(direction)), Math.sin(radians(direction))]
  const side = touches.reduce((sum, p) => sum + (p.x - at.x) * c + (p.y - at.y) * s, 0) < 0 ? -1 : 1
  return { x: at.x + side * reach * c, y: at.y + side * reach * s }
}

/** Works out the picture of a circle or a corner as it stands, however much of it has been typed. */
export function planSketch(draft: PickupDraft, unit: LengthUnit): PlanSketch {
  const point = draft.choices.device === 'sensor'
  const tip = point ? 0 : Math.abs(lengthIn(draft, 'diameter', unit))
  const onX = touchesIn(draft, draft.method === 'circle' ? 'points' : 'pointsX', unit)
  const onY = draft.method === 'circle' ? [] : touchesIn(draft, 'pointsY', unit)
  const touches = [...onX, ...onY].map(({ touch }) => touch)
  const drawing = { x: lengthIn(draft, 'drawingX', unit), y: lengthIn(draft, 'drawingY', unit) }
  const shown: PlanePoint[] = [...touches]
  const sketch: Omit<PlanSketch, 'least' | 'greatest'> = { touches, tip }
  const place = (feature: PlanePoint) => {
    sketch.zero = { x: feature.x - drawing.x, y: feature.y - drawing.y }
    shown.push(feature, sketch.zero)
  }
  if (draft.method === 'circle') {
    const fit = fitCircle(touches)
    if (fit) {
      const inside = draft.choices.side !== 'boss'
      const radius = Math.max(0, fit.radius + (inside ? tip / 2 : -tip / 2))
      sketch.circle = { centre: fit.centre, radius, inside }
      shown.push(
        { x: fit.centre.x - radius, y: fit.centre.y - radius },
        { x: fit.centre.x + radius, y: fit.centre.y + radius },
      )
      place(fit.centre)
    }
  } else if (onX.length + onY.length > 2) {
    const angle = readDegrees(draft.fields.cornerAngle ?? '')
    const found = cornerIn({
      pointsX: onX.map(({ typed }) => typed),
      pointsY: onY.map(({ typed }) => typed),
      directionX: draft.choices.directionX === '-' ? '-' : '+',
      directionY: draft.choices.directionY === '-' ? '-' : '+',
      diameter: { value: tip },
      cornerAngle: angle.ok ? angle.value : 90,
    })
    if (found) {
      const { at, faces, inside } = found
      const reach = 1.25 * Math.max(...touches.map(({ x, y }) => Math.hypot(x - at.x, y - at.y)))
      const along: [PlanePoint, PlanePoint] = [
        endOf(
          at,
          onX.map(({ touch }) => touch),
          faces[0].direction,
          reach,
        ),
        endOf(
          at,
          onY.map(({ touch }) => touch),
          faces[1].direction,
          reach,
        ),
      ]
      sketch.corner = { at, along, inside }
      shown.push(...along)
      place(at)
    }
  }
  const room = STAND_IN[unit]
  const [xs, ys] = [shown.map(({ x }) => x), shown.map(({ y }) => y)]
  const wide = Math.max(
    shown.length > 0 ? Math.max(...xs) - Math.min(...xs) : 0,
    shown.length > 0 ? Math.max(...ys) - Math.min(...ys) : 0,
  )
  const margin = Math.max(tip, 0.12 * wide, shown.length > 1 ? 0 : room)
  const ends = shown.length > 0 ? { xs, ys } : { xs: [0], ys: [0] }
  return {
    ...sketch,
    least: { x: Math.min(...ends.xs) - margin, y: Math.min(...ends.ys) - margin },
    greatest: { x: Math.max(...ends.xs) + margin, y: Math.max(...ends.ys) + margin },
  }
}
