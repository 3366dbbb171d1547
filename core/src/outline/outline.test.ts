import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  AS_DRAWN,
  centreOf,
  ellipsePath,
  isSound,
  joined,
  type OutlinePath,
  type Placing,
  pathIn,
  placedIn,
  placePoint,
  reversed,
  type Spline,
  splinePath,
  type Vertex,
} from './index.ts'

const TOLERANCE = 0.0005

/** Places along a line of an outline, arcs by their own circle. */
function along({ vertices, closed }: OutlinePath, each = 16): [number, number][] {
  const way = closed ? [...vertices, vertices[0] as Vertex] : vertices
  return way.slice(1).flatMap((to, n): [number, number][] => {
    const from = way[n] as Vertex
    const { bulge = 0 } = from
    const shares = Array.from({ length: each + 1 }, (_, m) => m / each)
    if (Math.abs(bulge) < 1e-12)
      return shares.map((t) => [from.x + (to.x - from.x) * t, from.y + (to.y - from.y) * t])
    const [i, j] = centreOf(from, to, bulge)
    const [cx, cy] = [from.x + i, from.y + j]
    const start = Math.atan2(from.y - cy, from.x - cx)
    const radius = Math.hypot(i, j)
    return shares.map((t) => {
      const at = start + 4 * Math.atan(bulge) * t
      return [cx + radius * Math.cos(at), cy + radius * Math.sin(at)]
    })
  })
}

const lengthOf = (path: OutlinePath) => {
  const points = along(path, 64)
  return points.slice(1).reduce((sum, [x, y], n) => {
    const [px, py] = points[n] as [number, number]
    return sum + Math.hypot(x - px, y - py)
  }, 0)
}

/** How far a place is from a line of an outline without arcs, by the nearest of its pieces. */
function offPath([x, y]: readonly [number, number], { vertices }: OutlinePath) {
  return vertices.slice(1).reduce((least, to, n) => {
    const from = vertices[n] as Vertex
    const [dx, dy] = [to.x - from.x, to.y - from.y]
    const long = dx * dx + dy * dy
    const share = long === 0 ? 0 : Math.min(1, Math.max(0, ((x - from.x) * dx + (y - from.y) * dy) / long))
    return Math.min(least, Math.hypot(x - from.x - share * dx, y - from.y - share * dy))
  }, Infinity)
}

const tenths = (least: number, most: number) => fc.integer({ min: least, max: most }).map((n) => n / 10)

describe('an ellipse as chords', () => {
  it('lies within the tolerance of its own equation, everywhere, and is as long as its series says', () => {
    fc.assert(
      fc.property(tenths(5, 60), tenths(5, 60), (a, b) => {
        const path = ellipsePath(
          { centre: [1, -2], u: [a, 0], v: [0, b], from: 0, to: 2 * Math.PI },
          TOLERANCE,
        )
        expect(path.closed).toBe(true)
        const off = along(path).map(([x, y]) => {
          // First-order distance from (x / a)^2 + (y / b)^2 = 1: f over the length of its slope.
          const [p, q] = [x - 1, y + 2]
          const f = (p / a) ** 2 + (q / b) ** 2 - 1
          return Math.abs(f) / Math.hypot((2 * p) / a ** 2, (2 * q) / b ** 2)
        })
        expect(Math.max(...off)).toBeLessThan(2 * TOLERANCE)
        // Ramanujan's second formula for the perimeter (1914).
        const h = ((a - b) / (a + b)) ** 2
        const around = Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)))
        expect(lengthOf(path) / around).toBeCloseTo(1, 3)
      }),
    )
  })
})

