import type { DamagedRow } from '@dogleg/core/api'
import { isUnreadRow } from '@dogleg/core/rows'
import { NOUNS, type Noun, type Reference, type Row, readRow } from '@dogleg/core/setup'
import { and, desc, eq, gt, notExists, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/sqlite-core'
import type { Reader, Writer } from '../database/connect.ts'
import { reference as table } from '../database/schema.ts'
import { Problem } from '../problem.ts'

type Stored = Pick<typeof table.$inferSelect, 'id' | 'version' | 'body'>

/** A row as it was stored, in today's shape, with the defaults of what its schema has learnt since. */
function readStored<N extends Noun>(noun: N, { id, version, body }: Stored): Row<N> | DamagedRow {
  let data: unknown
  try {
    data = JSON.parse(body)
  } catch {
    return { id, version, unread: 'damaged', says: 'What stands in its place cannot be read.' }
  }
  const row = readRow(noun, data)
  return isUnreadRow(row) ? { id, version, ...row } : (row as Row<N>)
}

/** Rows of one noun, and those that cannot be read. */
export interface RowsRead<N extends Noun> {
  rows: Row<N>[]
  damaged: DamagedRow[]
}

/** The newest version of each row, in the order of the ids; `rows` come by id and version. */
function newestOf<N extends Noun>(noun: N, stored: readonly Stored[]): RowsRead<N> {
  const list: RowsRead<N> = { rows: [], damaged: [] }
  for (const newest of new Map(stored.map((row) => [row.id, row])).values()) {
    const row = readStored(noun, newest)
    if (isUnreadRow(row)) list.damaged.push(row)
    else list.rows.push(row)
  }
  return list
}

/** Rows of reference data, every version kept; the newest is the one in force. */
export function referenceStore(db: Reader) {
  const newest = async <N extends Noun>(noun: N, id: string): Promise<Row<N> | undefined> => {
    const [row] = await db
      .select()
      .from(table)
      .where(and(eq(table.noun, noun), eq(table.id, id)))
      .orderBy(desc(table.version))
      .limit(1)
    if (!row) return undefined
    const read = readStored(noun, row)
    if (isUnreadRow(read))
      throw read.unread === 'newer'
        ? new Problem(
            409,
            'written-by-newer',
            `A newer Dogleg wrote this row: bring this one up to date. ${read.says}`,
          )
        : new Problem(409, 'row-damaged', `This row cannot be read: ${read.says} Take the last backup.`)
    return read
  }
  const all = async <N extends Noun>(noun: N): Promise<RowsRead<N>> =>
    newestOf(noun, await db.select().from(table).where(eq(table.noun, noun)).orderBy(table.id, table.version))
  /** All of it, as it was at one moment: of each row the newest version and no other. */
  const current = async (): Promise<Reference> => {
    const newer = alias(table, 'newer')
    const rows = await db
      .select()
      .from(table)
      .where(
        notExists(
          db
            .select({ one: sql`1` })
            .from(newer)
            .where(and(eq(newer.noun, table.noun), eq(newer.id, table.id), gt(newer.version, table.version))),
        ),
      )
      .orderBy(table.id)
    return Object.fromEntries(
      NOUNS.map((noun) => [
        noun,
        newestOf(
          noun,
          rows.filter((row) => row.noun === noun),
        ).rows,
      ]),
    ) as unknown as Reference
  }
  /** A number that grows with every version that is added: where it is the same, nothing has changed. Rows are never removed. */
  const stamp = async (): Promise<number> => {
    const [row] = await db.select({ stamp: sql<number | null>`max(rowid)` }).from(table)
    return row?.stamp ?? 0
  }
  const isEmpty = async (noun: Noun): Promise<boolean> =>
    (await db.select({ id: table.id }).from(table).where(eq(table.noun, noun)).limit(1)).length === 0
  return { newest, all, current, stamp, isEmpty }
}
export type ReferenceStore = ReturnType<typeof referenceStore>

/** Adds a version of a row, in the transaction that is open. */
export async function addRow<N extends Noun>(tx: Writer, noun: N, row: Row<N>): Promise<void> {
  await tx.insert(table).values({ noun, id: row.id, version: row.version, body: JSON.stringify(row) })
}
