import { radians } from '../geometry/index.ts'
import { fixedDigits, roundTo } from '../quantity/index.ts'
import type { ActionOf } from './actions.ts'
import type { Piece } from './devices.ts'
import type { Spot } from './plan-geometry.ts'
import { freeBall, outsideSection, reachOf, type Section } from './section.ts'
import type { SimulatedState } from './state.ts'
import type { TrueRotary } from './true-rotary.ts'
import type { MillWorld } from './world.ts'

/** A mill whose rotary stands on the table. */
export type SimulatedRotary = SimulatedState & {
  world: MillWorld & { rotary: TrueRotary }
  turn: NonNullable<SimulatedState['turn']>
}

export const hasRotary = (simulated: SimulatedState): simulated is SimulatedRotary =>
  simulated.world.kind === 'mill' && simulated.world.rotary !== null && simulated.turn !== null

export const onRotary = (simulated: SimulatedState): simulated is SimulatedRotary =>
  simulated.table === 'rotary' && hasRotary(simulated)

/** A body that turns with the rotary: a section, drawn out along X. */
export interface Lying {
  id: string
  name: string
  role: 'part' | 'chuck'
  x0: number
  x1: number
  section: Section
}

/** What the rotary holds as it is turned now, and the chuck itself. */
export function lying(simulated: SimulatedState): Lying[] {
  if (!onRotary(simulated)) return []
  const { rotary } = simulated.world
  const { axis, x, part } = rotary
  const by = radians(rotary.sense * (simulated.turn.shown + simulated.turn.off))
  const [c, s] = [Math.cos(by), Math.sin(by)]
  return [
    {
      id: 'round',
      name: 'part in the rotary',
      role: 'part',
      x0: x.end,
      x1: x.face,
      section: {
        middle: {
          y: axis.y + c * part.off.y - s * part.off.z,
          z: axis.z + s * part.off.y + c * part.off.z,
        },
        radius: part.radius,
        flat: { height: part.flatHeight, looks: Math.PI / 2 + radians(part.flatAt) + by },
      },
    },
    {
      id: 'chuck',
      name: 'chuck of the rotary',
      role: 'chuck',
      x0: x.face,
      x1: x.back,
      section: { middle: axis, radius: rotary.chuckRadius, flat: null },
    },
  ]
}

/** The ends of a body along X, grown by what comes to it. */
const alongside = ({ x0, x1 }: Lying, x: number, radius: number) => x > x0 - radius && x < x1 + radius

/** How deep a piece is in a body of a rotary; less than nothing while it is free. `z`: of the tip. */
export function depthIn(body: Lying, piece: Piece, at: Spot, z: number): number {
  const beside = Math.max(0, body.x0 - at.x, at.x - body.x1)
  if (piece.ball) {
    const off = outsideSection(body.section, { y: at.y, z: z + piece.from + piece.radius })
    return piece.radius - (beside > 0 ? Math.hypot(beside, Math.max(0, off)) : off)
  }
  const heights = [z + piece.from, z + piece.to] as const
  const [low, high] = [reachOf(body.section, 'y', -1, heights), reachOf(body.section, 'y', 1, heights)]
  const top = reachOf(body.section, 'z', 1, [at.y - piece.radius, at.y + piece.radius])
  const down = top === undefined ? Number.NEGATIVE_INFINITY : top - heights[0]
  if (low === undefined || high === undefined) return Math.min(down, 0)
  const side = Math.min(at.y + piece.radius - low, high - (at.y - piece.radius))
  return Math.min(down > 0 ? Math.min(side, down) : side, piece.radius - beside)
}

/** How far a piece can go along an axis before it meets a body of a rotary; Infinity where it does not. */
export function freeOfLying(
  body: Lying,
  piece: Piece,
  axis: 'X' | 'Y' | 'Z',
  way: 1 | -1,
  at: Spot,
  z: number,
): number {
  const { section } = body
  const none = Number.POSITIVE_INFINITY
  if (axis === 'X') {
    const gap = way > 0 ? body.x0 - (at.x + piece.radius) : at.x - piece.radius - body.x1
    return gap >= -1e-9 && depthIn(body, piece, { x: (body.x0 + body.x1) / 2, y: at.y }, z) > 1e-9
      ? Math.max(0, gap)
      : none
  }
  if (!alongside(body, at.x, piece.radius)) return none
  if (piece.ball)
    return freeBall(
      section,
      piece.radius,
      { y: at.y, z: z + piece.from + piece.radius },
      axis === 'Y' ? { y: way, z: 0 } : { y: 0, z: way },
    )
  const [low, high] = [z + piece.from, z + piece.to]
  const [edge, gap] =
    axis === 'Y'
      ? [
          reachOf(section, 'y', way > 0 ? -1 : 1, [low, high]),
          (to: number) => way * (to - at.y) - piece.radius,
        ]
      : [
          reachOf(section, 'z', way > 0 ? -1 : 1, [at.y - piece.radius, at.y + piece.radius]),
          (to: number) => (way > 0 ? to - high : low - to),
        ]
  const free = edge === undefined ? none : gap(edge)
  return free >= -1e-9 ? Math.max(0, free) : none
}

/** How high a body of a rotary stands under a place; nothing where it does not. */
export const topUnder = ({ section, x0, x1 }: Lying, { x, y }: Spot): number | undefined =>
  x >= x0 && x <= x1 ? reachOf(section, 'z', 1, [y, y]) : undefined

/** How far it turns between two looks at what it meets, in degrees. */
export const LOOK_EVERY = 1

/** The rotary turned by so many degrees, whatever is in its way. Its display has thousandths. */
export const turnedBy = <B extends SimulatedRotary>(simulated: B, by: number): B => ({
  ...simulated,
  turn: { ...simulated.turn, shown: roundTo(simulated.turn.shown + by, 3) },
})

/** Puts the vise or the rotary on the table. */
export function putOnTable(simulated: SimulatedState, { stands }: ActionOf<'table'>): SimulatedState {
  if (!hasRotary(simulated)) return { ...simulated, says: 'This machine has no rotary.' }
  const at = { ...simulated.at, Z: simulated.world.machine.home.Z }
  return {
    ...simulated,
    at,
    table: stands,
    held: null,
    worked: simulated.worked + 600,
    says:
      stands === 'rotary'
        ? `The rotary lies on the table, with a part in its chuck; ${simulated.world.rotary.word} is the angle.`
        : 'The vise stands on the table.',
  }
}

/** A rotary at its home: what it shows is where it stands. */
export const homedRotary = <B extends SimulatedState>(simulated: B): B =>
  simulated.turn ? { ...simulated, turn: { shown: 0, off: 0 } } : simulated

export const degreesText = (value: number) => `${fixedDigits(value, 3)} degrees`
