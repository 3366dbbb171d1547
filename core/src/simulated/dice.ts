/** Chance that can be told again: the n-th number of a seed is always the same, on a page, a server and in a test. */
export interface Dice {
  /** Numbers drawn so far, to be kept with the state. */
  drawn: number
  /** Even between two numbers. */
  between: (least: number, greatest: number) => number
  /**
   * Round zero, never further than `bound`: the mean of three even numbers, so that the middle is likelier than the ends
   * (standard deviation a third of the bound).
   */
  within: (bound: number) => number
  pick: <T>(of: readonly T[]) => T
}

/** A 32-bit mixer of integers (the finalizer of MurmurHash3, from memory), as a number from 0 up to 1. */
function mixed(seed: number, n: number): number {
  let h = (seed ^ Math.imul(n + 1, 0x9e3779b1)) >>> 0
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return ((h ^ (h >>> 16)) >>> 0) / 2 ** 32
}

export function dice(seed: number, drawn = 0): Dice {
  const next = () => mixed(seed, of.drawn++)
  const of: Dice = {
    drawn,
    between: (least, greatest) => least + (greatest - least) * next(),
    within: (bound) => (((next() + next() + next()) * 2) / 3 - 1) * bound,
    pick: (from) => from[Math.floor(next() * from.length)] as (typeof from)[number],
  }
  return of
}
