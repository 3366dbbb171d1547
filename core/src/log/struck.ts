import { z } from 'zod'
import { entrySchema, type LogEntry, spokenWords } from './entry.ts'
import { defineEntry } from './kind.ts'

/** A mistake is struck out by another entry; nothing is ever removed. */
export const struck = defineEntry({
  schema: entrySchema('struck', {
    target: z.ulid(),
    reason: spokenWords(300, 'Say why it is struck out.'),
  }),
  upcast: [],
  group: 'changes',
  describe: ({ target, reason }, { targetSays }) => ({
    says: `Struck out: ${targetSays(target)}`,
    detail: reason,
  }),
  slim: 'whole',
  onMachine: 'nothing',
  carried: false,
  written: 'anywhere',
  makesStale: 'nothing',
})
export type Strike = z.output<typeof struck.schema>

/**
 * The strike that counts against each entry, by the struck entry's id. A strike can itself be struck out,
 * which brings its target back; a strike that points at itself or at what is not in the log counts for nothing.
 */
export function effectiveStrikes(entries: readonly LogEntry[]): Map<string, Strike> {
  const strikes = entries.filter(struck.is)
  const effective = new Map<string, Strike>()
  if (strikes.length === 0) return effective
  const targets = new Set(strikes.map(({ target }) => target))
  const known = new Set<string>()
  for (const { id } of entries) if (targets.has(id)) known.add(id)
  const against = new Map<string, Strike[]>()
  for (const strike of strikes) {
    if (!known.has(strike.target)) continue
    const others = against.get(strike.target)
    if (others) others.push(strike)
    else against.set(strike.target, [strike])
  }
  const verdicts = new Map<string, Strike | null>()
  const strikeOf = (id: string): Strike | null => {
    const known = verdicts.get(id)
    if (known !== undefined) return known
    verdicts.set(id, null) // a ring of strikes counts for nothing
    const counting = against.get(id)?.find((strike) => strikeOf(strike.id) === null) ?? null
    verdicts.set(id, counting)
    return counting
  }
  for (const target of against.keys()) {
    const strike = strikeOf(target)
    if (strike) effective.set(target, strike)
  }
  return effective
}
