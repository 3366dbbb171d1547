import type { Profile } from '../control/index.ts'
import type { Freshness } from '../fact/index.ts'
import type { Machine, ToolShape } from '../machine/index.ts'
import type { Layout } from '../prove/index.ts'
import type { Chain } from './chain.ts'
import type { EntryOf } from './entries.ts'
import { freshnessWith, machineEdited, profileEdited, rowEdited } from './program-freshness.ts'
import { LAYOUT } from './subjects.ts'

/** What stands in the work area, as it was placed. */
export interface LayoutFact {
  entry: EntryOf<'laid-out'>
  freshness: Freshness
  layout: Layout
}

/** A program that was proved: for the exact text, and the facts that it rests on. */
export interface ProofFact {
  entry: EntryOf<'proved'>
  freshness: Freshness
}

export interface ProveState {
  layout?: LayoutFact
  proofs: ProofFact[]
}

interface Context {
  chain: Chain
  machine: Machine
  profile: Profile
  tools: readonly ToolShape[]
}

/** A proof also rests on the profile, the machine and the shapes of its tools as they were. */
const proofFreshness = (entry: EntryOf<'proved'>, context: Context): Freshness =>
  freshnessWith(
    entry,
    context,
    () =>
      machineEdited(entry, context, 'proved on') ??
      profileEdited(entry, context, 'proved for') ??
      (entry.tools.some((tool) => rowEdited(tool, context.tools))
        ? 'proved before the shape of a tool was edited'
        : undefined),
  )

/** The Prove step: what stands in the work area, and the proofs. */
export function deriveProve(context: Context): ProveState {
  const { chain } = context
  const placed = chain.standing.get(LAYOUT)?.entry
  const proofs = [...chain.standing.values()].flatMap(({ entry }): ProofFact[] =>
    entry.kind === 'proved' ? [{ entry, freshness: proofFreshness(entry, context) }] : [],
  )
  return {
    proofs,
    ...(placed?.kind === 'laid-out'
      ? {
          layout: {
            entry: placed,
            freshness: chain.freshnessOf(placed.id),
            layout: { unit: placed.unit, bodies: placed.bodies },
          },
        }
      : {}),
  }
}