describe('a spline as chords', () => {
  it('with the weights of a quarter circle is one (Piegl and Tiller, The NURBS Book: 1, root of a half, 1)', () => {
    const quarter: Spline = {
      degree: 2,
      points: [
        [2, 0],
        [2, 2],
        [0, 2],
      ],
      knots: [0, 0, 0, 1, 1, 1],
      weights: [1, Math.SQRT1_2, 1],
      closed: false,
    }
    const path = splinePath(quarter, TOLERANCE)
    for (const { x, y } of path.vertices) expect(Math.hypot(x, y)).toBeCloseTo(2, 9)
    for (const [x, y] of along(path)) expect(Math.abs(Math.hypot(x, y) - 2)).toBeLessThan(TOLERANCE)
    expect(path.vertices[0]).toEqual({ x: 2, y: 0 })
    expect(path.vertices.at(-1)?.x).toBeCloseTo(0, 9)
  })

  it('of one span is the Bezier curve of its points: Bernstein polynomials', () => {
    const point = fc.tuple(tenths(-50, 50), tenths(-50, 50))
    fc.assert(
      fc.property(fc.array(point, { minLength: 4, maxLength: 4 }), (points) => {
        const path = splinePath(
          { degree: 3, points, knots: [0, 0, 0, 0, 1, 1, 1, 1], closed: false },
          TOLERANCE,
        )
        const exact = Array.from({ length: 201 }, (_, n): [number, number] => {
          const t = n / 200
          const by = [(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t ** 3]
          const sum = (axis: 0 | 1) =>
            points.reduce((total, each, k) => total + each[axis] * (by[k] as number), 0)
          return [sum(0), sum(1)]
        })
        const drawn = along(path, 1)
        for (const place of exact) expect(offPath(place, path)).toBeLessThan(1.5 * TOLERANCE)
        expect(
          Math.hypot(
            (drawn[0]?.[0] ?? 9) - (exact[0]?.[0] ?? 0),
            (drawn[0]?.[1] ?? 9) - (exact[0]?.[1] ?? 0),
          ),
        ).toBeLessThan(1e-9)
        const [lx, ly] = path.vertices.slice(-1).map(({ x, y }) => [x, y] as const)[0] as readonly [
          number,
          number,
        ]
        expect(Math.hypot(lx - (exact[200]?.[0] ?? 0), ly - (exact[200]?.[1] ?? 0))).toBeLessThan(1e-6)
      }),
    )
  })

  it.each([
    // Cubic Bezier curves along X, whose ends and turns are looked for in 10,000 places of their Bernstein polynomials.
    { name: 'out and back to where it began', p: 0, q: -1.8, ends: 0 },
    { name: 'past its end and back', p: 0, q: 3, ends: 1 },
    { name: 'a little past its end and back', p: 0.4, q: 1.1, ends: 1 },
    { name: 'behind its start, then past its end', p: -1, q: 2, ends: 1 },
  ])('that folds back along itself reaches as far as it does: $name', ({ p, q, ends }) => {
    const points = [0, p, q, ends].map((x): [number, number] => [x, -0.1])
    const path = splinePath({ degree: 3, points, knots: [0, 0, 0, 0, 1, 1, 1, 1], closed: false }, TOLERANCE)
    const xs = Array.from({ length: 10001 }, (_, n) => {
      const t = n / 10000
      return 3 * t * (1 - t) ** 2 * p + 3 * t * t * (1 - t) * q + t ** 3 * ends
    })
    expect(Math.abs(Math.min(...path.vertices.map(({ x }) => x)) - Math.min(...xs))).toBeLessThan(TOLERANCE)
    expect(Math.abs(Math.max(...path.vertices.map(({ x }) => x)) - Math.max(...xs))).toBeLessThan(TOLERANCE)
    expect(path.vertices.length).toBeLessThan(40)
  })

  it('is refused where its numbers do not fit each other', () => {
    const good: Spline = {
      degree: 1,
      points: [
        [0, 0],
        [1, 1],
      ],
      knots: [0, 0, 1, 1],
      closed: false,
    }
    expect(isSound(good)).toBe(true)
    for (const bad of [
      { degree: 0 },
      { knots: [0, 0, 1] },
      { knots: [0, 1, 0, 1] },
      { knots: [0, 0, 0, 0] },
      { points: [[0, 0]] as [number, number][] },
      {
        points: [
          [0, 0],
          [Number.NaN, 1],
        ] as [number, number][],
      },
      { weights: [1, 0] },
      { weights: [1] },
    ])
      expect(isSound({ ...good, ...bad })).toBe(false)
  })
})

const vertex = fc.record({
  x: tenths(-50, 50),
  y: tenths(-50, 50),
  bulge: fc.constantFrom(0, 0.5, -0.4, 1, -1),
})
const line = fc
  .array(vertex, { minLength: 2, maxLength: 6 })
  .filter((all) => all.every(({ x, y }, n) => n === 0 || x !== all[n - 1]?.x || y !== all[n - 1]?.y))

describe('a line of an outline', () => {
  it('from its other end goes over the same places, back', () => {
    fc.assert(
      fc.property(line, fc.boolean(), (vertices, closed) => {
        const path = { vertices, closed }
        expect(lengthOf(reversed(path))).toBeCloseTo(lengthOf(path), 9)
        const [there, back] = [
          along({ ...path, closed: false }),
          along(reversed({ ...path, closed: false })).reverse(),
        ]
        there.forEach(([x, y], n) => {
          expect(back[n]?.[0]).toBeCloseTo(x, 9)
          expect(back[n]?.[1]).toBeCloseTo(y, 9)
        })
      }),
    )
  })

  it('lies where its placing puts each of its places: turned, mirrored, larger; squeezed within the tolerance', () => {
    fc.assert(
      fc.property(
        line,
        tenths(-90, 90),
        fc.constantFrom(1, -1, 2, -0.5),
        fc.boolean(),
        (vertices, angle, scale, even) => {
          const [c, s] = [Math.cos(angle), Math.sin(angle)]
          const across = even ? Math.abs(scale) : 1.7
          const placing: Placing = { a: scale * c, b: scale * s, c: -across * s, d: across * c, e: 3, f: -1 }
          const placed = pathIn({ vertices, closed: false }, placing, TOLERANCE)
          const wanted = along({ vertices, closed: false }).map(([x, y]) => placePoint(placing, x, y))
          // Arcs stay arcs where all is made larger alike: place by place. Else they are chords.
          const off = even
            ? along(placed).map(([x, y], n) =>
                Math.hypot(x - (wanted[n]?.[0] ?? 9), y - (wanted[n]?.[1] ?? 9)),
              )
            : wanted.map((place) => offPath(place, placed))
          expect(off).toHaveLength(wanted.length)
          expect(Math.max(...off)).toBeLessThan(even ? 1e-9 : 1.5 * TOLERANCE)
          if (even)
            expect(lengthOf(placed)).toBeCloseTo(Math.abs(scale) * lengthOf({ vertices, closed: false }), 6)
        },
      ),
    )
  })

  it('is placed by two placings as by the one that they come to', () => {
    const any = fc.array(tenths(-30, 30), { minLength: 6, maxLength: 6 })
    fc.assert(
      fc.property(any, any, tenths(-50, 50), tenths(-50, 50), (p, q, x, y) => {
        const of = ([a, b, c, d, e, f]: readonly number[]) => ({ a, b, c, d, e, f }) as Placing
        const [inner, outer] = [of(p), of(q)]
        const [ix, iy] = placePoint(inner, x, y)
        const [wx, wy] = placePoint(outer, ix, iy)
        const [gx, gy] = placePoint(placedIn(inner, outer), x, y)
        expect(gx).toBeCloseTo(wx, 9)
        expect(gy).toBeCloseTo(wy, 9)
      }),
    )
    expect(placePoint(AS_DRAWN, 1, 2)).toEqual([1, 2])
  })
})

describe('ends that meet', () => {
  const ring = (count: number): Vertex[] =>
    Array.from({ length: count }, (_, n) => ({
      x: 5 * Math.cos((2 * Math.PI * n) / count),
      y: 5 * Math.sin((2 * Math.PI * n) / count),
      bulge: n % 2 === 0 ? 0.3 : 0,
    }))

  it('make one closed line of a ring that was drawn in pieces, in any order and direction, a hair apart', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 12 }),
        fc.infiniteStream(fc.tuple(fc.boolean(), fc.integer(), fc.integer({ min: -9, max: 9 }))),
        (count, stream) => {
          const whole = { vertices: ring(count), closed: true }
          const pieces = whole.vertices
            .map((from, n) => {
              const to = whole.vertices[(n + 1) % count] as Vertex
              const [turn, order, off] = stream.next().value as [boolean, number, number]
              const piece = {
                vertices: [
                  { ...from, x: from.x + off * 1e-6 },
                  { x: to.x, y: to.y },
                ],
                closed: false,
              }
              return { piece: turn ? reversed(piece) : piece, order }
            })
            .sort((a, b) => a.order - b.order)
          const got = joined(
            pieces.map(({ piece }) => piece),
            2e-4,
          )
          expect(got).toHaveLength(1)
          expect(got[0]?.closed).toBe(true)
          expect(got[0]?.vertices).toHaveLength(count)
          expect(lengthOf(got[0] as OutlinePath)).toBeCloseTo(lengthOf(whole), 3)
        },
      ),
    )
  })

  it('are left alone at a fork, and where they do not meet', () => {
    const from = (x: number, y: number, tx: number, ty: number) => ({
      vertices: [
        { x, y },
        { x: tx, y: ty },
      ],
      closed: false,
    })
    expect(joined([from(0, 0, 1, 0), from(1, 0, 2, 1), from(1, 0, 2, -1)], 1e-4)).toHaveLength(3)
    expect(joined([from(0, 0, 1, 0), from(1.001, 0, 2, 0)], 1e-4)).toHaveLength(2)
    expect(joined([from(0, 0, 1, 0), from(2, 0, 1, 0)], 1e-4)).toEqual([
      {
        vertices: [
          { x: 0, y: 0 },
          { x: 1, y: 0 },
          { x: 2, y: 0 },
        ],
        closed: false,
      },
    ])
  })

  it('never make the way longer or shorter', () => {
    fc.assert(
      fc.property(fc.array(line, { maxLength: 8 }), (lines) => {
        const paths = lines.map((vertices) => ({ vertices, closed: false }))
        const sum = (all: readonly OutlinePath[]) => all.reduce((total, path) => total + lengthOf(path), 0)
        expect(sum(joined(paths, 1e-4))).toBeCloseTo(sum(paths), 6)
      }),
    )
  })
})
