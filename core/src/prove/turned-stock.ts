import type { Box, Triple } from './body.ts'
import type { FlatPart, Span } from './tool-parts.ts'

/** Rings along Z that a part is seen as. */
const RINGS = 512
/** Overlaps smaller than this are touches, and what is thinner is no material. In either unit. */
const TOUCH = 1e-6

/**
 * What is left of a part on a lathe while it is cut: ring by ring along Z, from which radius to which there is material.
 * Cut from outside, from a bore or from the face all the same. The radii are exact, along Z a ring that is touched counts
 * as cut; it is only asked where the exact sweep has already met the part.
 */
export class TurnedStock {
  private readonly z0: number
  private readonly ring: number
  private readonly rings: Span[][]

  constructor({ least, greatest }: Box, bore: number) {
    this.z0 = least[2]
    this.ring = (greatest[2] - least[2]) / RINGS
    this.rings = Array.from({ length: RINGS }, () => [[bore / 2, greatest[0]]])
  }

  /**
   * The rings that a piece touches on its way, and from when to when it does. A sliver of a ring, `less` at both ends,
   * is left out.
   */
  private *touched(from: Triple, to: Triple, { z }: FlatPart, less: number) {
    const dz = to[2] - from[2]
    const [low, high] = [z[0] + less, Math.max(z[0] + less, z[1] - less)]
    const least = Math.min(from[2], to[2]) + low - this.z0
    const greatest = Math.max(from[2], to[2]) + high - this.z0
    const first = Math.max(0, Math.floor(least / this.ring))
    const last = Math.min(RINGS - 1, Math.ceil(greatest / this.ring) - 1)
    for (let n = first; n <= last; n++) {
      let [begin, end] = [0, 1]
      if (dz !== 0) {
        const ends = [
          (this.z0 + n * this.ring - high - from[2]) / dz,
          (this.z0 + (n + 1) * this.ring - low - from[2]) / dz,
        ]
        begin = Math.max(0, Math.min(...ends))
        end = Math.min(1, Math.max(...ends))
      }
      if (begin <= end) yield { n, begin, end }
    }
  }

  /** Takes away what a cutter sweeps. */
  cut(from: Triple, to: Triple, part: FlatPart): void {
    const dx = to[0] - from[0]
    for (const { n, begin, end } of this.touched(from, to, part, 0)) {
      const [a, b] = [from[0] + dx * begin, from[0] + dx * end]
      const [low, high] = aboutAxis(Math.min(a, b) + part.x[0], Math.max(a, b) + part.x[1])
      const ring = this.rings[n] as Span[]
      if (ring.every(([r0, r1]) => r1 <= low || r0 >= high)) continue
      this.rings[n] = ring.flatMap(([r0, r1]) =>
        [[r0, Math.min(r1, low)] as const, [Math.max(r0, high), r1] as const].filter(
          ([p, q]) => q - p > TOUCH,
        ),
      )
    }
  }

  /** When a piece of a tool that moves in a straight line first meets what is left: a share of the move, or Infinity. */
  meets(from: Triple, to: Triple, part: FlatPart): number {
    const dx = to[0] - from[0]
    let first = Number.POSITIVE_INFINITY
    for (const { n, begin, end } of this.touched(from, to, part, TOUCH)) {
      if (begin >= first) continue
      // On the far side of the centre line the same material stands again.
      for (const [r0, r1] of this.rings[n] as Span[])
        for (const [low, high] of [
          [r0, r1],
          [-r1, -r0],
        ] as const)
          first = Math.min(
            first,
            firstWithin(from[0], dx, low + TOUCH - part.x[1], high - TOUCH - part.x[0], begin, end),
          )
    }
    return first
  }
}

/** Radii that lie between two X, of which one or both may be beyond the centre line. */
function aboutAxis(low: number, high: number): Span {
  if (low >= 0) return [low, high]
  return high <= 0 ? [-high, -low] : [0, Math.max(-low, high)]
}

/** When from `begin` to `end` a value x + dx t first lies between two others; Infinity for never. */
function firstWithin(x: number, dx: number, low: number, high: number, begin: number, end: number): number {
  if (low >= high) return Number.POSITIVE_INFINITY
  const at = x + dx * begin
  if (at > low && at < high) return begin
  if (dx === 0) return Number.POSITIVE_INFINITY
  const enter = ((dx > 0 ? low : high) - x) / dx
  return enter >= begin && enter < end ? enter : Number.POSITIVE_INFINITY
}
