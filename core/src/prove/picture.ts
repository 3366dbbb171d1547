import { isArc, type Motion, ROW } from '../program/index.ts'
import type { MachineSpeeds } from '../timing/index.ts'
import type { Triple } from './body.ts'
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
  /** Where a rotary turns the part: its axis along X, and how far the part is turned about it when row r ends (radians, from Y to Z). */
  turned: Float32Array | null
  axis: PartAxis | null
  /** The path as it is written, where compensation leads the tool beside it; null where it does not. */
  written: Float32Array | null
}

/** The axis along X that a rotary turns the part about; `sense` is +1 where the part turns from Y to Z as the angle counts up. */
export interface PartAxis {
  y: number
  z: number
  sense: 1 | -1
}

/** A turn of the part is drawn in pieces of at most this, in radians. */
const TURN_STEP = 0.07
const MOST_TURNS = 720

/** A point of space, as the part that is turned has it. */
function onPart([x, y, z]: readonly [number, number, number], { y: cy, z: cz }: PartAxis, turned: number) {
  const [cos, sin] = [Math.cos(turned), Math.sin(turned)]
  return [x, cy + (y - cy) * cos + (z - cz) * sin, cz - (y - cy) * sin + (z - cz) * cos] as const
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

/** The pieces of every row, in order; where a rotary turns the part about an axis, as they lie on the part. */
export function pathPicture(
  motion: Motion,
  speeds: MachineSpeeds,
  axis: PartAxis | null = null,
  written?: Motion,
): PathPicture {
  return {
    ...(axis && motion.rotary
      ? turnedPicture(motion, motion.rotary, speeds, axis)
      : straightPicture(motion, speeds)),
    written: written ? writtenPieces(written, speeds) : null,
  }
}

/** The pieces of a written path that the tool goes beside. */
function writtenPieces(motion: Motion, speeds: MachineSpeeds): Float32Array {
  const pieces = new Pieces()
  for (let row = 0; row < motion.count; row++) {
    const { beside } = motion.states[motion.state[row] as number] ?? { beside: 0 }
    if (beside === 0 || motion.kind[row] === ROW.EVENT) continue
    const path = pathOf(motion, row, speeds)
    for (let n = 1; n < path.length; n++) pieces.add(...(path[n - 1] as Triple), ...(path[n] as Triple))
  }
  return pieces.done()
}

const fromAxis = (point: readonly number[], { y, z }: PartAxis) =>
  Math.hypot((point[1] as number) - y, (point[2] as number) - z)

/** How far from the axis the feed moves come. */
function widest({ count, kind, y, z }: Motion, axis: PartAxis): number {
  let most = 0
  for (let row = 0; row < count; row++)
    if (kind[row] !== ROW.EVENT && kind[row] !== ROW.RAPID)
      most = Math.max(most, fromAxis([0, y[row] as number, z[row] as number], axis))
  return most
}

/** The path on a part that turns: each piece where the part has it, a turn as an arc round the axis. */
function turnedPicture(
  motion: Motion,
  rotary: Float64Array,
  speeds: MachineSpeeds,
  axis: PartAxis,
): Omit<PathPicture, 'written'> {
  const { count, kind } = motion
  const rapid = new Pieces()
  const feed = new Pieces()
  const rapidBefore = new Uint32Array(count + 1)
  const feedBefore = new Uint32Array(count + 1)
  const turned = new Float32Array(count)
  const near = 3 * widest(motion, axis)
  const isNear = (point: readonly number[]) => fromAxis(point, axis) <= near
  let before = 0
  for (let row = 0; row < count; row++) {
    rapidBefore[row] = rapid.count
    feedBefore[row] = feed.count
    const now = (axis.sense * (rotary[row] as number) * Math.PI) / 180
    turned[row] = now
    const of = kind[row] as number
    const path = of === ROW.EVENT ? [] : pathOf(motion, row, speeds)
    // The ways to and from the machine's top are not the part's: turned with it they would only be in the way.
    if (
      path.length > 0 &&
      (of !== ROW.RAPID || (isNear(path[0] as Triple) && isNear(path.at(-1) as Triple)))
    ) {
      const into = of === ROW.RAPID ? rapid : feed
      const pieces = Math.min(MOST_TURNS, Math.max(1, Math.ceil(Math.abs(now - before) / TURN_STEP)))
      const legs = path.length - 1
      let last = onPart(path[0] as [number, number, number], axis, before)
      for (let n = 1; n <= legs; n++)
        for (let piece = 1; piece <= pieces; piece++) {
          const [a, b] = [path[n - 1], path[n]] as [readonly number[], readonly number[]]
          const t = piece / pieces
          const at = [0, 1, 2].map(
            (each) => (a[each] as number) + ((b[each] as number) - (a[each] as number)) * t,
          )
          const share = (n - 1 + t) / legs
          const next = onPart(at as [number, number, number], axis, before + (now - before) * share)
          into.add(...last, ...next)
          last = next
        }
    }
    before = now
  }
  rapidBefore[count] = rapid.count
  feedBefore[count] = feed.count
  return { rapid: rapid.done(), feed: feed.done(), rapidBefore, feedBefore, turned, axis }
}

function straightPicture(motion: Motion, speeds: MachineSpeeds): Omit<PathPicture, 'written'> {
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
  return { rapid: rapid.done(), feed: feed.done(), rapidBefore, feedBefore, turned: null, axis: null }
}
