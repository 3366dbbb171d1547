import { toolsOf } from '../code/index.ts'
import type { Profile } from '../control/index.ts'
import type { Material } from '../cutting/index.ts'
import type { Freshness } from '../fact/index.ts'
import type { Machine, ToolShape } from '../machine/index.ts'
import type { Chain, EntryOf } from './kinds.ts'
import {
  freshnessWith,
  machineEdited,
  profileEdited,
  programFreshness,
  rowEdited,
  toolsEdited,
} from './program-freshness.ts'

/** A program that was built from cycles, and whether what it rests on still holds. */
export interface CodedFact {
  entry: EntryOf<'coded'>
  freshness: Freshness
}

/** A program that was taken to the control. */
export interface TakenFact {
  entry: EntryOf<'program'>
  freshness: Freshness
}

export interface CodeState {
  coded: CodedFact[]
  /** What was taken to the control, by title. */
  taken: ReadonlyMap<string, TakenFact>
}

interface Context {
  chain: Chain
  machine: Machine
  profile: Profile
  tools: readonly ToolShape[]
  materials: readonly Material[]
}

/** A program also rests on the profile, the machine, the material's speeds and the shapes of its tools as they were. */
const codedFreshness = (entry: EntryOf<'coded'>, context: Context): Freshness =>
  freshnessWith(
    entry,
    context,
    () =>
      machineEdited(entry, context, 'built for') ??
      profileEdited(entry, context, 'built for') ??
      (rowEdited(entry.material, context.materials)
        ? 'built before the speeds of its material were edited'
        : toolsEdited(
            { was: entry.tools, uses: entry.sheet.items.flatMap(toolsOf), now: context.tools },
            context.machine,
            'built before',
          )),
  )

/** The Code step: the programs that were built, and what was taken of them. */
export function deriveCode(context: Context): CodeState {
  const coded: CodedFact[] = []
  const taken = new Map<string, TakenFact>()
  for (const { entry } of context.chain.standing.values()) {
    if (entry.kind === 'coded') coded.push({ entry, freshness: codedFreshness(entry, context) })
    if (entry.kind === 'program' && entry.what === 'coded')
      taken.set(entry.title ?? '', { entry, freshness: programFreshness(entry, context) })
  }
  return { coded, taken }
}
