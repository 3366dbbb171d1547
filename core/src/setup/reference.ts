import { profiles } from '../control/index.ts'
import { materials } from '../cutting/index.ts'
import { collets, vises } from '../hold/index.ts'
import { machines, tools } from '../machine/index.ts'
import { type RowsOf, rowDoor } from '../rows/index.ts'
import type { Noun } from './nouns.ts'

/** Every noun of reference data: what it is stands in its room. One that is missing here does not compile. */
const ROWS = { machines, profiles, vises, collets, tools, materials } as const satisfies {
  [Name in Noun]: { noun: Name }
}
type Kinds = (typeof ROWS)[Noun]

export type Row<Name extends Noun> = RowsOf<Kinds, Name>

/** A row that is not used any more, and is named where old setups used it. */
export interface RetiredRow {
  noun: Noun
  id: string
  name: string
}

/**
 * Reference data that a setup is derived with: the newest version of each row. Retired ones are among them, except tools: what a program
 * calls T5 is the tool that has this number now.
 */
export type Reference = { [Name in Noun]: readonly Row<Name>[] } & { retired?: readonly RetiredRow[] }

/** The one door from stored or received data to a row. */
export const { readRow, rowKind } = rowDoor<Kinds>(Object.values(ROWS))
