import { type Box, radiusBeside, type Triple } from './body.ts'
import { type Place, placeAt } from './sweep.ts'
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
  private *touched(from: Place, to: Place, { z }: FlatPart, less: number) {
    const [low, high] = [z[0] + less, Math.max(z[0] + less, z[1] - less)]
    const [low0, low1] = [from.least[2] + low - this.z0, to.least[2] + low - this.z0]
    const [high0, high1] = [from.greatest[2] + high - this.z0, to.greatest[2] + high - this.z0]
    const first = Math.max(0, Math.floor(Math.min(low0, low1) / this.ring))
    const last = Math.min(RINGS - 1, Math.ceil(Math.max(high0, high1) / this.ring) - 1)
    for (let n = first; n <= last; n++) {
      // While its lower end is below the ring's upper one, and its upper end above the ring's lower one.
      const [a, b] = whileAbove((n + 1) * this.ring - low0, low0 - low1)
      const [c, d] = whileAbove(high0 - n * this.ring, high1 - high0)
      const [begin, end] = [Math.max(0, a, c), Math.min(1, b, d)]
      if (begin <= end) yield { n, begin, end }
    }
  }

  /** Takes away what a cutter sweeps. */
  cut(from: Triple, to: Triple, part: FlatPart): void {
    const dx = to[0] - from[0]
    for (const { n, begin, end } of this.touched(placeAt(from), placeAt(to), part, 0)) {
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

  /**
   * When a piece of a tool that moves in a straight line first meets what is left: a share of the move, or Infinity. Of
   * a tip that is only known to be in a box, the whole box is looked at.
   */
  meets(from: Place, to: Place, part: FlatPart): number {
    let first = Number.POSITIVE_INFINITY
    const [low0, high0] = [from.least[0] + part.x[0], from.greatest[0] + part.x[1]]
    const [lowBy, highBy] = [to.least[0] - from.least[0], to.greatest[0] - from.greatest[0]]
    for (const { n, begin, end } of this.touched(from, to, part, TOUCH)) {
      if (begin >= first) continue
      // On the far side of the centre line the same material stands again.
      for (const [r0, r1] of besideOf(this.rings[n] as Span[], part.beside ?? 0))
        for (const [low, high] of [
          [r0, r1],
          [-r1, -r0],
        ] as const) {
          const [a, b] = whileAbove(high - TOUCH - low0, -lowBy)
          const [c, d] = whileAbove(high0 - low - TOUCH, highBy)
          const [enter, leave] = [Math.max(begin, a, c), Math.min(end, b, d)]
          // A part without width, or one that stands, is there at once.
          if (enter < leave || (enter === leave && enter === begin && enter === end))
            first = Math.min(first, enter)
        }
    }
    return first
  }
}

/** The rings of material as they are in a plane beside the centre line. */
const besideOf = (rings: readonly Span[], beside: number): readonly Span[] =>
  beside === 0
    ? rings
    : rings
        .filter(([, r1]) => r1 > beside)
        .map(([r0, r1]) => [radiusBeside(r0, beside), radiusBeside(r1, beside)] as const)

/** From when to when a value a + d t lies above zero. */
function whileAbove(a: number, d: number): readonly [number, number] {
  if (d === 0)
    return a > 0
      ? [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY]
      : [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY]
  return d > 0 ? [-a / d, Number.POSITIVE_INFINITY] : [Number.NEGATIVE_INFINITY, -a / d]
}

/** Radii that lie between two X, of which one or both may be beyond the centre line. */
function aboutAxis(low: number, high: number): Span {
  if (low >= 0) return [low, high]
  return high <= 0 ? [-high, -low] : [0, Math.max(-low, high)]
}
