import type { AnyRow } from '../rows/index.ts'
import { NOUNS, type Noun } from './nouns.ts'
import type { Reference, RetiredRow, Row } from './reference.ts'

// Which rows are used any more. Apart from what rows are, so that the first screen needs no more.

/** Reference data from lists of all rows, and of those that are retired. */
export function referenceFrom(
  lists: { [Name in Noun]: readonly Row<Name>[] },
  retired: readonly Omit<RetiredRow, 'name'>[],
): Reference {
  const isRetired = (noun: Noun, id: string) => retired.some((each) => each.noun === noun && each.id === id)
  const named = NOUNS.flatMap((noun) =>
    (lists[noun] as readonly AnyRow[]).flatMap(({ id, name }) =>
      isRetired(noun, id) ? [{ noun, id, name }] : [],
    ),
  )
  return {
    ...lists,
    tools: lists.tools.filter(({ id }) => !isRetired('tools', id)),
    ...(named.length > 0 ? { retired: named } : {}),
  }
}

/** The rows of a list that can be chosen: those that are not retired, and the one that is chosen already. */
export function inForce<Name extends Noun>(
  reference: Reference,
  noun: Name,
  chosen?: string,
): readonly Row<Name>[] {
  const rows: readonly unknown[] = reference[noun]
  const out = new Set(reference.retired?.flatMap((each) => (each.noun === noun ? [each.id] : [])))
  return (rows as readonly Row<Name>[]).filter(({ id }) => id === chosen || !out.has(id))
}
