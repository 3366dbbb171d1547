/**
 * A groove in section, whichever way it lies: `u` along it (Z, or in a face the radius), `v` into the material from its
 * surface. Everything here is in these two.
 */
export interface Section {
  /** The walls, low and high. */
  low: number
  high: number
  depth: number
  /** Radius in the two corners at the bottom. */
  corner: number
  edge: { kind: 'none' | 'chamfer' | 'round'; size: number }
}

export interface Insert {
  width: number
  corner: number
  /** Which end of it is programmed. */
  programmed: 'low' | 'high'
}

/** One straight cut or arc of the programmed point; rapids cut nothing and are left out. */
export interface Cut {
  from: UV
  to: UV
  /** An arc's centre. */
  centre?: UV
}

export interface UV {
  u: number
  v: number
}

/** The low end of an insert whose programmed end stands at `u`. */
export const lowEnd = (u: number, { width, programmed }: Insert) => (programmed === 'low' ? u : u - width)

/** How deep the drawing wants it at `u`; 0 outside the groove. */
export function wantedDepth({ low, high, depth, corner, edge }: Section, u: number): number {
  const inside = Math.min(u - low, high - u)
  if (inside < 0) {
    const out = -inside
    if (edge.kind === 'none' || out > edge.size) return 0
    if (edge.kind === 'chamfer') return edge.size - out
    const across = edge.size - out
    return edge.size - Math.sqrt(Math.max(0, edge.size ** 2 - across ** 2))
  }
  if (inside >= corner) return depth
  return depth - corner + Math.sqrt(Math.max(0, corner ** 2 - (corner - inside) ** 2))
}

/** How deep an insert that stands with its low end at `at`, its tip at depth `v`, reaches at `u`; nothing beyond its ends. */
function reachAt(at: number, v: number, { width, corner }: Insert, u: number): number {
  const inside = Math.min(u - at, at + width - u)
  if (inside < -1e-12) return Number.NEGATIVE_INFINITY
  if (inside >= corner) return v
  const in0 = Math.max(0, inside)
  return v - corner + Math.sqrt(Math.max(0, corner ** 2 - (corner - in0) ** 2))
}

const ARC_PIECES = 24

/** Places that the programmed point passes: the ends of straight cuts, and points along arcs. */
function passes({ from, to, centre }: Cut): UV[] {
  if (!centre) return [from, to]
  const a = Math.atan2(from.v - centre.v, from.u - centre.u)
  let sweep = Math.atan2(to.v - centre.v, to.u - centre.u) - a
  if (sweep > Math.PI) sweep -= 2 * Math.PI
  if (sweep < -Math.PI) sweep += 2 * Math.PI
  const radius = Math.hypot(from.u - centre.u, from.v - centre.v)
  return Array.from({ length: ARC_PIECES + 1 }, (_, n) => {
    const angle = a + (sweep * n) / ARC_PIECES
    return { u: centre.u + radius * Math.cos(angle), v: centre.v + radius * Math.sin(angle) }
  })
}

/**
 * How deep a straight cut of the insert, its low end going from `la` to `lb`, reaches at `u`. Over u the depth rises and
 * falls once along the way: the deepest is at an end of it, or where one of the corners touches its own envelope there (its
 * normal stands on the way; a sharp corner itself).
 */
function straightDepth(la: number, va: number, lb: number, vb: number, insert: Insert, u: number): number {
  const deepest = Math.max(reachAt(la, va, insert, u), reachAt(lb, vb, insert, u))
  const along = lb - la
  if (along === 0) return deepest
  const { width, corner } = insert
  const down = vb - va
  // The part of the circle's normal along u that points into the material.
  const aside = (-corner * down * Math.sign(along)) / Math.hypot(along, down)
  let depth = deepest
  for (const low of [u - corner - aside, u - width + corner - aside]) {
    const share = (low - la) / along
    if (share > 0 && share < 1) {
      const reached = reachAt(low, va + down * share, insert, u)
      if (reached > depth) depth = reached
    }
  }
  return depth
}

/** The first of rising places that is not below a value. */
function firstFrom(places: Float64Array, value: number): number {
  let [low, high] = [0, places.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((places[middle] as number) < value) low = middle + 1
    else high = middle
  }
  return low
}

/** How deep it has been cut at each of rising places; 0 where nothing cut. */
function depthsAt(cuts: readonly Cut[], insert: Insert, places: Float64Array): Float64Array {
  const depths = new Float64Array(places.length)
  for (const cut of cuts) {
    const points = passes(cut)
    for (let n = 1; n < points.length; n++) {
      const [a, b] = [points[n - 1] as UV, points[n] as UV]
      const [la, lb] = [lowEnd(a.u, insert), lowEnd(b.u, insert)]
      const top = Math.max(a.v, b.v)
      const end = Math.max(la, lb) + insert.width
      for (let at = firstFrom(places, Math.min(la, lb)); at < places.length; at++) {
        const u = places[at] as number
        if (u > end) break
        if (top <= (depths[at] as number)) continue
        const depth = straightDepth(la, a.v, lb, b.v, insert, u)
        if (depth > (depths[at] as number)) depths[at] = depth
      }
    }
  }
  return depths
}

