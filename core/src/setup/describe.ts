import { type Description, UNREAD_TITLES } from '../log/index.ts'
import type { PickupSettings } from '../pickup/index.ts'
import { kinds, type Logged } from './kinds.ts'
import type { Reference } from './reference.ts'

/** The name of a row of reference data by its id; the id itself where no row has it. */
export function namesIn(reference: Reference | undefined): (id: string) => string {
  const names = new Map(
    Object.values<readonly { id: string; name: string }[]>({ ...reference }).flatMap((rows) =>
      rows.map(({ id, name }) => [id, name] as const),
    ),
  )
  return (id) => names.get(id) ?? id
}

/** One line of the logbook for an entry. `targetSays` words the entry that another one is about, `nameOf` names a row of reference data. */
export function describeEntry(
  entry: Logged,
  settings: PickupSettings,
  targetSays: (id: string) => string,
  nameOf: (id: string) => string,
): Description {
  if (entry.kind === 'unread')
    return {
      says: entry.said ? `${UNREAD_TITLES[entry.why]}: ${entry.said}` : UNREAD_TITLES[entry.why],
      // Where in it is of use only where it has parts.
      detail: entry.says.replace(/ \((entry|kind|shape)\)$/, ''),
    }
  return (
    kinds.of(entry.kind)?.describe(entry, { ...settings, targetSays, nameOf }) ?? {
      says: entry.kind,
      detail: '',
    }
  )
}
