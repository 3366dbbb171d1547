import { rpmAlong, rpmRound } from '../../program/index.ts'
import type { PlannedRow } from '../cycle/index.ts'
import { type CycleCase, printed } from '../cycle/index.ts'
import type { Cut, UV } from './section.ts'
import { type GrooveSizes, heldSpeed, onMachine, rpmAt } from './sizes.ts'

/** One move of the programmed point, in the section. */
export interface Move {
  to: UV
  /** No feed: a rapid. */
  feed?: number
  /** An arc's centre. */
  centre?: UV
  /** What it belongs to. */
  part: 'plunge' | 'peck' | 'aside' | 'finish' | 'out'
}

/** Where each plunge stands: the last is what remains (trade.md 7: plunges = span / K, rounded up, and one more). */
export function plungePlaces(start: number, last: number, stepover: number): number[] {
  const span = last - start
  if (Math.abs(span) < 1e-9) return [start]
  const plunges = Math.ceil(Math.abs(span) / stepover - 1e-9) + 1
  return Array.from({ length: plunges }, (_, n) =>
    n === plunges - 1 ? last : start + Math.sign(span) * stepover * n,
  )
}

/** How far a peck comes back to break the chip: the control's own in the one-line cycle, else what is written. */
export function chipBreak(sizes: GrooveSizes, { profile, unit }: CycleCase): number {
  return profile.reading.turningCycles === 'one-line'
    ? Math.min(profile.reading.retreat[unit], unit === 'inch' ? 0.02 : 0.5)
    : sizes.peckRetreat
}

/** The roughing of one groove: each plunge in pecks, straight out, aside at the clearance to the next. It ends over the last. */
function plungeMoves(sizes: GrooveSizes, back: number, shift: number): Move[] {
  const { start, last, stepover, peck, plungeDepth, level, feed } = sizes
  const moves: Move[] = []
  plungePlaces(start, last, stepover).forEach((place, n) => {
    const u = place + shift
    if (n > 0) moves.push({ to: { u, v: level }, part: 'aside' })
    const whole = plungeDepth - level
    const pecks = peck > 0 ? Math.max(1, Math.ceil(whole / peck - 1e-9)) : 1
    for (let m = 1; m <= pecks; m++) {
      const v = m === pecks ? plungeDepth : level + peck * m
      moves.push({ to: { u, v }, feed, part: 'plunge' })
      if (m < pecks) moves.push({ to: { u, v: v - back }, part: 'peck' })
    }
    moves.push({ to: { u, v: level }, part: 'out' })
  })
  return moves
}

/**
 * One wall of the finishing pass, for the corner of the insert that cuts it, as if it were sharp: over the edge (a
 * chamfer of 45 degrees is displaced by r (2 - sqrt 2), a round edge has its radius and the insert's), down the wall,
 * round the corner (its radius less the insert's), along the floor to the middle, out. Derived.
 */
function wallMoves(sizes: GrooveSizes, side: 'low' | 'high', shift: number): Move[] {
  const { section, insert, level, finishFeed: feed } = sizes
  const { low, high, depth, corner, edge } = section
  const { width, corner: r } = insert
  const sign = side === 'low' ? 1 : -1
  // An insert a little wider than the groove stands over both walls alike.
  const over = Math.max(0, width - (high - low)) / 2
  const wall = side === 'low' ? low - over : high + over
  // Of the programmed end, for a place of the corner that cuts.
  const aside = side === insert.programmed ? 0 : insert.programmed === 'low' ? -width : width
  /** `in` counts from the wall into the groove. */
  const at = (inwards: number, v: number): UV => ({ u: wall + sign * inwards + aside + shift, v })
  const moves: Move[] = []
  if (edge.kind === 'chamfer') {
    const off = r * (2 - Math.SQRT2)
    moves.push({ to: at(-edge.size - off + level, level), part: 'aside' })
    moves.push({ to: at(0, edge.size + off), feed, part: 'finish' })
  } else if (edge.kind === 'round') {
    moves.push({ to: at(-edge.size - r, level), part: 'aside' })
    moves.push({ to: at(-edge.size - r, 0), feed, part: 'finish' })
    moves.push({
      to: at(0, edge.size + r),
      centre: at(-edge.size - r, edge.size + r),
      feed,
      part: 'finish',
    })
  } else moves.push({ to: at(0, level), part: 'aside' })
  const fillet = Math.max(0, corner - r)
  moves.push({ to: at(0, depth - fillet), feed, part: 'finish' })
  if (fillet > 0)
    moves.push({ to: at(fillet, depth), centre: at(fillet, depth - fillet), feed, part: 'finish' })
  const half = Math.max(0, high - low - width) / 2
  if (half > fillet) moves.push({ to: at(half, depth), feed, part: 'finish' })
  moves.push({ to: at(Math.max(half, fillet), level), part: 'out' })
  return moves
}

