import type { LinearAxis } from '../machine/index.ts'
import { isArc, type Motion } from '../program/index.ts'
import type { Body, Triple } from '../prove/index.ts'
import { isMill, type SimulatedMill, standing } from './contact.ts'
import { finderOf } from './devices.ts'
import { dice } from './dice.ts'
import type { SimulatedLathe } from './lathe.ts'
import { intoFrame, type Rect } from './plan-geometry.ts'
import { lying, onRotary } from './rotary.ts'
import { outsideSection } from './section.ts'
import type { SimulatedState } from './state.ts'
import { blockOf, partZeroOf, type Standing, trueTool } from './world.ts'

/**
 * Where the motion's frame lies for a tool: what to add for the machine position of spindle or turret. Where no offset is
 * called yet (a lathe before its first tool) the reader takes home to be half a travel away.
 */
export function commanded({ world }: SimulatedState, motion: Motion, row: number): Triple {
  const { machine } = world
  const shift = motion.states[motion.state[row] as number]?.toMachine ?? [Number.NaN, Number.NaN, Number.NaN]
  const along = (axis: LinearAxis, own: number) => {
    const travel = machine.axes[axis]
    if (!Number.isNaN(own) || !travel) return Number.isNaN(own) ? 0 : own
    const radius = machine.kind === 'lathe' && axis === 'X' ? 0.5 : 1
    return (machine.home[axis] - (travel.greatest - travel.least) / 2) * radius
  }
  return [along('X', shift[0]), along('Y', shift[1]), along('Z', shift[2])]
}

/** The offset whose part zero the motion counts from. */
export const frameOf = ({ world }: SimulatedState) => world.profile.offsets.standard[0] ?? 'G54'

/** The true part zero that all is told from: a corner of the block, or the end of the part in the rotary, on top. */
function trueZero(simulated: SimulatedMill) {
  if (onRotary(simulated)) {
    const { x, axis, part } = simulated.world.rotary
    return { X: x.end, Y: axis.y, Z: axis.z + part.radius, frame: { x: x.end, y: axis.y, angle: 0 } }
  }
  const zero = partZeroOf(simulated.world, simulated.vise.frame)
  return { ...zero, frame: { x: zero.X, y: zero.Y, angle: simulated.vise.frame.angle } }
}

/** From the machine position of spindle or turret to the true place of the tip, from the true part zero. */
function tipFrom(simulated: SimulatedState, tool: number): (at: Triple) => Triple {
  if (isMill(simulated)) {
    const length = trueTool(simulated.world, tool)?.length ?? 0
    const { frame, ...zero } = trueZero(simulated)
    return ([x, y, z]) => {
      const spot = intoFrame(frame, { x, y })
      return [spot.x, spot.y, z - length - zero.Z]
    }
  }
  const lathe = simulated as SimulatedLathe
  const geometry = lathe.world.tools.find(({ shape }) => shape.number === tool)?.geometry
  return ([x, y, z]) => [x - (geometry?.X ?? 0) / 2, y, z - (geometry?.Z ?? 0) - lathe.bar.face]
}

/** The motion moved to where the tool really goes. Arcs turn with it; only those in XY are exact where the part lies turned. */
export function asItReallyGoes(simulated: SimulatedState, motion: Motion): Motion {
  const [x, y, z] = [motion.x.slice(), motion.y.slice(), motion.z.slice()]
  const arcs = motion.arcs.slice()
  const place = (row: number, at: Triple): Triple => {
    const shift = commanded(simulated, motion, row)
    const tool = motion.states[motion.state[row] as number]?.tool ?? 0
    return tipFrom(simulated, tool)([at[0] + shift[0], at[1] + shift[1], at[2] + shift[2]])
  }
  for (let row = 0; row < motion.count; row++) {
    const to = place(row, [motion.x[row] as number, motion.y[row] as number, motion.z[row] as number])
    x[row] = to[0]
    y[row] = to[1]
    z[row] = to[2]
    if (!isArc(motion.kind[row] as number)) continue
    const base = 6 * (motion.aux[row] as number)
    const centre = place(row, [arcs[base] as number, arcs[base + 1] as number, arcs[base + 2] as number])
    arcs.set(centre, base)
  }
  return { ...motion, x, y, z, arcs, start: motion.count > 0 ? place(0, motion.start) : motion.start }
}

