import { cutsOf, grooveMoves, type Move } from './plan.ts'
import { cutOutline, lowEnd, type UV } from './section.ts'
import type { GrooveSizes } from './sizes.ts'

/** One groove cut move by move, for a picture that plays it. */
export interface GroovePlay {
  moves: readonly Move[]
  from: UV
  /** Length of the way up to the end of each move. */
  until: readonly number[]
}

const apart = (a: UV, b: UV) => Math.hypot(b.u - a.u, b.v - a.v)

export function groovePlay(sizes: GrooveSizes): GroovePlay {
  const from = { u: sizes.start, v: sizes.level }
  const moves = grooveMoves(sizes, Math.min(sizes.peckRetreat, sizes.insert.width / 4), 0)
  const until: number[] = []
  let at = from
  let way = 0
  for (const { to } of moves) {
    way += apart(at, to)
    until.push(way)
    at = to
  }
  return { moves, from, until }
}

/** How it stands after a share of the way (0 to 1): where the insert is, and what has been cut. */
export interface GrooveScene {
  at: UV
  /** Its low end. */
  low: number
  outline: UV[]
  /** The number of the move that it is in, from 1. */
  move: number
  part: Move['part'] | undefined
}

export function grooveScene(
  sizes: GrooveSizes,
  { moves, from, until }: GroovePlay,
  share: number,
): GrooveScene {
  const whole = until.at(-1) ?? 0
  const way = share * whole
  const index = share >= 1 ? moves.length - 1 : until.findIndex((end) => end >= way)
  const move = moves[index]
  const start = moves[index - 1]?.to ?? from
  const before = until[index - 1] ?? 0
  const along = move && until[index] !== before ? (way - before) / ((until[index] as number) - before) : 1
  const at = move
    ? { u: start.u + (move.to.u - start.u) * along, v: start.v + (move.to.v - start.v) * along }
    : from
  const done = moves.slice(0, index)
  // A part of an arc is drawn as its chord: the next moves are not there yet to hide it.
  const { centre, ...straight } = { ...move, to: at, part: move?.part ?? 'out' }
  const now: Move = share >= 1 && centre ? { ...straight, centre } : straight
  const cuts = cutsOf([...done, ...(move ? [now] : [])], from)
  const { section, insert } = sizes
  const margin = insert.width + section.edge.size
  return {
    at,
    low: lowEnd(at.u, insert),
    outline: cutOutline(cuts, insert, section.low - margin, section.high + margin, { pieces: 240 }),
    move: index + 1,
    part: move?.part,
  }
}