/** Every move of one groove, from over its first plunge, at the clearance. */
export function grooveMoves(sizes: GrooveSizes, back: number, shift: number): Move[] {
  return [
    ...plungeMoves(sizes, back, shift),
    ...(sizes.finish ? [...wallMoves(sizes, 'high', shift), ...wallMoves(sizes, 'low', shift)] : []),
  ]
}

/** The cuts among moves that begin at `from`. */
export function cutsOf(moves: readonly Move[], from: UV): Cut[] {
  let at = from
  return moves.flatMap(({ to, feed, centre }) => {
    const cut: Cut = { from: at, to, ...(centre ? { centre } : {}) }
    at = to
    return feed === undefined ? [] : [cut]
  })
}

/** A move as it is printed: X as a diameter and Z, and the place that it then means (X a radius). */
export interface PrintedMove extends Move {
  said: { x: number; z: number }
  meant: { x: number; z: number }
  /** From the start of an arc to its centre, as I (a radius) and K. */
  toCentre?: { i: number; k: number }
  clockwise?: boolean
}

/**
 * Moves as they are printed, each from where the last one really ends. Those that the control's own cycle makes are not
 * printed: they lie where its arithmetic puts them.
 */
export function printMoves(
  moves: readonly Move[],
  sizes: GrooveSizes,
  on: CycleCase,
  from: { x: number; z: number },
  byCycle: (move: Move) => boolean,
): PrintedMove[] {
  let before = from
  return moves.map((move) => {
    const exact = onMachine(sizes, move.to)
    const place = byCycle(move)
      ? { said: { x: 2 * exact.x, z: exact.z }, meant: exact }
      : printPlace(exact, on)
    const out: PrintedMove = { ...move, ...place }
    if (move.centre) {
      const centre = onMachine(sizes, move.centre)
      const i = printed(centre.x - before.x, on)
      const k = printed(centre.z - before.z, on)
      const [sx, sz] = [-i, -k]
      const [ex, ez] = [place.meant.x - (before.x + i), place.meant.z - (before.z + k)]
      out.toCentre = { i, k }
      // Angles count from Z to X: G3 goes that way.
      out.clockwise = sz * ex - sx * ez < 0
    }
    before = place.meant
    return out
  })
}

export function printPlace({ x, z }: { x: number; z: number }, on: CycleCase) {
  const said = { x: printed(2 * x, on), z: printed(z, on) }
  return { said, meant: { x: said.x / 2, z: said.z } }
}

/** The radius at a share of an arc: Z to the right and X up, angles count from Z to X. */
function radiusAlong(
  from: { x: number; z: number },
  to: { x: number; z: number },
  { i, k }: { i: number; k: number },
  clockwise: boolean,
): (share: number) => number {
  const [cx, cz] = [from.x + i, from.z + k]
  const begin = Math.atan2(from.x - cx, from.z - cz)
  const end = Math.atan2(to.x - cx, to.z - cz)
  const turn = clockwise
    ? -((begin - end + 2 * Math.PI) % (2 * Math.PI))
    : (end - begin + 2 * Math.PI) % (2 * Math.PI)
  const [r0, r1] = [Math.hypot(i, k), Math.hypot(to.x - cx, to.z - cz)]
  return (share) => cx + (r0 + (r1 - r0) * share) * Math.sin(begin + turn * share)
}

/** What printed moves are meant to do, with the feed a minute that takes as long as the turns along each. */
export function planMoves(
  moves: readonly PrintedMove[],
  sizes: GrooveSizes,
  on: CycleCase,
  from: { x: number; z: number },
): PlannedRow[] {
  let at = from
  return moves.map(({ meant, feed, toCentre, clockwise }): PlannedRow => {
    const start = at
    at = meant
    const to = [meant.x, null, meant.z] as const
    if (feed === undefined) return { does: 'rapid', to }
    const held = heldSpeed(sizes, on)
    const straight = held ? rpmAlong(start.x, meant.x, held) : rpmAt(sizes, start.x, on)
    if (!toCentre) return { does: 'feed', to, feed: printed(feed, on) * straight }
    const round = held ? rpmRound(radiusAlong(start, meant, toCentre, clockwise === true), held) : straight
    return {
      does: 'arc',
      to,
      centre: [start.x + toCentre.i, start.z + toCentre.k],
      clockwise: clockwise === true,
      feed: printed(feed, on) * round,
    }
  })
}