/** The outline of what has been cut, as points from low to high, some of them just beside each of `bends`. */
export function cutOutline(
  cuts: readonly Cut[],
  insert: Insert,
  from: number,
  to: number,
  { pieces = 600, bends = [] }: { pieces?: number; bends?: readonly number[] } = {},
): UV[] {
  const all: number[] = []
  for (let n = 0; n <= pieces; n++) all.push(from + ((to - from) * n) / pieces)
  const tiny = (to - from) * 1e-7
  // Just beside the ends and the corners of the insert, where the outline bends.
  const ends = new Set(cuts.flatMap(({ from: a, to: b }) => [lowEnd(a.u, insert), lowEnd(b.u, insert)]))
  const edges = [...ends].flatMap((low) => [
    low,
    low + insert.corner,
    low + insert.width - insert.corner,
    low + insert.width,
  ])
  for (const edge of [...edges, ...bends])
    for (const place of [edge - tiny, edge + tiny]) if (place > from && place < to) all.push(place)
  const places = Float64Array.from(all).sort()
  const depths = depthsAt(cuts, insert, places)
  return Array.from(places, (u, n) => ({ u, v: depths[n] as number }))
}

/** Something left standing on the floor between plunges. */
export interface Ring {
  from: number
  to: number
  height: number
}

/** What a groove is like once it is cut, against what the drawing wants. */
export interface Left {
  outline: UV[]
  /** How much is left on each wall at half the depth; negative where the wall was cut into. */
  walls: { low: number; high: number }
  /** Highest that stands on the floor, away from the corners. */
  floor: number
  rings: Ring[]
  /** Area of the section that is left, and that was cut too much. */
  standing: number
  overcut: number
  /** Deepest cut into what should stay, measured into the material: on the floor, or off a wall. */
  gouge: number
  /** Radius that the corners get from the insert where nothing makes them larger. */
  cornerMade: number
}

/** Less than this is nothing: a millionth of the groove's own size. */
const NOTHING = 1e-6

/** Compares what was cut with what is wanted. */
export function leftStanding(section: Section, cuts: readonly Cut[], insert: Insert): Left {
  const { low, high, depth, corner, edge } = section
  const margin = (edge.kind === 'none' ? 0 : edge.size) + insert.width
  const bends = [low, high, low + corner, high - corner, low - edge.size, high + edge.size]
  const outline = cutOutline(cuts, insert, low - margin, high + margin, { pieces: 1200, bends })
  const nothing = NOTHING * Math.max(depth, high - low)
  const half = depth / 2
  const reached = outline.filter(({ v }) => v >= half)
  const walls = reached.length
    ? { low: (reached[0] as UV).u - low, high: high - (reached.at(-1) as UV).u }
    : { low: high - low, high: high - low }
  const inner = Math.max(corner, insert.corner)
  let [floor, standing, overcut, gouge] = [0, 0, 0, 0]
  const rings: Ring[] = []
  let open: Ring | undefined
  outline.forEach(({ u, v }, n) => {
    const wanted = wantedDepth(section, u)
    const over = v - wanted
    const next = outline[n + 1]
    // Trapezoids; between two places just beside an edge there is next to nothing.
    const beyond = next ? next.v - wantedDepth(section, next.u) : 0
    const width = next ? next.u - u : 0
    overcut += ((Math.max(0, over) + Math.max(0, beyond)) / 2) * width
    standing += ((Math.max(0, -over) + Math.max(0, -beyond)) / 2) * width
    // On the floor how deep; off the walls that is said by `walls`.
    if (u > low + nothing && u < high - nothing && over > gouge) gouge = over
    const onFloor = u >= low + inner && u <= high - inner
    const height = onFloor ? -over : 0
    if (height > floor) floor = height
    if (height > nothing * 100) {
      if (!open) {
        open = { from: u, to: u, height }
        rings.push(open)
      }
      open.to = u
      open.height = Math.max(open.height, height)
    } else open = undefined
  })
  // Beyond the edges of the groove anything cut was not meant.
  const wallGouge = Math.max(0, -walls.low, -walls.high)
  return {
    outline,
    walls,
    floor,
    rings,
    standing,
    overcut,
    gouge: Math.max(gouge, wallGouge),
    cornerMade: insert.corner,
  }
}
