import type { StandIn } from '../program/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import { type Feature, lengthIn } from './characteristic.ts'
import { isProbed, probeTaskOf } from './feature.ts'

/** A part as it really is: how far each value lies from the drawing's, by its key without an axis; and what is not there. */
export interface ActualPart {
  /** Nobody put a part in: nothing is met. */
  empty?: boolean
  /** Features that are not there to be touched, by id. */
  missing?: ReadonlySet<string>
  /** How much larger a size is, or how many degrees an edge lies off, by feature id. */
  larger?: ReadonlyMap<string, number>
  /** How far a feature lies from its place, by feature id. */
  moved?: ReadonlyMap<string, { x?: number; y?: number; z?: number }>
}

/** What one feature says of a place: material, free, or that it has nothing to say. */
type Says = boolean | undefined

interface Solid {
  says: (x: number, y: number, z: number) => Says
  /** Where it is touched, in plan. */
  touches: readonly (readonly [number, number])[]
}

const RADIAN = Math.PI / 180

/** A feature in plan: material, free or nothing to say, and where it is touched. */
type Plan = { says: (x: number, y: number) => Says } & Pick<Solid, 'touches'>

interface Room {
  x: number
  y: number
  /** Half of its real size. */
  half: number
  /** How far material goes on behind what is touched, and how far it is free before it. */
  behind: number
  before: number
  /** How far either side of the way of the probe. */
  beside: number
  larger: number
  base: number
  /** How far off a corner the probe stands. */
  stands: number
}

/** Free up to one distance from the middle and material up to a greater one, or the other way round. */
const between = (at: number, half: number, inside: boolean, { behind, before }: Room): Says =>
  inside ? (at <= half + behind ? at >= half : undefined) : at <= half + before ? at <= half : undefined

function planOf(of: Feature['params'], room: Room): Plan {
  const { x, y, half, behind, before, beside, larger, base, stands } = room
  const inside = of.what === 'bore' || of.what === 'pocket'
  const alongY = of.axis === 'X'
  const ends: Plan['touches'] = alongY
    ? [
        [x - half, y],
        [x + half, y],
      ]
    : [
        [x, y - half],
        [x, y + half],
      ]
  switch (of.what) {
    case 'bore':
    case 'boss':
      return {
        says: (px, py) => between(Math.hypot(px - x, py - y), half, inside, room),
        touches: [
          [x - half, y],
          [x + half, y],
          [x, y - half],
          [x, y + half],
        ],
      }
    case 'pocket':
    case 'web':
      return {
        says: (px, py) => {
          const [across, along] = alongY ? [px - x, py - y] : [py - y, px - x]
          return Math.abs(along) > beside ? undefined : between(Math.abs(across), half, inside, room)
        },
        touches: ends,
      }
    case 'surface':
    case 'edge': {
      const direction = (alongY ? of.directionX : of.directionY) === '+' ? 1 : -1
      const lean = of.what === 'edge' ? Math.tan((of.angle + larger) * RADIAN) : 0
      const reach = of.what === 'edge' ? base : 0
      return {
        says: (px, py) => {
          const [u, v] = alongY ? [px - x, py - y] : [py - y, px - x]
          if (v < -beside || v > reach + beside) return undefined
          // Counter-clockwise: a face along Y leans to X minus, one along X to Y plus.
          const deep = direction * (u + (alongY ? 1 : -1) * lean * v)
          return deep < -before || deep > behind ? undefined : deep >= 0
        },
        touches: alongY
          ? [
              [x, y],
              [x, y + reach],
            ]
          : [
              [x, y],
              [x + reach, y],
            ],
      }
    }
    default: {
      const [sx, sy] = [of.directionX === '+' ? 1 : -1, of.directionY === '+' ? 1 : -1]
      const outside = of.what === 'outside-corner'
      const wide = before + beside
      // Outside it comes round each end, inside it stays where it is.
      const aside = outside ? 1 : -1
      return {
        says: (px, py) => {
          const [u, v] = [sx * (px - x), sy * (py - y)]
          if (Math.abs(u) > wide || Math.abs(v) > wide) return undefined
          return outside ? u >= 0 && v >= 0 : u >= 0 || v >= 0
        },
        touches: [
          [x, y + sy * aside * stands],
          [x + sx * aside * stands, y],
        ],
      }
    }
  }
}

function solidOf({ id, params }: Feature, unit: LengthUnit, stylus: number, part: ActualPart): Solid {
  const task = probeTaskOf(params, unit, 0, 0)
  const off = part.moved?.get(id) ?? {}
  const larger = part.larger?.get(id) ?? 0
  const [x, y, top] = [task.x + (off.x ?? 0), task.y + (off.y ?? 0), task.top + (off.z ?? 0)]
  const [gap, past] = [lengthIn(params.gap, unit), lengthIn(params.past, unit)]
  const behind = 3 * past
  const beside = 1.5 * gap
  if (params.what === 'surface' && params.axis === 'Z')
    return {
      says: (px, py, z) => (Math.hypot(px - x, py - y) > beside || z < top - behind ? undefined : z <= top),
      touches: [[x, y]],
    }
  const bottom = top - 2 * Math.abs(task.depth) - behind
  const { says, touches } = planOf(params, {
    x,
    y,
    half: (task.size + larger) / 2,
    behind,
    before: 2 * gap + past,
    beside,
    larger,
    base: task.size,
    stands: gap + stylus / 2,
  })
  return {
    says: (px, py, z) => {
      const here = z < bottom ? undefined : says(px, py)
      return here === undefined ? undefined : z <= top && here
    },
    touches,
  }
}

const nearest = ({ touches }: Solid, x: number, y: number) =>
  Math.min(...touches.map(([tx, ty]) => Math.hypot(x - tx, y - ty)))

/**
 * A part that stands in for the real one: the material round the features of a plan, as large and where it really is. Where
 * two features lie close together, the one that is touched nearest says what is there.
 */
export function standInOf(
  features: readonly Feature[],
  { unit, stylus }: { unit: LengthUnit; stylus: number },
  part: ActualPart,
): StandIn {
  if (part.empty) return { holds: () => false, strict: true }
  const solids = features
    .filter(({ id, params }) => isProbed(params.what) && !part.missing?.has(id))
    .map((feature) => solidOf(feature, unit, stylus, part))
  return {
    holds: (x, y, z) => {
      let least = Number.POSITIVE_INFINITY
      let holds = false
      for (const solid of solids) {
        const says = solid.says(x, y, z)
        if (says === undefined) continue
        const away = nearest(solid, x, y)
        if (away >= least) continue
        least = away
        holds = says
      }
      return holds
    },
    strict: true,
  }
}
