/** A vertex of an outline; `bulge` of the piece that leaves it: tangent of a quarter of its sweep, positive counter-clockwise (DXF). */
export interface Vertex {
  x: number
  y: number
  bulge?: number
}

/** One line of an outline, open or closed. */
export interface OutlinePath {
  vertices: readonly Vertex[]
  closed: boolean
}

/** Where the centre of a bulged piece lies, from its start. */
export function centreOf(a: Vertex, b: Vertex, bulge: number): [number, number] {
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  // Sweep = 4 atan bulge; the centre stands off the chord's middle by c / 2 x (1 - bulge^2) / (2 bulge), to the left of the way.
  const off = (1 - bulge * bulge) / (4 * bulge)
  return [dx / 2 - dy * off, dy / 2 + dx * off]
}

/** The same line from its other end. */
export function reversed({ vertices, closed }: OutlinePath): OutlinePath {
  const last = vertices.length - 1
  const back = vertices.map((_, n): Vertex => {
    const { x, y } = vertices[last - n] as Vertex
    // The piece that now leaves it is the one that came to it.
    const before = n < last ? vertices[last - n - 1] : closed ? vertices[last] : undefined
    return before?.bulge ? { x, y, bulge: -before.bulge } : { x, y }
  })
  return { vertices: back, closed }
}

/** x' = a x + c y + e, y' = b x + d y + f: what a block that is inserted is placed by. */
export interface Placing {
  a: number
  b: number
  c: number
  d: number
  e: number
  f: number
}

export const AS_DRAWN: Placing = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 }

export const placePoint = ({ a, b, c, d, e, f }: Placing, x: number, y: number): [number, number] => [
  a * x + c * y + e,
  b * x + d * y + f,
]

/** First the one placing, then the other. */
export const placedIn = (inner: Placing, outer: Placing): Placing => {
  const [e, f] = placePoint(outer, inner.e, inner.f)
  return {
    a: outer.a * inner.a + outer.c * inner.b,
    b: outer.b * inner.a + outer.d * inner.b,
    c: outer.a * inner.c + outer.c * inner.d,
    d: outer.b * inner.c + outer.d * inner.d,
    e,
    f,
  }
}

/** How much larger circles come out; undefined where they become ellipses. */
export function evenScale({ a, b, c, d }: Placing): number | undefined {
  const [u, v] = [Math.hypot(a, b), Math.hypot(c, d)]
  const even = Math.abs(u - v) <= 1e-9 * Math.max(u, v) && Math.abs(a * c + b * d) <= 1e-9 * u * v
  return even ? u : undefined
}

/** Whether it turns left into right. */
export const mirrors = ({ a, b, c, d }: Placing) => a * d - b * c < 0
