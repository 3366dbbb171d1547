import { type EdgeFit, fitEdge, halfTurn, type PlanePoint, radians } from '../geometry/index.ts'
import type { TypedLength } from '../quantity/index.ts'

/** Touches as points, in their own unit. */
export const plain = (points: Touches): PlanePoint[] => points.map(({ x, y }) => ({ x: x.value, y: y.value }))

interface Side {
  points: PlanePoint[]
  /** The way into the face, as a direction in degrees: 0 along +X, 90 along +Y. */
  into: number
}

/** A face as a line: a point of it, and its direction in degrees, turned so that the material lies to its left. */
export interface Face {
  through: PlanePoint
  direction: number
  fit: EdgeFit | undefined
}

/** The line through the touches of one face, moved by half the tip into the material. */
function faceOf({ points, into }: Side, other: number | undefined, tip: number): Face | undefined {
  const fit = fitEdge(points)
  const raw = fit ? fit.direction : other
  const [at] = points
  if (raw === undefined || !at) return undefined
  // The material lies to the left of a direction that has the way into the face 90 degrees on.
  const direction = Math.abs(halfTurn(raw + 90 - into)) <= 90 ? raw : raw + 180
  const through = fit?.through ?? at
  const normal = radians(direction + 90)
  return {
    through: { x: through.x + (tip / 2) * Math.cos(normal), y: through.y + (tip / 2) * Math.sin(normal) },
    direction: halfTurn(direction),
    fit,
  }
}

/** Where two faces meet; undefined where they do not. */
function meet(a: Face, b: Face): PlanePoint | undefined {
  const [ca, sa, cb, sb] = [a.direction, b.direction].flatMap((of) => [
    Math.cos(radians(of)),
    Math.sin(radians(of)),
  ]) as [number, number, number, number]
  const cross = ca * sb - sa * cb
  if (Math.abs(cross) < 0.05) return undefined
  const t = ((b.through.x - a.through.x) * sb - (b.through.y - a.through.y) * cb) / cross
  return { x: a.through.x + t * ca, y: a.through.y + t * sa }
}

export interface Corner {
  at: PlanePoint
  /** Between the two faces, in the material of an outside corner or the space of an inside one; degrees. */
  angle: number
  /** Whether it is the corner of a pocket: the touches lie behind it, seen along the ways into the faces. */
  inside: boolean
  faces: [Face, Face]
}

/** How the two faces stand to each other when their directions are those of the drawing: which is turned on from which. */
function cornerOf(x: Side, y: Side, tip: number, cornerAngle: number): Corner | undefined {
  // Going round the part with the material to the left, one face follows the other by half a turn less the angle between.
  const turns = Math.sign(halfTurn(y.into - x.into))
  const own = {
    x: fitEdge(x.points) && faceOf(x, undefined, tip),
    y: fitEdge(y.points) && faceOf(y, undefined, tip),
  }
  const onwards = turns * (180 - cornerAngle)
  const faceX = own.x ?? (own.y && faceOf(x, own.y.direction - onwards, tip))
  const faceY = own.y ?? (own.x && faceOf(y, own.x.direction + onwards, tip))
  if (!faceX || !faceY) return undefined
  const at = meet(faceX, faceY)
  if (!at) return undefined
  const behind = (side: Side, way: number) =>
    side.points.reduce(
      (sum, p) => sum + (p.x - at.x) * Math.cos(radians(way)) + (p.y - at.y) * Math.sin(radians(way)),
      0,
    ) < 0
  return {
    at,
    angle: 180 - Math.abs(halfTurn(faceY.direction - faceX.direction)),
    inside: behind(x, y.into) && behind(y, x.into),
    faces: [faceX, faceY],
  }
}

const into = (axis: 'X' | 'Y', direction: '+' | '-') =>
  (axis === 'X' ? 0 : 90) + (direction === '+' ? 0 : 180)

type Touches = readonly { x: TypedLength; y: TypedLength }[]

/** What a corner is found from; lengths in one unit. */
export interface CornerTouches {
  pointsX: Touches
  directionX: '+' | '-'
  pointsY: Touches
  directionY: '+' | '-'
  diameter: { value: number }
  /** By the drawing, degrees. */
  cornerAngle: number
}

/** The corner of a reading, for the picture and the arithmetic; undefined where the touches make none. Lengths in their own unit. */
export const cornerIn = (from: CornerTouches): Corner | undefined =>
  cornerOf(
    { points: plain(from.pointsX), into: into('X', from.directionX) },
    { points: plain(from.pointsY), into: into('Y', from.directionY) },
    from.diameter.value,
    from.cornerAngle,
  )

/** The corner when the touches stood elsewhere: for the doubt. */
export function cornerFrom(from: CornerTouches, inputs: readonly number[]): Corner | undefined {
  const points = [...plain(from.pointsX), ...plain(from.pointsY)].map((_, index) => ({
    x: inputs[2 * index] ?? 0,
    y: inputs[2 * index + 1] ?? 0,
  }))
  const n = from.pointsX.length
  return cornerOf(
    { points: points.slice(0, n), into: into('X', from.directionX) },
    { points: points.slice(n), into: into('Y', from.directionY) },
    from.diameter.value,
    from.cornerAngle,
  )
}