/** Where a body lies in the frame of the vise: one that stands by itself, as the box round it. */
function inZeroFrame(body: Standing, { vise }: SimulatedMill): Rect {
  if (!body.fixed) return body.rect
  const { x0, x1, y0, y1 } = body.rect
  const corners = [x0, x1].flatMap((x) => [y0, y1].map((y) => intoFrame(vise.frame, { x, y })))
  const [xs, ys] = [corners.map(({ x }) => x), corners.map(({ y }) => y)]
  return { x0: Math.min(...xs), x1: Math.max(...xs), y0: Math.min(...ys), y1: Math.max(...ys) }
}

/** What stands on the machine as Prove sees it, from the true part zero. */
export function trueBodies(simulated: SimulatedState): Body[] {
  if (isMill(simulated)) {
    const { rect, top } = blockOf(simulated.world)
    const zero = trueZero(simulated)
    // As a whole round: how it is turned while a program runs is not followed.
    const round = lying(simulated).map(
      ({ id, name, role, x0, x1, section: { middle, radius } }): Body => ({
        id,
        name,
        role,
        shape: 'cylinder',
        axis: 'X',
        at: { x: x0 - zero.X, y: middle.y - zero.Y, z: middle.z - zero.Z },
        diameter: 2 * radius,
        length: x1 - x0,
      }),
    )
    const upright = standing(simulated).map((body): Body => {
      const at = inZeroFrame(body, simulated)
      return {
        id: body.id,
        name: body.name,
        role: body.role,
        shape: 'box',
        at: { x: at.x0 - rect.x0, y: at.y0 - rect.y0, z: body.bottom - top },
        size: { x: at.x1 - at.x0, y: at.y1 - at.y0, z: body.top - body.bottom },
      }
    })
    return [...upright, ...round]
  }
  const { bar } = simulated as SimulatedLathe
  return [
    {
      id: 'bar',
      name: 'part',
      role: 'part',
      shape: 'cylinder',
      axis: 'Z',
      at: { x: 0, y: 0, z: -bar.face },
      diameter: bar.diameter,
      length: bar.face,
    },
    {
      id: 'chuck',
      name: 'chuck',
      role: 'chuck',
      shape: 'cylinder',
      axis: 'Z',
      at: { x: 0, y: 0, z: -bar.face - 2 * bar.diameter },
      diameter: 4 * bar.diameter,
      length: 2 * bar.diameter,
    },
  ]
}

/** What probing meets: the true part, seen from where the control believes that it is. */
export function metByProbing(simulated: SimulatedMill) {
  const { world } = simulated
  const { frame, ...zero } = trueZero(simulated)
  const round = lying(simulated)
  const keyed = simulated.offsets[frameOf(simulated)] ?? {}
  const probe = world.machine.probe?.tool
  const longer =
    probe === undefined ? 0 : (trueTool(world, probe)?.length ?? 0) - (simulated.lengths[probe] ?? 0)
  const { size } = world.block
  const chance = dice(world.seed, simulated.drawn)
  const { repeats } = finderOf('probe', world.unit)
  return {
    strict: true,
    scatter: () => chance.within(repeats),
    holds: (x: number, y: number, z: number) => {
      const at = { x: x + (keyed.X ?? 0), y: y + (keyed.Y ?? 0), z: z + (keyed.Z ?? 0) - longer }
      if (onRotary(simulated))
        return round.some(
          ({ x0, x1, section }) => at.x >= x0 && at.x <= x1 && outsideSection(section, at) <= 0,
        )
      const spot = intoFrame(frame, at)
      const height = at.z - zero.Z
      return (
        spot.x >= 0 && spot.x <= size.x && spot.y >= 0 && spot.y <= size.y && height >= -size.z && height <= 0
      )
    },
  }
}
