import type { LinearAxis } from '../machine/index.ts'
import { formatLength, formatWithUnit } from '../quantity/index.ts'
import type { ActionOf } from './actions.ts'
import { dice } from './dice.ts'
import { alarmed, inch, withinReach } from './mill.ts'
import type { SimulatedState } from './state.ts'
import type { LatheWorld } from './world.ts'

export type SimulatedLathe = SimulatedState & { world: LatheWorld; bar: NonNullable<SimulatedState['bar']> }

export const isLathe = (simulated: SimulatedState): simulated is SimulatedLathe =>
  simulated.world.kind === 'lathe'

/** Deepest cut by hand, on the radius and along a face, in inches: by judgement. */
const DEEPEST = 0.06
/** How far a cut is pushed off, in inches: half the doubt of a skim. */
const PUSHED_OFF = 0.0002
/** Speed of a cut by hand, inches a second. */
const CUTTING = 0.06

/** The tip of the tool at work: X as a diameter, Z from the chuck's face. */
export function tipOnLathe({ world, mounted, at }: SimulatedLathe): { X: number; Z: number } | undefined {
  if (mounted.kind !== 'tool') return undefined
  const geometry = world.tools.find(({ shape }) => shape.number === mounted.tool)?.geometry
  return geometry && { X: at.X - geometry.X, Z: at.Z - geometry.Z }
}

/** Diameter of the bar at a place along it; 0 in front of its face. */
const diameterAt = ({ bar }: SimulatedLathe, z: number) =>
  z >= bar.face ? 0 : bar.turned && z >= bar.turned.to ? bar.turned.diameter : bar.diameter

const crash = (simulated: SimulatedLathe, says: string) =>
  alarmed(
    { ...simulated, tally: { ...simulated.tally, collisions: simulated.tally.collisions + 1 } },
    'collision',
    says,
    'Nothing is harmed here. Reset: the turret goes away from the bar. Then go on.',
  )

/** X by hand: across the face it faces the bar, at the bar's side it would plunge. */
function moveX(
  simulated: SimulatedLathe,
  to: { X: number; Z: number },
  moved: SimulatedLathe,
): SimulatedLathe {
  const from = tipOnLathe(simulated)
  const { bar } = simulated
  if (!from || to.X >= from.X) return moved
  const wide = diameterAt(simulated, from.Z)
  if (wide === 0 || to.X >= wide) return moved
  const depth = bar.face - from.Z
  if (simulated.rpm === 0)
    return crash(
      { ...simulated, at: { ...simulated.at, X: simulated.at.X - (from.X - wide) } },
      'Collision: the insert met the bar with the spindle standing.',
    )
  if (depth > inch(simulated, DEEPEST))
    return crash(
      { ...simulated, at: { ...simulated.at, X: simulated.at.X - Math.max(0, from.X - wide) } },
      `Collision: that would plunge ${formatWithUnit(depth, simulated.world.unit)} behind the face.`,
    )
  const chance = dice(simulated.world.seed, simulated.drawn)
  const face = from.Z + chance.within(inch(simulated, PUSHED_OFF))
  const turned = bar.turned && bar.turned.to < face ? bar.turned : null
  const pip = to.X > 0
  return {
    ...moved,
    drawn: chance.drawn,
    bar: { ...bar, face, turned, pip },
    says: pip
      ? 'The face is cut, and a pip is left in the middle: go to the centre line.'
      : 'The face is cut.',
  }
}

/** Z by hand: along the bar's side it turns it, into its face it runs it over. */
function moveZ(
  simulated: SimulatedLathe,
  to: { X: number; Z: number },
  moved: SimulatedLathe,
): SimulatedLathe {
  const from = tipOnLathe(simulated)
  const { bar } = simulated
  if (!from || to.Z >= from.Z) return moved
  const chuck =
    to.Z <= 0 && from.X < 2 * bar.diameter
      ? crash(
          { ...simulated, at: { ...simulated.at, Z: simulated.at.Z - from.Z } },
          'Collision: the tool met the chuck.',
        )
      : undefined
  const last = diameterAt(simulated, Math.max(to.Z, 0))
  const first = from.Z < bar.face ? diameterAt(simulated, from.Z) : last
  const depth = (Math.max(first, last) - from.X) / 2
  if (to.Z >= bar.face || depth <= 1e-9) return chuck ?? moved
  const touched = {
    ...simulated,
    at: { ...simulated.at, Z: simulated.at.Z - Math.max(0, from.Z - bar.face) },
  }
  if (simulated.rpm === 0)
    return crash(touched, 'Collision: the insert met the bar with the spindle standing.')
  if (depth > inch(simulated, DEEPEST))
    return crash(
      touched,
      `Collision: a cut of ${formatWithUnit(depth, simulated.world.unit)} on the radius is too deep by hand.`,
    )
  if (chuck) return chuck
  const chance = dice(simulated.world.seed, simulated.drawn)
  return {
    ...moved,
    drawn: chance.drawn,
    bar: {
      ...bar,
      turned: { diameter: from.X + 2 * chance.within(inch(simulated, PUSHED_OFF / 2)), to: to.Z },
    },
    says: 'A skim is cut. Go away along Z, and leave X where it stands.',
  }
}

