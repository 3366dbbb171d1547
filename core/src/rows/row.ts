import type { z } from 'zod'
import { isObject, issueIn, plainly, raised, type Shaped, shapeOf } from '../log/index.ts'
import type { ProblemCode } from '../problem/index.ts'

/** What every row of reference data has: who it is, which version, and what it is called. */
export interface AnyRow {
  id: string
  version: number
  name: string
}

type RowSchema = z.ZodObject & z.ZodType<AnyRow>
type RowBy<Schema extends z.ZodType> = z.output<Schema> & AnyRow

interface RowSpec<Noun extends string, Schema extends RowSchema> {
  /** What a list of them is called, on the page and in addresses: 'vises'. */
  noun: Noun
  /** What one is called in a sentence: 'vise'. */
  one: string
  /** How it is validated. Any change of it is a new shape: a `shape` in it that says which, and one more `upcast`. */
  schema: Schema
  /** From each older shape to the one after it. */
  upcast: Shaped['upcast']
  /** Which rows go along in the file of a setup: those that its log names, or those of its machine; and how many at most. */
  inFile: { which: 'named' | 'of-machine'; most: number }
  /** Rows of other nouns that it cannot be without, and what is said where one is missing. */
  needs?(row: RowBy<Schema>): { noun: string; id: string; code: ProblemCode; says: string }[]
  /**
   * The row as it is kept when it is saved: with what follows from the version before it, where there is one, and from who saves it
   * (initials; undefined where nobody says).
   */
  follows?(row: RowBy<Schema>, before: RowBy<Schema> | undefined, by: string | undefined): RowBy<Schema>
  /** Why two rows cannot both be there, in a sentence; undefined where they can. */
  clashes?(row: RowBy<Schema>, other: RowBy<Schema>): string | undefined
}

/** A noun of reference data: all that there is to say of it. */
export interface RowKind<Noun extends string, Schema extends RowSchema>
  extends RowSpec<Noun, Schema>,
    Shaped {}

export const defineRow = <const Noun extends string, Schema extends RowSchema>(
  of: RowSpec<Noun, Schema>,
): RowKind<Noun, Schema> => ({ ...of, shape: shapeOf(of.noun, of.schema, of.upcast) })

/** Any noun, for a list of them. */
// biome-ignore lint/suspicious/noExplicitAny: a list holds nouns of every schema, and each is asked about its own rows only
export type AnyRowKind = RowKind<string, any>

/** The rows of a noun of a list. */
export type RowsOf<Kinds extends AnyRowKind, Noun extends Kinds['noun']> = z.output<
  Extract<Kinds, { noun: Noun }>['schema']
>

/** A row that cannot be read here: a newer Dogleg wrote it, or it is damaged. It stays as it is, and is not in the list. */
export interface UnreadRow {
  unread: 'newer' | 'damaged'
  says: string
}

export const isUnreadRow = (row: object): row is UnreadRow => 'unread' in row

/** The one door from stored or received data to a row, in today's shape of its noun. */
export function rowDoor<Kinds extends AnyRowKind>(list: readonly Kinds[]) {
  const byNoun = new Map<string, Kinds>(list.map((each) => [each.noun, each]))
  if (byNoun.size < list.length) throw new Error('Two nouns have one name.')

  /** A noun's own say. Throws where there is none of the name, which is a mistake of ours. */
  const rowKind = (noun: Kinds['noun']): AnyRowKind => {
    const kind = byNoun.get(noun)
    if (!kind) throw new Error(`There are no ${noun}.`)
    return kind
  }
  const readRow = <Noun extends Kinds['noun']>(
    noun: Noun,
    data: unknown,
  ): RowsOf<Kinds, Noun> | UnreadRow => {
    const kind = rowKind(noun)
    if (!isObject(data)) return { unread: 'damaged', says: `This is no ${kind.one}. (body)` }
    const today = raised(data, `a ${kind.one}`, kind)
    if (!today.ok) return { unread: today.why, says: today.says }
    const read = kind.schema.safeParse(today.data, { error: plainly })
    return read.success ? read.data : { unread: 'damaged', says: issueIn(read.error) }
  }
  return { rowKind, readRow }
}
