/** Geometry across the axis of a rotary, in Y and Z: a round part with a flat on it, and what comes to it from above and from the sides. */

export interface Across {
  y: number
  z: number
}

/** A disc, cut off by a flat that stands `height` off its middle and looks along `looks` (radians, from Y plus towards Z plus); never beyond the middle. */
export interface Section {
  middle: Across
  radius: number
  flat: { height: number; looks: number } | null
}

type Line = 'y' | 'z'

interface Flat {
  normal: Across
  along: Across
  height: number
  half: number
}

function flatOf({ flat, radius }: Section): Flat | undefined {
  if (!flat || flat.height >= radius) return undefined
  const normal = { y: Math.cos(flat.looks), z: Math.sin(flat.looks) }
  return {
    normal,
    along: { y: -normal.z, z: normal.y },
    height: flat.height,
    half: Math.sqrt(radius * radius - flat.height * flat.height),
  }
}

const dot = (a: Across, b: Across) => a.y * b.y + a.z * b.z
const from = ({ middle }: Section, at: Across): Across => ({ y: at.y - middle.y, z: at.z - middle.z })
const corner = ({ middle }: Section, { normal, along, height, half }: Flat, way: 1 | -1): Across => ({
  y: middle.y + height * normal.y + way * half * along.y,
  z: middle.z + height * normal.z + way * half * along.z,
})

/** The ends of the flat; nothing where there is none. */
export function flatEnds(section: Section): readonly [Across, Across] | undefined {
  const flat = flatOf(section)
  return flat && [corner(section, flat, -1), corner(section, flat, 1)]
}

/** How far a place lies outside a section; inside, how deep, as a negative number. */
export function outsideSection(section: Section, at: Across): number {
  const off = from(section, at)
  const away = Math.hypot(off.y, off.z)
  const flat = flatOf(section)
  if (!flat) return away - section.radius
  const over = dot(off, flat.normal)
  // What lies nearest is on the arc, where that is not cut off in its direction.
  const round = away - section.radius
  if (round <= 0 && over <= flat.height) return Math.max(round, over - flat.height)
  if (away > 0 && (over / away) * section.radius <= flat.height) return round
  const along = dot(off, flat.along)
  if (Math.abs(along) <= flat.half) return over - flat.height
  const end = corner(section, flat, along > 0 ? 1 : -1)
  return Math.hypot(at.y - end.y, at.z - end.z)
}

/** Ahead of it by this much it is looked whether what touches goes deeper. */
const AHEAD = 1e-7

/**
 * How far a ball can go along a direction (of length 1) before it touches a section; Infinity where it does not. A negative radius
 * asks for when its centre is that deep inside. What touches already may leave, and slide along.
 */
export function freeBall(section: Section, radius: number, at: Across, direction: Across): number {
  const gap = outsideSection(section, at) - radius
  if (gap <= 0) {
    const ahead = { y: at.y + AHEAD * direction.y, z: at.z + AHEAD * direction.z }
    return outsideSection(section, ahead) - radius < Math.min(gap, 0) - AHEAD * 1e-3
      ? 0
      : Number.POSITIVE_INFINITY
  }
  const flat = flatOf(section)
  const entersCircle = (centre: Across, reach: number): number[] => {
    const off = { y: at.y - centre.y, z: at.z - centre.z }
    const along = dot(off, direction)
    const under = along * along - (dot(off, off) - reach * reach)
    return reach > 0 && under > 0 ? [-along - Math.sqrt(under)] : []
  }
  const entersFlat = (): number[] => {
    if (!flat) return []
    const nearing = -dot(direction, flat.normal)
    return nearing > 0 ? [(dot(from(section, at), flat.normal) - flat.height - radius) / nearing] : []
  }
  const ways = [
    ...entersCircle(section.middle, section.radius + radius),
    ...entersFlat(),
    ...(flat && radius > 0
      ? ([1, -1] as const).flatMap((way) => entersCircle(corner(section, flat, way), radius))
      : []),
  ].filter((way) => {
    if (way < 0) return false
    // Each line of the outline counts only where it is the outline.
    const there = { y: at.y + way * direction.y, z: at.z + way * direction.z }
    return Math.abs(outsideSection(section, there) - radius) < 1e-9 * (1 + section.radius)
  })
  return Math.min(Number.POSITIVE_INFINITY, ...ways)
}

/** Where the outline of a section lies on the far side of an axis, at one place of the other axis; undefined beside it. */
function edgeAt(section: Section, axis: Line, way: 1 | -1, across: number): number | undefined {
  const other: Line = axis === 'y' ? 'z' : 'y'
  const off = across - section.middle[other]
  const under = section.radius * section.radius - off * off
  if (under < 0) return undefined
  const half = Math.sqrt(under)
  let [low, high] = [-half, half]
  const flat = flatOf(section)
  if (flat) {
    const [along, aside] = [flat.normal[axis], flat.normal[other] * off]
    if (Math.abs(along) < 1e-12) {
      if (aside > flat.height) return undefined
    } else {
      const at = (flat.height - aside) / along
      if (along > 0) high = Math.min(high, at)
      else low = Math.max(low, at)
    }
  }
  return low > high ? undefined : section.middle[axis] + (way > 0 ? high : low)
}

/** The place of a section that lies furthest along an axis. */
function furthest(section: Section, axis: Line, way: 1 | -1): Across {
  const direction = axis === 'y' ? { y: way, z: 0 } : { y: 0, z: way }
  const flat = flatOf(section)
  const { middle, radius } = section
  if (!flat || dot(direction, flat.normal) * radius <= flat.height)
    return { y: middle.y + direction.y * radius, z: middle.z + direction.z * radius }
  return corner(section, flat, dot(direction, flat.along) > 0 ? 1 : -1)
}

/**
 * How far a section reaches along an axis, between two places of the other axis; undefined where nothing of it lies between them. The
 * outline is convex: its furthest place counts where it lies between, else the nearer end.
 */
export function reachOf(
  section: Section,
  axis: Line,
  way: 1 | -1,
  [least, greatest]: readonly [number, number],
): number | undefined {
  const other: Line = axis === 'y' ? 'z' : 'y'
  const far = furthest(section, axis, way)
  if (far[other] >= least && far[other] <= greatest) return far[axis]
  const at = [edgeAt(section, axis, way, least), edgeAt(section, axis, way, greatest)].filter(
    (each) => each !== undefined,
  )
  // Neither end meets it: it lies wholly between them, and its furthest place would too, or wholly beside.
  return at.length === 0 ? undefined : way > 0 ? Math.max(...at) : Math.min(...at)
}