export function moveLathe(
  simulated: SimulatedLathe,
  axis: LinearAxis,
  asked: number,
  seconds: number,
): SimulatedLathe {
  if (axis === 'Y') return { ...simulated, says: 'A lathe has no Y.' }
  const { by, end } = withinReach(simulated, axis, asked)
  const at = { ...simulated.at, [axis]: simulated.at[axis] + by }
  const says = end ? `${axis} is at the end of its travel.` : ''
  const moved: SimulatedLathe = { ...simulated, at, worked: simulated.worked + seconds, says }
  const to = tipOnLathe(moved)
  if (!to) return moved
  const cut = axis === 'X' ? moveX(simulated, to, moved) : moveZ(simulated, to, moved)
  // A cut is slower than a move through the air.
  return cut.bar === simulated.bar
    ? cut
    : { ...cut, worked: moved.worked + Math.abs(by) / inch(simulated, CUTTING) }
}

/** The micrometer on what was turned; on the bar itself where nothing was. */
export function measure(simulated: SimulatedLathe): SimulatedLathe {
  if (simulated.rpm > 0)
    return alarmed(
      simulated,
      'spindle',
      'Never measure with the spindle turning.',
      'Reset: the spindle stands. Then measure.',
    )
  const tip = tipOnLathe(simulated)
  if (tip && tip.Z < simulated.bar.face + inch(simulated, 0.2))
    return { ...simulated, says: 'The tool is in the way of the micrometer: go away along Z first.' }
  const chance = dice(simulated.world.seed, simulated.drawn)
  const { turned, diameter } = simulated.bar
  const shows = (turned?.diameter ?? diameter) + chance.within(inch(simulated, turned ? 0.0001 : 0.0015))
  return {
    ...simulated,
    drawn: chance.drawn,
    measured: shows,
    worked: simulated.worked + 15,
    says: `The micrometer shows ${formatLength(shows, simulated.world.unit)}${turned ? '' : ', on the raw bar, which is not round'}.`,
  }
}

export function mountOnLathe(
  simulated: SimulatedLathe,
  { what, tool = 0 }: ActionOf<'mount'>,
): SimulatedLathe {
  if (what !== 'tool') return { ...simulated, says: 'Call a tool of the turret.' }
  if (!simulated.world.tools.some(({ shape }) => shape.number === tool))
    return { ...simulated, says: `There is no T${tool} in this turret.` }
  return {
    ...simulated,
    at: { ...simulated.world.machine.home },
    mounted: { kind: 'tool', tool },
    worked: simulated.worked + 5,
    says: `T${tool} is at work. The turret turned at home.`,
  }
}

/** How well a bar comes to lie against a stop, in inches: half of the repeatability of a stop in the turret. */
const AGAINST = 0.0005
/** How far a hand pushes a bar back into an open chuck, in inches. */
const PUSHED_BACK = 1

/**
 * The chuck is opened by hand, the bar pulled against the tool that stands in front of it, or pushed back into the chuck, and clamped.
 * Refused while the spindle turns or a program moves.
 */
export function moveBar(simulated: SimulatedLathe, way: 'pull' | 'push'): SimulatedLathe {
  if (simulated.rpm > 0)
    return alarmed(
      simulated,
      'spindle',
      'Never open the chuck with the spindle turning.',
      'Reset: the spindle stands. Then open it.',
    )
  const { bar, world } = simulated
  const worked = simulated.worked + 12
  const least = inch(simulated, 0.25)
  if (way === 'push') {
    const face = Math.max(least, bar.face - inch(simulated, PUSHED_BACK))
    return {
      ...simulated,
      worked,
      bar: { ...bar, face, turned: null },
      says: 'The bar is pushed back into the chuck, and clamped.',
    }
  }
  const tip = tipOnLathe(simulated)
  if (!tip || Math.abs(tip.X) > bar.diameter || tip.Z <= least)
    return { ...simulated, says: 'Nothing stands in front of the bar to pull it against.' }
  const chance = dice(world.seed, simulated.drawn)
  const face = tip.Z + chance.within(inch(simulated, AGAINST))
  return {
    ...simulated,
    drawn: chance.drawn,
    worked,
    bar: { ...bar, face, turned: null, pip: false },
    says: 'The bar is pulled against what stands in front of it, and clamped.',
  }
}
