import { type Material, materialIn, roundRpm, rpmFor } from '../../cutting/index.ts'
import { convertLength, type LengthUnit, type TypedLength } from '../../quantity/index.ts'
import { type CycleCase, printed, toolOf } from '../cycle/index.ts'
import { arcFrom, chordsOf, type FlatMove, type Layout, layoutOf } from './flat.ts'
import type { WrapParams } from './params.ts'

const usualR = (unit: LengthUnit) => (unit === 'inch' ? 0.05 : 1)
/** How far chords lie off an arc where nothing is said: as the program reader takes it. */
const usualChord = (unit: LengthUnit) => (unit === 'inch' ? 0.0005 : 0.01)
const USUAL_TOP = 8_000
/** Taken where the machine's page does not say, degrees a minute. */
const USUAL_ROTARY = 3_000
const DEGREE = 180 / Math.PI

/** Everything that a layout on a cylinder comes to, in the case's unit. */
export interface WrapSizes {
  /** Of the surface. */
  radius: number
  /** On which the lengths round it are true, as it is printed: the control's own radius. */
  mapped: number
  depth: number
  /** Added to a height over the surface to get the Z that is written. */
  zShift: number
  /** +1 where the angle counts as flat Y does, -1 where the machine turns the other way. */
  sense: 1 | -1
  /** By the control's mapping; else X and rotary words. */
  byMapping: boolean
  /** Arcs that the control keeps while it wraps. */
  layout: Layout
  moves: FlatMove[]
  /** Along X and round, of what is cut; null where nothing is. */
  extent: { x: [number, number]; y: [number, number] } | null
  /** Once round, on the circle that lengths are true on. */
  about: number
  /** Flat Y at which the turn begins: the seam. */
  seam: number
  /** What is left at the seam; negative where it overlaps. */
  gap: number
  /** Degrees that it turns from and to. */
  turnsFrom: number
  turnsTo: number
  r: number
  clearance: number
  chord: number
  feed: number
  rpm: number
  /** Top speed of the rotary, degrees a minute. */
  rotaryTop: number
  /** Slowest share of the feed that the rotary allows; 1 where it holds nothing up. */
  slowest: number
}

/** Depths of the passes, down to the bottom. */
function passes(depth: number, step: number): number[] {
  const count = Math.max(1, Math.ceil(depth / step - 1e-9))
  return Array.from({ length: count }, (_, n) => -(n === count - 1 ? depth : (n + 1) * step))
}

interface Cut {
  depths: readonly number[]
  r: number
  feed: number
  plunge: number
}

/** The moves that cut a layout: over each line, down, along, up. */
function movesOf({ strokes, holes, moves }: Layout, { depths, r, feed, plunge }: Cut): FlatMove[] {
  const found: FlatMove[] = [...moves]
  for (const stroke of strokes)
    for (const z of depths) {
      const [first, ...rest] = stroke
      const last = stroke.at(-1)
      if (!first || !last) continue
      found.push({ does: 'rapid', x: first[0], y: first[1], z: r })
      found.push({ does: 'feed', x: first[0], y: first[1], z, feed: plunge })
      for (const [x, y] of rest) found.push({ does: 'feed', x, y, z, feed })
      found.push({ does: 'rapid', x: last[0], y: last[1], z: r })
    }
  for (const [x, y] of holes) {
    found.push({ does: 'rapid', x, y, z: r })
    for (const z of depths) {
      found.push({ does: 'feed', x, y, z, feed: plunge })
      found.push({ does: 'rapid', x, y, z: r })
    }
  }
  return found
}

/** Points that what is cut reaches, arcs with their whole circle. */
function extentOf(moves: readonly FlatMove[]): WrapSizes['extent'] {
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity]
  let before: FlatMove | undefined
  const take = (x: number, y: number) => {
    x0 = Math.min(x0, x)
    x1 = Math.max(x1, x)
    y0 = Math.min(y0, y)
    y1 = Math.max(y1, y)
  }
  for (const move of moves) {
    if (move.does !== 'rapid' && move.z < 0) {
      take(move.x, move.y)
      if (before) take(before.x, before.y)
      if (move.does === 'arc') {
        const size = Math.hypot(move.x - move.cx, move.y - move.cy)
        take(move.cx - size, move.cy - size)
        take(move.cx + size, move.cy + size)
      }
    }
    before = move
  }
  return x0 <= x1 ? { x: [x0, x1], y: [y0, y1] } : null
}

/** Degrees of a length round a circle: A = 360 Y / (2 pi R) (trade.md 7). */
export const degreesRound = (y: number, radius: number) => (y / radius) * DEGREE

