import type { LinearAxis } from '../machine/index.ts'
import { formatLength, formatWithUnit } from '../quantity/index.ts'
import type { ActionOf } from './actions.ts'
import { dice } from './dice.ts'
import { alarmed, inch, withinReach } from './mill.ts'
import type { Bench } from './state.ts'
import type { LatheWorld } from './world.ts'

export type LatheBench = Bench & { world: LatheWorld; bar: NonNullable<Bench['bar']> }

export const isLatheBench = (bench: Bench): bench is LatheBench => bench.world.kind === 'lathe'

/** Deepest cut by hand, on the radius and along a face, in inches: by judgement. */
const DEEPEST = 0.06
/** How far a cut is pushed off, in inches: half the doubt of a skim. */
const PUSHED_OFF = 0.0002
/** Speed of a cut by hand, inches a second. */
const CUTTING = 0.06

/** The tip of the tool at work: X as a diameter, Z from the chuck's face. */
export function tipOnLathe({ world, mounted, at }: LatheBench): { X: number; Z: number } | undefined {
  if (mounted.kind !== 'tool') return undefined
  const geometry = world.tools.find(({ shape }) => shape.number === mounted.tool)?.geometry
  return geometry && { X: at.X - geometry.X, Z: at.Z - geometry.Z }
}

/** Diameter of the bar at a place along it; 0 in front of its face. */
const diameterAt = ({ bar }: LatheBench, z: number) =>
  z >= bar.face ? 0 : bar.turned && z >= bar.turned.to ? bar.turned.diameter : bar.diameter

const crash = (bench: LatheBench, says: string) =>
  alarmed(
    { ...bench, tally: { ...bench.tally, collisions: bench.tally.collisions + 1 } },
    'collision',
    says,
    'Nothing is harmed here. Reset: the turret goes away from the bar. Then go on.',
  )

