import { travelIn } from '../machine/index.ts'
import { convertLength } from '../quantity/index.ts'
import { type Clearance, type ClearanceCase, type Gap, obstaclesIn } from './clearance.ts'
import { type Vise, type ViseState, viseIn, viseReach } from './vise.ts'

/** A box of the side view: along Y in the room, plus to the back, and up from the table's top, in the case's unit. */
export interface SideBox {
  name: string
  from: number
  to: number
  bottom: number
  top: number
}

export interface SideSketch {
  table: SideBox
  vise: Record<ViseState, SideBox[]>
  obstacles: (SideBox & { side: 'back' | 'front'; comesDown: boolean })[]
  /** Where the fixed jaw's gripping face stands. */
  jaw: number
  /** From the foremost to the rearmost of what comes nearest, as the table stands now; `to` below `from` where they overlap. */
  gaps: { side: 'back' | 'front'; state: ViseState; from: number; to: number; height: number }[]
  /** What the picture must show, wherever the table is. */
  least: number
  greatest: number
  lowest: number
  highest: number
}

/** The parts of a vise in one state with the fixed jaw at a place, in the unit of the vise. */
export const viseBoxes = ({ parts }: Pick<Vise, 'parts'>, state: ViseState, jaw: number): SideBox[] =>
  parts.map(({ name, bottom, top, [state]: { front, back } }) => ({
    name,
    from: jaw + front,
    to: jaw + back,
    bottom,
    top,
  }))

/** How far an obstacle is drawn, of which only the near face is known, and how high, in shares of the table's depth. */
const DRAWN_DEPTH = 0.12
const DRAWN_ABOVE = 0.55
const DRAWN_BELOW = 0.22

/**
 * The side view of a case with the table at a share of its travel in Y: 0 fully forward, 1 fully back. Z stands at the
 * lowest that the job goes to. Where the table stands still, what is round it moves instead.
 */
export function sideSketch(
  of: ClearanceCase,
  share: number,
  { back, front }: Pick<Clearance, 'back' | 'front'>,
): SideSketch {
  const { machine, unit, jawAt, lowestZ } = of
  const y = travelIn(machine, 'Y', unit)
  const travel = y.greatest - y.least
  const depth = convertLength(machine.around?.tableDepth ?? 0, machine.unit, unit)
  const moves = machine.tableMoves.Y
  const table = moves ? share * travel : 0
  const room = (side: 'back' | 'front') =>
    moves ? (side === 'back' ? travel : 0) : side === 'back' ? (1 - share) * travel : -share * travel
  const down = lowestZ - travelIn(machine, 'Z', unit).greatest
  const vise = viseIn(of.vise, unit)
  const boxesIn = (state: ViseState) => viseBoxes(vise, state, table + jawAt)
  const highest = Math.max(viseReach(vise, 'open').top, DRAWN_ABOVE * depth)
  const lowest = -DRAWN_BELOW * depth
  const thick = DRAWN_DEPTH * (depth + travel)
  const obstacles = obstaclesIn(machine, unit).map(({ name, side, at, bottom, top, comesDownWithZ }) => {
    const face = at + room(side)
    const shift = comesDownWithZ ? down : 0
    return {
      name,
      side,
      comesDown: comesDownWithZ,
      from: side === 'back' ? face : face - thick,
      to: side === 'back' ? face + thick : face,
      bottom: Math.max(lowest, bottom + shift),
      top: Math.min(highest, top + shift),
    }
  })
  const gapOf = (gap: Gap): SideSketch['gaps'][number] => {
    const { obstacle, part, state } = gap
    const { side } = obstacle
    const face = obstacle.at + room(side)
    const end = table + jawAt + (side === 'back' ? part[state].back : part[state].front)
    const [from, to] = side === 'back' ? [end, face] : [face, end]
    return { side, state, from, to, height: (part.bottom + part.top) / 2 }
  }
  const places = [
    ...obstacles.flatMap(({ from, to }) => [from, to]),
    0,
    depth + (moves ? travel : 0),
    jawAt + Math.min(viseReach(vise, 'open').front, viseReach(vise, 'closed').front),
  ]
  return {
    table: { name: 'table', from: table, to: table + depth, bottom: -0.1 * depth, top: 0 },
    vise: { open: boxesIn('open'), closed: boxesIn('closed') },
    obstacles: obstacles.filter(({ bottom, top }) => bottom < top),
    jaw: table + jawAt,
    gaps: [back, front].flatMap((gap) => (gap ? [gapOf(gap)] : [])),
    least: Math.min(...places),
    greatest: Math.max(...places),
    lowest,
    highest,
  }
}