/** Share of its feed at which a move goes, where the rotary's top speed holds it up. */
export function shareOfFeed(
  dx: number,
  dy: number,
  dz: number,
  feed: number,
  radius: number,
  rotaryTop: number,
): number {
  const length = Math.hypot(dx, dy, dz)
  if (length === 0 || dy === 0) return 1
  return Math.min(1, (rotaryTop * length) / (Math.abs(degreesRound(dy, radius)) * feed))
}

/** All sizes of a layout on a cylinder. */
export function wrapSizes(params: WrapParams, on: CycleCase, material: Material): WrapSizes {
  const { unit, machine, profile } = on
  const own = ({ value, unit: from }: TypedLength) => convertLength(value, from, unit)
  const radius = own(params.diameter) / 2
  const depth = own(params.depth)
  const bottom = params.trueAt === 'bottom' && params.what !== 'program'
  const mapped = Math.max(
    printed(bottom ? radius - depth : radius, on),
    printed(unit === 'inch' ? 1e-3 : 1e-2, on),
  )
  const about = 2 * Math.PI * mapped
  const r = params.rPlane ? own(params.rPlane) : usualR(unit)
  const clearance = own(params.clearance)
  const chord = params.chord ? own(params.chord) : usualChord(unit)
  const feed = own(params.feed)
  const layout = layoutOf(params, about, chord, clearance, on)
  const laid = movesOf(layout, {
    depths: passes(depth, params.stepDown ? own(params.stepDown) : depth),
    r,
    feed,
    plunge: params.plungeFeed ? own(params.plungeFeed) : feed / 2,
  })
  const [dx, seam] = [own(params.x), (params.turn / 360) * about]
  const moved = laid.map(
    (move): FlatMove =>
      move.does === 'arc'
        ? { ...move, x: move.x + dx, y: move.y + seam, cx: move.cx + dx, cy: move.cy + seam }
        : { ...move, x: move.x + dx, y: move.y + seam },
  )
  const byMapping = params.way === 'mapping' && profile.reading.mapping !== null
  // Where the rotary word is wrapped an arc's own form differs from control to control: straight pieces depend on none.
  const keepsArcs = byMapping && profile.reading.mapping?.by === 'radius'
  const moves = keepsArcs ? moved : moved.flatMap((move, n) => asChords(move, moved[n - 1], chord))
  const rotaryTop = machine.dynamics?.rotary?.top ?? USUAL_ROTARY
  const extent = extentOf(moved)
  const ys = moves.map(({ y }) => y)
  const angles = [Math.min(0, ...ys), Math.max(0, ...ys)].map((y) => degreesRound(y, mapped)) as [
    number,
    number,
  ]
  const sense = machine.rotary?.top === 'back' ? -1 : 1
  let slowest = 1
  moves.forEach((move, n) => {
    const before = moves[n - 1]
    if (move.does === 'rapid' || !before) return
    const dyHere = move.does === 'arc' ? Math.hypot(move.x - move.cx, move.y - move.cy) : move.y - before.y
    const share =
      move.does === 'arc'
        ? shareOfFeed(0, dyHere, 0, move.feed, mapped, rotaryTop)
        : shareOfFeed(move.x - before.x, dyHere, move.z - before.z, move.feed, mapped, rotaryTop)
    slowest = Math.min(slowest, share)
  })
  const speeds = materialIn(material, unit)
  const cutter = toolOf(on, params.tool)?.diameter ?? (unit === 'inch' ? 0.125 : 3)
  const top = machine.dynamics?.spindleTop ?? USUAL_TOP
  return {
    radius,
    mapped,
    depth,
    zShift: params.zZero === 'centre' ? radius : 0,
    sense,
    byMapping,
    layout,
    moves,
    extent,
    about,
    seam,
    gap: extent ? about - (extent.y[1] - extent.y[0]) : about,
    turnsFrom: sense === 1 ? angles[0] : -angles[1],
    turnsTo: sense === 1 ? angles[1] : -angles[0],
    r,
    clearance,
    chord,
    feed,
    rpm: params.turns ?? Math.min(roundRpm(rpmFor(speeds.drilling, cutter, unit)), top),
    rotaryTop,
    slowest,
  }
}

/** An arc as straight moves. */
function asChords(move: FlatMove, before: FlatMove | undefined, chord: number): FlatMove[] {
  if (move.does !== 'arc') return [move]
  const { z, feed } = move
  const { size, sweep, ends } = arcFrom(move, before ?? move)
  return ends(chordsOf(Math.abs(sweep), size, chord)).map(([x, y]) => ({ does: 'feed', x, y, z, feed }))
}
