import type { ActionOf } from './actions.ts'
import { finderIn, pressed, type SimulatedMill } from './contact.ts'
import { dice } from './dice.ts'
import { harmed, isFinding, pushAllowed, settled } from './mill.ts'

/** The stylus of an indicator turned to a side by hand: near the high spot, not on it. */
export function look(simulated: SimulatedMill, { way }: ActionOf<'look'>): SimulatedMill {
  if (simulated.mounted.kind !== 'indicator') return simulated
  const chance = dice(simulated.world.seed, simulated.drawn)
  const aside = chance.pick([-1, 1]) * chance.between(0.04, 0.12)
  const turned: SimulatedMill = {
    ...simulated,
    drawn: chance.drawn,
    worked: simulated.worked + 3,
    mounted: { ...simulated.mounted, looks: way, aside },
    says: `The stylus looks to ${way} now, not yet on its high spot.`,
  }
  return bumpedIfDeep(turned)
}

function bumpedIfDeep(simulated: SimulatedMill): SimulatedMill {
  const finder = finderIn(simulated.mounted, simulated.world)
  return finder && isFinding(simulated.mounted) && pressed(simulated).depth > pushAllowed(finder)
    ? harmed(simulated, finder, simulated.mounted)
    : settled(simulated)
}

export function rock(simulated: SimulatedMill): SimulatedMill {
  if (simulated.mounted.kind !== 'indicator') return simulated
  const chance = dice(simulated.world.seed, simulated.drawn)
  const aside = chance.within(0.004)
  return bumpedIfDeep({
    ...simulated,
    drawn: chance.drawn,
    worked: simulated.worked + 4,
    mounted: { ...simulated.mounted, aside },
    says: 'Rocked to and fro: the stylus stands on the high spot.',
  })
}

/** What the dial of what is in the spindle shows; undefined where it has none. */
export function dialOf(simulated: SimulatedMill): number | undefined {
  const { mounted, world } = simulated
  const finder = finderIn(mounted, world)
  if (!finder || !isFinding(mounted) || finder.dialStep === 0) return undefined
  const { depth } = pressed(simulated)
  if (finder.kind === 'sensor')
    return (
      Math.min(finder.gives, Math.max(-finder.tip, depth - finder.tip + mounted.touch)) +
      (mounted.harmed?.off ?? 0)
    )
  const reads = depth > 0 ? Math.min(finder.gives, Math.max(0, depth + mounted.touch)) : 0
  return reads - mounted.zero
}

export function zeroDial(simulated: SimulatedMill): SimulatedMill {
  if (simulated.mounted.kind !== 'indicator') return simulated
  const zero = simulated.mounted.zero + (dialOf(simulated) ?? 0)
  return {
    ...simulated,
    mounted: { ...simulated.mounted, zero },
    worked: simulated.worked + 3,
    says: 'The dial is set to zero.',
  }
}
