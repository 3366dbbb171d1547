import { type Description, UNREAD_TITLES } from '../log/index.ts'
import { type PickupSettings, pickupSettings } from '../pickup/index.ts'
import type { Setup } from './derive.ts'
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

/** Describes a strike of a strike of a strike, and no more. */
const DEEPEST = 4

/** Words for the lines of a setup's log, in the unit of the setup; `others` are entries of other logs that they may be about. */
export function logDescriber(
  { log, unit, machine }: Pick<Setup, 'log' | 'unit' | 'machine'>,
  reference: Reference,
  others: readonly Logged[] = [],
): (entry: Logged) => Description {
  const byId = new Map([...others, ...log.map(({ entry }) => entry)].map((entry) => [entry.id, entry]))
  const settings = pickupSettings(machine, unit)
  const nameOf = namesIn(reference)
  const describe = (entry: Logged, depth: number): Description =>
    describeEntry(
      entry,
      settings,
      (id) => {
        const target = byId.get(id)
        return target && depth < DEEPEST
          ? describe(target, depth + 1).says
          : 'an entry that is not in this log'
      },
      nameOf,
    )
  return (entry) => describe(entry, 0)
}