/** X by hand: across the face it faces the bar, at the bar's side it would plunge. */
function moveX(bench: LatheBench, to: { X: number; Z: number }, moved: LatheBench): LatheBench {
  const from = tipOnLathe(bench)
  const { bar } = bench
  if (!from || to.X >= from.X) return moved
  const wide = diameterAt(bench, from.Z)
  if (wide === 0 || to.X >= wide) return moved
  const depth = bar.face - from.Z
  if (bench.rpm === 0)
    return crash(
      { ...bench, at: { ...bench.at, X: bench.at.X - (from.X - wide) } },
      'Collision: the insert met the bar with the spindle standing.',
    )
  if (depth > inch(bench, DEEPEST))
    return crash(
      { ...bench, at: { ...bench.at, X: bench.at.X - Math.max(0, from.X - wide) } },
      `Collision: that would plunge ${formatWithUnit(depth, bench.world.unit)} behind the face.`,
    )
  const chance = dice(bench.world.seed, bench.drawn)
  const face = from.Z + chance.within(inch(bench, PUSHED_OFF))
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
function moveZ(bench: LatheBench, to: { X: number; Z: number }, moved: LatheBench): LatheBench {
  const from = tipOnLathe(bench)
  const { bar } = bench
  if (!from || to.Z >= from.Z) return moved
  const chuck =
    to.Z <= 0 && from.X < 2 * bar.diameter
      ? crash({ ...bench, at: { ...bench.at, Z: bench.at.Z - from.Z } }, 'Collision: the tool met the chuck.')
      : undefined
  const last = diameterAt(bench, Math.max(to.Z, 0))
  const first = from.Z < bar.face ? diameterAt(bench, from.Z) : last
  const depth = (Math.max(first, last) - from.X) / 2
  if (to.Z >= bar.face || depth <= 1e-9) return chuck ?? moved
  const touched = { ...bench, at: { ...bench.at, Z: bench.at.Z - Math.max(0, from.Z - bar.face) } }
  if (bench.rpm === 0) return crash(touched, 'Collision: the insert met the bar with the spindle standing.')
  if (depth > inch(bench, DEEPEST))
    return crash(
      touched,
      `Collision: a cut of ${formatWithUnit(depth, bench.world.unit)} on the radius is too deep by hand.`,
    )
  if (chuck) return chuck
  const chance = dice(bench.world.seed, bench.drawn)
  return {
    ...moved,
    drawn: chance.drawn,
    bar: {
      ...bar,
      turned: { diameter: from.X + 2 * chance.within(inch(bench, PUSHED_OFF / 2)), to: to.Z },
    },
    says: 'A skim is cut. Go away along Z, and leave X where it stands.',
  }
}

export function moveLathe(bench: LatheBench, axis: LinearAxis, asked: number, seconds: number): LatheBench {
  if (axis === 'Y') return { ...bench, says: 'A lathe has no Y.' }
  const { by, end } = withinReach(bench, axis, asked)
  const at = { ...bench.at, [axis]: bench.at[axis] + by }
  const says = end ? `${axis} is at the end of its travel.` : ''
  const moved: LatheBench = { ...bench, at, worked: bench.worked + seconds, says }
  const to = tipOnLathe(moved)
  if (!to) return moved
  const cut = axis === 'X' ? moveX(bench, to, moved) : moveZ(bench, to, moved)
  // A cut is slower than a move through the air.
  return cut.bar === bench.bar ? cut : { ...cut, worked: moved.worked + Math.abs(by) / inch(bench, CUTTING) }
}

/** The micrometer on what was turned; on the bar itself where nothing was. */
export function measure(bench: LatheBench): LatheBench {
  if (bench.rpm > 0)
    return alarmed(
      bench,
      'spindle',
      'Never measure with the spindle turning.',
      'Reset: the spindle stands. Then measure.',
    )
  const tip = tipOnLathe(bench)
  if (tip && tip.Z < bench.bar.face + inch(bench, 0.2))
    return { ...bench, says: 'The tool is in the way of the micrometer: go away along Z first.' }
  const chance = dice(bench.world.seed, bench.drawn)
  const { turned, diameter } = bench.bar
  const shows = (turned?.diameter ?? diameter) + chance.within(inch(bench, turned ? 0.0001 : 0.0015))
  return {
    ...bench,
    drawn: chance.drawn,
    measured: shows,
    worked: bench.worked + 15,
    says: `The micrometer shows ${formatLength(shows, bench.world.unit)}${turned ? '' : ', on the raw bar, which is not round'}.`,
  }
}

export function mountOnLathe(bench: LatheBench, { what, tool = 0 }: ActionOf<'mount'>): LatheBench {
  if (what !== 'tool') return { ...bench, says: 'Call a tool of the turret.' }
  if (!bench.world.tools.some(({ shape }) => shape.number === tool))
    return { ...bench, says: `There is no T${tool} in this turret.` }
  return {
    ...bench,
    at: { ...bench.world.machine.home },
    mounted: { kind: 'tool', tool },
    worked: bench.worked + 5,
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
export function moveBar(bench: LatheBench, way: 'pull' | 'push'): LatheBench {
  if (bench.rpm > 0)
    return alarmed(
      bench,
      'spindle',
      'Never open the chuck with the spindle turning.',
      'Reset: the spindle stands. Then open it.',
    )
  const { bar, world } = bench
  const worked = bench.worked + 12
  const least = inch(bench, 0.25)
  if (way === 'push') {
    const face = Math.max(least, bar.face - inch(bench, PUSHED_BACK))
    return {
      ...bench,
      worked,
      bar: { ...bar, face, turned: null },
      says: 'The bar is pushed back into the chuck, and clamped.',
    }
  }
  const tip = tipOnLathe(bench)
  if (!tip || Math.abs(tip.X) > bar.diameter || tip.Z <= least)
    return { ...bench, says: 'Nothing stands in front of the bar to pull it against.' }
  const chance = dice(world.seed, bench.drawn)
  const face = tip.Z + chance.within(inch(bench, AGAINST))
  return {
    ...bench,
    drawn: chance.drawn,
    worked,
    bar: { ...bar, face, turned: null, pip: false },
    says: 'The bar is pulled against what stands in front of it, and clamped.',
  }
}
