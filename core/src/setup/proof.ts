import type { Profile } from '../control/index.ts'
import type { Freshness } from '../fact/index.ts'
import type { Machine, ToolShape } from '../machine/index.ts'
import { LAYOUT, type Layout } from '../prove/index.ts'
import type { Chain, EntryOf, Logged } from './kinds.ts'
import { freshnessWith, machineEdited, profileEdited, toolsEdited } from './program-freshness.ts'

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

/** Whether a proof holds: it is fresh, and nothing in it says stop; old ones may have been recorded with one. */
export const proofHolds = ({ entry, freshness }: ProofFact) =>
  freshness.state === 'fresh' && entry.verdict !== 'stop'

/** Whether a proof that holds is of just this text, to the letter. */
export const isProved = ({ proofs }: Pick<ProveState, 'proofs'>, text: string) =>
  proofs.some((proof) => proof.entry.text === text && proofHolds(proof))

export interface ProveState {
  layout?: LayoutFact
  proofs: ProofFact[]
  /** What was looked at and let stand, of whatever text. */
  letStand: EntryOf<'let-stand'>[]
}

/** A finding to look at that a proof has, and who let it stand, if anybody. */
export interface Look {
  code: string
  line: number
  says: string
  stands?: EntryOf<'let-stand'>
}

/** Findings are kept with so many characters. */
export const LONGEST_SAYING = 300

/** Who let a finding of a text stand. */
export const standsFor = (
  letStand: readonly EntryOf<'let-stand'>[],
  hash: string,
  { code, line, says }: Pick<Look, 'code' | 'line' | 'says'>,
): EntryOf<'let-stand'> | undefined =>
  letStand.find(
    (each) =>
      each.hash === hash &&
      each.code === code &&
      each.line === line &&
      each.says === says.slice(0, LONGEST_SAYING),
  )

/** The findings to look at that are kept with a proof, in its order: behind the stops. */
export const looksOf = (
  { entry: { counts, worst, hash } }: ProofFact,
  { letStand }: Pick<ProveState, 'letStand'>,
): Look[] =>
  worst.slice(counts.stop, counts.stop + counts.look).map((look) => {
    const stands = standsFor(letStand, hash, look)
    return { ...look, ...(stands ? { stands } : {}) }
  })

/** How many findings to look at a proof has that are not kept with it one by one. */
export const looksNotKept = ({ entry: { counts, worst } }: ProofFact): number =>
  Math.max(0, counts.stop + counts.look - worst.length)

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
      profileEdited(entry, context, 'proved for', { reads: true }) ??
      toolsEdited(
        { was: entry.tools, uses: entry.uses ?? [], now: context.tools },
        context.machine,
        'proved before',
      ),
  )

/** The Prove step: what stands in the work area, and the proofs. */
export function deriveProve(counting: readonly Logged[], context: Context): ProveState {
  const { chain } = context
  const placed = chain.standing.get(LAYOUT)?.entry
  const proofs = [...chain.standing.values()].flatMap(({ entry }): ProofFact[] =>
    entry.kind === 'proved' ? [{ entry, freshness: proofFreshness(entry, context) }] : [],
  )
  return {
    proofs,
    letStand: counting.filter((entry) => entry.kind === 'let-stand'),
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
