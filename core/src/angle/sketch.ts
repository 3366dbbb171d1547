import { type PlanePoint, turned } from '../geometry/index.ts'
import { type LengthUnit, readLength, readRows } from '../quantity/index.ts'
import type { AngleDraft } from './draft.ts'
import type { Angle } from './measure.ts'

/** A measured point as it is drawn. */
interface AnglePoint extends PlanePoint {
  name: string
  /** The one that spoils the fit, or the worst of those that do not fit. */
  worst: boolean
}

/**
 * The part as it lies, in plan, in the setup's unit about part zero: the drawing's outline, the same turned by as much
 * as can be seen, the measured points. What is drawn of the angle is `shownBy`, which may be more than it is.
 */
export interface AngleSketch {
  /** Reach along both axes of the outline. */
  reach: number
  /** Corners of the part as the drawing has it, and as it lies. */
  nominal: PlanePoint[]
  lies: PlanePoint[]
  /** Degrees by which the drawing shows it turned, and how many times that is the true angle. */
  shownBy: number
  exaggerated: number
  points: AnglePoint[]
}

/** Smaller angles cannot be seen; larger ones are drawn as they are. Degrees. */
const SEEN_FROM = 4

/** An outline twice as long as it is wide, with its lower left corner at part zero. */
const outline = (reach: number): PlanePoint[] => [
  { x: 0, y: 0 },
  { x: reach, y: 0 },
  { x: reach, y: reach / 2 },
  { x: 0, y: reach / 2 },
]

function measured(draft: AngleDraft, unit: LengthUnit): { name: string; x: number; y: number }[] {
  const columns = draft.method === 'features' ? ['X', 'Y', 'MX', 'MY'] : ['X', 'Y']
  const text = { edge: draft.points, holes: draft.holes, features: draft.features, shown: '' }[draft.method]
  const list = readRows(text, unit, { columns, needs: '', least: 1 })
  if (!list.ok) return []
  const place = draft.method === 'features' ? 2 : 0
  const what = { edge: 'touch', holes: 'hole', features: 'feature', shown: '' }[draft.method]
  return list.rows.map(({ name, cells }, index) => ({
    name: name ?? `${what} ${index + 1}`,
    x: cells[place]?.value ?? 0,
    y: cells[place + 1]?.value ?? 0,
  }))
}

/**
 * Works out the picture of an angle. Points are placed along the part as far apart as they were measured, on its near
 * edge (touches), or scaled into the outline (holes and features); their stand off the fit is exaggerated with the angle.
 */
export function angleSketch(draft: AngleDraft, angle: Angle | undefined, unit: LengthUnit): AngleSketch {
  const typed = readLength(draft.reach, unit)
  const reach = typed.ok && typed.value > 0 ? typed.value : unit === 'inch' ? 4 : 100
  const value = angle?.value ?? 0
  const shown = value === 0 ? 0 : Math.sign(value) * Math.max(SEEN_FROM, Math.abs(value))
  const exaggerated = value === 0 ? 1 : shown / value
  const nominal = outline(reach)
  const lies = nominal.map((corner) => turned(corner, shown, { x: 0, y: 0 }))
  const points = measured(draft, unit)
  const offWorst = Math.max(0, ...(angle?.residuals ?? []).map((each) => Math.abs(each.value)))
  const worstName =
    angle?.spoiler?.name ??
    (angle?.findings.some(({ code }) => code === 'off-the-fit')
      ? angle.residuals.find((each) => Math.abs(each.value) === offWorst)?.name
      : undefined)
  return {
    reach,
    nominal,
    lies,
    shownBy: shown,
    exaggerated,
    points: inPart(points, draft, angle, reach, shown).map((point) => ({
      ...point,
      worst: point.name === worstName,
    })),
  }
}

/** Measured points brought to where they are on the part in the picture. */
function inPart(
  points: { name: string; x: number; y: number }[],
  draft: AngleDraft,
  angle: Angle | undefined,
  reach: number,
  shown: number,
): { name: string; x: number; y: number }[] {
  const nominal = draft.method === 'features' ? 0 : Number(draft.nominal) || 0
  const back = -(angle?.value ?? 0) - nominal
  // In the part's own directions, from the first point.
  const [first] = points
  if (!first) return []
  const flat = points.map((point) => ({ ...point, ...turned(point, back, first) }))
  const xs = flat.map(({ x }) => x)
  const ys = flat.map(({ y }) => y)
  const [left, low] = [Math.min(...xs), Math.min(...ys)]
  const wide = Math.max(Math.max(...xs) - left, 1e-9)
  const high = Math.max(Math.max(...ys) - low, 1e-9)
  const alongEdge = draft.method === 'edge'
  const scale = alongEdge ? (0.86 * reach) / wide : Math.min((0.8 * reach) / wide, (0.34 * reach) / high)
  return flat.map(({ name, x, y }) => ({
    name,
    ...turned(
      {
        x: 0.07 * reach + (x - left) * scale,
        y: alongEdge ? 0 : 0.08 * reach + (y - low) * scale,
      },
      shown,
      { x: 0, y: 0 },
    ),
  }))
}
