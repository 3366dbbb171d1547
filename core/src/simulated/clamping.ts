import type { ActionOf } from './actions.ts'
import { finderIn, pressed, type SimulatedMill } from './contact.ts'
import { dice } from './dice.ts'
import { inch, settled } from './mill.ts'
import { fromFrame, type Spot, turnedAbout } from './plan-geometry.ts'

/** How far a tap moves the end of the jaw that it is on, with one bolt out, in inches. By judgement. */
const TAPS = { light: 0.0008, medium: 0.004, firm: 0.016 }

const boltSpot = ({ world, vise }: SimulatedMill, which: 'left' | 'right'): Spot =>
  fromFrame(vise.frame, { x: world.vise.pivots[which], y: world.vise.pivotY })

/** A vise that was moved under an indicator moves its dial, and may bump it. */
const afterwards = (simulated: SimulatedMill): SimulatedMill => {
  const finder = finderIn(simulated.mounted, simulated.world)
  const { mounted } = simulated
  if (finder && mounted.kind === 'indicator' && pressed(simulated).depth > finder.gives)
    return {
      ...simulated,
      mounted: { ...mounted, bumps: mounted.bumps + 1 },
      tally: { ...simulated.tally, bumps: simulated.tally.bumps + 1 },
      says: `${simulated.says} The jaw bumped the indicator.`,
    }
  return settled(simulated)
}

/**
 * A tap with a soft mallet on one end of the vise. With one bolt out it turns about the other; with two snug it rocks
 * about some place between them, half as far; tight bolts hold it; with both out it slides as it likes.
 */
export function tap(simulated: SimulatedMill, { end, way, strength }: ActionOf<'tap'>): SimulatedMill {
  const { vise, world } = simulated
  const chance = dice(world.seed, simulated.drawn)
  const before: SimulatedMill = {
    ...simulated,
    worked: simulated.worked + 4,
    tally: { ...simulated.tally, taps: simulated.tally.taps + 1 },
  }
  const size = inch(simulated, TAPS[strength]) * chance.between(0.75, 1.25)
  const toFront = way === 'front' ? -1 : 1
  const struck = fromFrame(vise.frame, { x: end === 'left' ? 0 : world.vise.length, y: world.vise.pivotY })
  const states = [vise.left, vise.right]
  if (states.includes('tight'))
    return { ...before, drawn: chance.drawn, says: 'A tight bolt holds it: it does not move.' }
  if (states.every((state) => state === 'out')) {
    const frame = turnedAbout(
      { ...vise.frame, y: vise.frame.y + toFront * size },
      struck,
      chance.within(size / world.vise.length),
    )
    return afterwards({
      ...before,
      drawn: chance.drawn,
      vise: { ...vise, frame },
      says: 'With both bolts out the vise slides, and nothing says where to. Put one in.',
    })
  }
  const rocks = states.every((state) => state === 'snug')
  const [left, right] = [boltSpot(simulated, 'left'), boltSpot(simulated, 'right')]
  const share = chance.between(0.2, 0.8)
  const pivot = rocks
    ? { x: left.x + share * (right.x - left.x), y: left.y + share * (right.y - left.y) }
    : vise.left === 'snug'
      ? left
      : right
  const lever = struck.x - pivot.x
  const turn = Math.abs(lever) < 1e-6 ? 0 : (toFront * size * (rocks ? 0.5 : 1)) / lever
  return afterwards({
    ...before,
    drawn: chance.drawn,
    vise: { ...vise, frame: turnedAbout(vise.frame, pivot, turn) },
    says: rocks
      ? 'With two bolts snug it rocks: it turned, and about no place that is known.'
      : `It turned about the ${vise.left === 'snug' ? 'left' : 'right'} bolt.`,
  })
}

/** Snugs, tightens or takes out a bolt. Tightening moves vises (common practice): by how much, the seed knows. */
export function bolt(simulated: SimulatedMill, { which, to }: ActionOf<'bolt'>): SimulatedMill {
  const { vise, world } = simulated
  if (vise[which] === to) return { ...simulated, says: `The ${which} bolt is ${to} already.` }
  const next: SimulatedMill = {
    ...simulated,
    worked: simulated.worked + 12,
    vise: { ...vise, [which]: to },
    says: to === 'out' ? `The ${which} bolt is out.` : `The ${which} bolt is ${to}.`,
  }
  if (to !== 'tight') return next
  const other = boltSpot(simulated, which === 'left' ? 'right' : 'left')
  // Where the other one holds already, half of it comes through.
  const held = vise[which === 'left' ? 'right' : 'left'] === 'tight' ? 0.5 : 1
  return afterwards({
    ...next,
    vise: {
      ...next.vise,
      frame: turnedAbout(vise.frame, other, world.tightening[which] * held),
    },
    says: `The ${which} bolt is tight. Tightening moves vises: sweep again.`,
  })
}
