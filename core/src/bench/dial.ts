import type { ActionOf } from './actions.ts'
import { finderIn, type MillBench, pressed } from './contact.ts'
import { dice } from './dice.ts'
import { harmed, isFinding, pushAllowed, settled } from './mill.ts'

/** The stylus of an indicator turned to a side by hand: near the high spot, not on it. */
export function look(bench: MillBench, { way }: ActionOf<'look'>): MillBench {
  if (bench.mounted.kind !== 'indicator') return bench
  const chance = dice(bench.world.seed, bench.drawn)
  const aside = chance.pick([-1, 1]) * chance.between(0.04, 0.12)
  const turned: MillBench = {
    ...bench,
    drawn: chance.drawn,
    worked: bench.worked + 3,
    mounted: { ...bench.mounted, looks: way, aside },
    says: `The stylus looks to ${way} now, not yet on its high spot.`,
  }
  return bumpedIfDeep(turned)
}

function bumpedIfDeep(bench: MillBench): MillBench {
  const finder = finderIn(bench.mounted, bench.world)
  return finder && isFinding(bench.mounted) && pressed(bench).depth > pushAllowed(finder)
    ? harmed(bench, finder, bench.mounted)
    : settled(bench)
}

export function rock(bench: MillBench): MillBench {
  if (bench.mounted.kind !== 'indicator') return bench
  const chance = dice(bench.world.seed, bench.drawn)
  const aside = chance.within(0.004)
  return bumpedIfDeep({
    ...bench,
    drawn: chance.drawn,
    worked: bench.worked + 4,
    mounted: { ...bench.mounted, aside },
    says: 'Rocked to and fro: the stylus stands on the high spot.',
  })
}

/** What the dial of what is in the spindle shows; undefined where it has none. */
export function dialOf(bench: MillBench): number | undefined {
  const { mounted, world } = bench
  const finder = finderIn(mounted, world)
  if (!finder || !isFinding(mounted) || finder.dialStep === 0) return undefined
  const { depth } = pressed(bench)
  if (finder.kind === 'sensor')
    return (
      Math.min(finder.gives, Math.max(-finder.tip, depth - finder.tip + mounted.touch)) +
      (mounted.harmed?.off ?? 0)
    )
  const reads = depth > 0 ? Math.min(finder.gives, Math.max(0, depth + mounted.touch)) : 0
  return reads - mounted.zero
}

export function zeroDial(bench: MillBench): MillBench {
  if (bench.mounted.kind !== 'indicator') return bench
  const zero = bench.mounted.zero + (dialOf(bench) ?? 0)
  return {
    ...bench,
    mounted: { ...bench.mounted, zero },
    worked: bench.worked + 3,
    says: 'The dial is set to zero.',
  }
}
