import { formatWithUnit } from '../quantity/index.ts'
import { deriveSetup, isUnreadable, type OffsetState, type Reference, type Setup } from './derive.ts'
import type { Entry } from './entries.ts'

/** The standing facts of an offset by name, with what is said of each. */
function factsOf(
  { name, axes, check, program }: OffsetState,
  unit: Setup['unit'],
): Map<string, { stale: boolean; says: string }> {
  const facts = new Map<string, { stale: boolean; says: string }>()
  for (const fact of Object.values(axes))
    facts.set(`${name} ${fact.axis}`, {
      stale: fact.freshness.state === 'stale',
      says: formatWithUnit(fact.value, unit),
    })
  if (check)
    facts.set(`The check of ${name}`, { stale: check.freshness.state === 'stale', says: check.entry.id })
  if (program)
    facts.set(`The program for ${name}`, {
      stale: program.freshness.state === 'stale',
      says: program.entry.id,
    })
  return facts
}

const allFacts = (setup: Setup) =>
  new Map(setup.offsets.flatMap((offset) => [...factsOf(offset, setup.unit)]))

/**
 * What adding an entry would change, a sentence each, before it is added: what goes stale, what is fresh again,
 * what falls back to an earlier value, what goes away. Empty when nothing does.
 */
export function whatIf(entries: readonly Entry[], added: Entry, reference: Reference): string[] {
  const now = deriveSetup(entries, reference)
  const then = deriveSetup([...entries, added], reference)
  if (isUnreadable(now) || isUnreadable(then)) return []
  const before = allFacts(now)
  const after = allFacts(then)
  const names = [...new Set([...before.keys(), ...after.keys()])]
  return names.flatMap((name) => {
    const was = before.get(name)
    const is = after.get(name)
    if (was && !is) return [`${name} goes away.`]
    if (!was && is) return [`${name} comes back${name.startsWith('The ') ? '' : `: ${is.says}`}.`]
    if (!was || !is) return []
    if (was.says !== is.says)
      return [`${name} falls back to an earlier one${name.startsWith('The ') ? '' : `: ${is.says}`}.`]
    if (!was.stale && is.stale) return [`${name} goes stale.`]
    return was.stale && !is.stale ? [`${name} is fresh again.`] : []
  })
}
