import { type May, sameInitials } from '@dogleg/core/people'
import type { Entry } from '@dogleg/core/setup'
import { Problem } from '../problem.ts'
import type { PeopleStore, Sitting } from './store.ts'
import type { Who } from './who.ts'

/** What a tablet's clock may be off by, in ms; by as much its entries may lie outside of a stay. */
export const LEEWAY_MS = 60_000

/** Who signed an entry, and at which tablet. */
export interface Signature {
  initials: string
  may: May
  /** What the tablet is called now. */
  tablet: string
}

const notSigned = (says: string, { id }: Entry) => new Problem(401, 'not-signed', says, id)

/**
 * Who signed entries that a tablet sends: each names the stay at this tablet in which it was made, which may be over. Nobody signs for
 * somebody else, before they came, or after they left. Their initials become those of the shop.
 * @throws Problem with the entry that is not so signed
 */
export async function signaturesOf(
  { tablet }: Who,
  entries: readonly Entry[],
  named: readonly string[] | undefined,
  { store, now }: { store: PeopleStore; now: number },
): Promise<ReadonlyMap<string, Signature>> {
  const known = new Map<string, Sitting | undefined>()
  const signatures = new Map<string, Signature>()
  for (const [n, entry] of entries.entries()) {
    const id = named?.[n] ?? ''
    if (!known.has(id)) known.set(id, await store.sittingById(id))
    const sitting = known.get(id)
    if (!tablet || sitting?.tablet !== tablet.id)
      throw notSigned(
        `Nobody has signed this at this tablet yet: it waits until ${entry.by} signs in.`,
        entry,
      )
    const { initials, may, began, ended } = sitting
    if (!sameInitials(initials, entry.by))
      throw new Problem(
        403,
        'not-theirs',
        `This entry says that ${entry.by} made it, but ${initials} was at the tablet.`,
        entry.id,
      )
    if (may === 'looker') throw new Problem(403, 'not-allowed', `${initials} may look, not record.`, entry.id)
    const at = Date.parse(entry.at)
    if (at < began - LEEWAY_MS || at > (ended ?? now) + LEEWAY_MS)
      throw notSigned(
        `${initials} was not at this tablet when this was made: it waits until ${entry.by} signs in again.`,
        entry,
      )
    // As the shop has them, however they were typed.
    entry.by = initials
    signatures.set(entry.id, { initials, may, tablet: tablet.name })
  }
  return signatures
}
