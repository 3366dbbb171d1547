import { isArc, type Motion, ROW } from '../program/index.ts'
import type { MachineSpeeds } from '../timing/index.ts'
import { pathOf } from './path.ts'

/** The whole path as straight pieces for drawing: two points of three numbers each. */
export interface PathPicture {
  /** Rapids as the machine makes them. */
  rapid: Float32Array
  /** Everything at feed, arcs as chords. */
  feed: Float32Array
  /** Pieces of each that belong to rows before row r: what has been done when row r begins. */
  rapidBefore: Uint32Array
  feedBefore: Uint32Array
}

class Pieces {
  private array = new Float32Array(6 * 4096)
  count = 0

  add(ax: number, ay: number, az: number, bx: number, by: number, bz: number): void {
    const at = 6 * this.count
    if (at === this.array.length) {
      const next = new Float32Array(this.array.length * 2)
      next.set(this.array)
      this.array = next
    }
    this.array[at] = ax
    this.array[at + 1] = ay
    this.array[at + 2] = az
    this.array[at + 3] = bx
    this.array[at + 4] = by
    this.array[at + 5] = bz
    this.count++
  }

  done(): Float32Array {
    return this.array.slice(0, 6 * this.count)
  }
}

/** The pieces of every row, in order. */
export function pathPicture(motion: Motion, speeds: MachineSpeeds): PathPicture {
  const { count, kind, x, y, z } = motion
  const rapid = new Pieces()
  const feed = new Pieces()
  const rapidBefore = new Uint32Array(count + 1)
  const feedBefore = new Uint32Array(count + 1)
  let [px, py, pz] = motion.start
  for (let row = 0; row < count; row++) {
    rapidBefore[row] = rapid.count
    feedBefore[row] = feed.count
    const of = kind[row] as number
    const [nx, ny, nz] = [x[row] as number, y[row] as number, z[row] as number]
    if (of === ROW.RAPID || isArc(of)) {
      const path = pathOf(motion, row, speeds)
      const into = of === ROW.RAPID ? rapid : feed
      for (let n = 1; n < path.length; n++) {
        const [a, b] = [path[n - 1], path[n]] as [readonly number[], readonly number[]]
        into.add(...(a as [number, number, number]), ...(b as [number, number, number]))
      }
    } else if (of !== ROW.EVENT) feed.add(px, py, pz, nx, ny, nz)
    px = nx
    py = ny
    pz = nz
  }
  rapidBefore[count] = rapid.count
  feedBefore[count] = feed.count
  return { rapid: rapid.done(), feed: feed.done(), rapidBefore, feedBefore }
}
