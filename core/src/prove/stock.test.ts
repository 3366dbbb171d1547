import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { evenly } from '../../testing/evenly.ts'
import { type Body, boundsOf, layoutIn, type Triple } from './body.ts'
import { withEdits } from './edit.ts'
import { MilledStock } from './stock.ts'
import { placeAt } from './sweep.ts'

/** A part of 4 by 3 by 1, its top at Z 0. */
const part = { least: [0, -3, -1] as Triple, greatest: [4, 0, 0] as Triple }
/** Two cells of the grid: how far a place may be from where the grid puts it. */
const MARGIN = (2 * 4) / 192

const hundredths = (least: number, greatest: number) =>
  fc.integer({ min: least, max: greatest }).map((value) => value / 100)
const place = fc.tuple(hundredths(-50, 450), hundredths(-350, 50))
const slots = fc.array(
  fc.record({
    from: place,
    to: place,
    z: hundredths(-80, -10),
    /** How much lower or higher it ends. */
    slope: fc.oneof(fc.constant(0), hundredths(-30, 30)),
    radius: hundredths(10, 60),
  }),
  { maxLength: 5 },
)

interface Cut {
  from: readonly [number, number]
  to: readonly [number, number]
  z: number
  slope: number
  radius: number
}

const make = (stock: MilledStock, { from, to, z, slope, radius }: Cut) =>
  stock.cut([...from, z], [...to, z + slope], { radius })

/** Whether a cutter that is set down at many places of its way ever stands over a point, so deep (Euclid). */
const clears = (
  { from, to, z, slope, radius }: Cut,
  [x, y]: readonly [number, number],
  depth: number,
  less: number,
) =>
  Array.from({ length: 301 }, (_, n) => n / 300).some(
    (t) =>
      z + slope * t <= depth &&
      Math.hypot(x - from[0] - (to[0] - from[0]) * t, y - from[1] - (to[1] - from[1]) * t) < radius - less,
  )

describe('what is left of a part', () => {
  it('is met by a plunge where some of the tool stands over ground that no slot has taken away', () => {
    fc.assert(
      fc.property(slots, place, hundredths(5, 30), hundredths(-70, -5), (cuts, at, radius, depth) => {
        const stock = new MilledStock(part)
        for (const each of cuts) make(stock, each)
        const met = stock.meets(placeAt([...at, 1]), placeAt([...at, depth]), { radius, from: 0 }) <= 1
        // Points all over the tool's end: which of them stand in material, surely or perhaps.
        const points = Array.from({ length: 200 }, (_, n) => {
          const r = radius * Math.sqrt((n + 0.5) / 200)
          return [at[0] + r * Math.cos(2.4 * n), at[1] + r * Math.sin(2.4 * n)] as const
        })
        const stands = (margin: number) =>
          points.some(
            ([x, y]) =>
              x > margin &&
              x < 4 - margin &&
              y > -3 + margin &&
              y < -margin &&
              cuts.every((each) => !clears(each, [x, y], depth + Math.sign(margin) * 0.03, -margin)),
          )
        if (stands(MARGIN)) expect(met).toBe(true)
        if (!stands(-MARGIN)) expect(met).toBe(false)
      }),
      depth(200, 2000),
    )
  })

  it('along a cut, also a ramp, has the height of the lowest place from which the cutter reaches it', () => {
    const within = (least: number, greatest: number) => evenly(least, greatest)
    const cut = slots.filter((all) => all.length > 0).map(([first]) => first as Cut)
    fc.assert(
      fc.property(cut, within(-0.3, 1.3), within(-1.4, 1.4), (each, along, aside) => {
        const { from, to, radius } = each
        const [dx, dy] = [to[0] - from[0], to[1] - from[1]]
        const length = Math.hypot(dx, dy) || 1
        const x = from[0] + dx * along - (dy / length) * aside * radius
        const y = from[1] + dy * along + (dx / length) * aside * radius
        fc.pre(x > 0.1 && x < 3.9 && y > -2.9 && y < -0.1)
        const stock = new MilledStock(part)
        make(stock, each)
        /** The deepest that a needle of one cell gets without meeting anything, by halves. */
        let [free, met] = [0.01, -1]
        for (let n = 0; n < 20; n++) {
          const middle = (free + met) / 2
          if (stock.meets(placeAt([x, y, 1]), placeAt([x, y, middle]), { radius: 4 / 192, from: 0 }) <= 1)
            met = middle
          else free = middle
        }
        const steep = Math.abs(each.slope) / length
        const lowest = (less: number) =>
          Math.min(
            0,
            ...Array.from({ length: 1001 }, (_, n) => n / 1000).flatMap((t) =>
              Math.hypot(x - from[0] - dx * t, y - from[1] - dy * t) < radius - less
                ? [each.z + each.slope * t]
                : [],
            ),
          )
        // Between what is reached with two cells to spare, and with two cells more; under the part it was not looked for.
        expect(free).toBeLessThanOrEqual(Math.max(-1, lowest(MARGIN) + MARGIN * steep + 0.01) + 2e-6)
        expect(free).toBeGreaterThanOrEqual(lowest(-MARGIN) - MARGIN * steep - 0.01)
      }),
      depth(300, 3000),
    )
  })

  it('never grows back: what one more cut takes away is met no sooner', () => {
    fc.assert(
      fc.property(slots, slots, place, place, hundredths(-70, -5), (cuts, more, from, to, z) => {
        const share = (all: typeof cuts) => {
          const stock = new MilledStock(part)
          for (const each of all) make(stock, each)
          return stock.meets(placeAt([...from, z]), placeAt([...to, z]), { radius: 0.25, from: 0 })
        }
        expect(share([...cuts, ...more])).toBeGreaterThanOrEqual(share(cuts))
      }),
      depth(40, 400),
    )
  })
})

describe('a layout in the other unit', () => {
  const size = evenly(0.01, 50)
  const at = fc.record({ x: size, y: size, z: size })
  const common = { id: fc.constant('b'), name: fc.constant('b'), role: fc.constant('stop' as const) }
  const body: fc.Arbitrary<Body> = fc.oneof(
    fc.record({ ...common, shape: fc.constant('box' as const), at, size: at }),
    fc.record({
      ...common,
      shape: fc.constant('cylinder' as const),
      axis: fc.constantFrom('X' as const, 'Y' as const, 'Z' as const),
      at,
      diameter: size,
      length: size,
    }),
  )
  it('has every bound at 25.4 times the number', () => {
    fc.assert(
      fc.property(body, (of) => {
        const [mm] = layoutIn({ unit: 'inch', bodies: [of] }, 'mm').bodies
        const [a, b] = [boundsOf(of), boundsOf(mm as Body)]
        for (const axis of [0, 1, 2] as const) {
          expect(b.least[axis] / 25.4).toBeCloseTo(a.least[axis], 9)
          expect(b.greatest[axis] / 25.4).toBeCloseTo(a.greatest[axis], 9)
        }
      }),
    )
  })
})

describe('edits of a text', () => {
  it('are made where they stand, whatever their order', () => {
    const edits = [
      { line: 1, from: 3, to: 6, insert: 'X2.' },
      { line: 2, from: 0, to: 0, insert: 'G90 ' },
      { line: 2, from: 8, to: 11, insert: 'F10.' },
    ]
    const text = 'G0 X1.\nG1 Z-1. F5.\nM30'
    const after = 'G0 X2.\nG90 G1 Z-1. F10.\nM30'
    expect(withEdits(text, edits)).toBe(after)
    expect(withEdits(text, [...edits].reverse())).toBe(after)
  })
  it('of lines that are not there change nothing', () => {
    expect(withEdits('M30', [{ line: 7, from: 0, to: 0, insert: 'X' }])).toBe('M30')
  })
})
