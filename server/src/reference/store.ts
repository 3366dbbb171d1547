import type { DamagedRow, Retirement, RowVersion } from '@dogleg/core/api'
import { isUnreadRow } from '@dogleg/core/rows'
import { NOUNS, type Noun, type Reference, type Row, readRow, referenceFrom } from '@dogleg/core/setup'
import { and, desc, eq, gt, notExists, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/sqlite-core'
import type { Reader, Writer } from '../database/connect.ts'
import { retirements, reference as table } from '../database/schema.ts'
import { Problem } from '../problem.ts'

type Stored = Pick<typeof table.$inferSelect, 'id' | 'version' | 'body'>

/** Who saves or retires a row, if anybody is signed in, and when, in ms since 1970. */
export interface SavedBy {
  by?: string | undefined
  at: number
}

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
  /** Rows that are retired now, of one noun or of all. */
  const retired = async (noun?: Noun): Promise<(Retirement & { noun: Noun })[]> => {
    const marks = await db
      .select()
      .from(retirements)
      .where(noun === undefined ? undefined : eq(retirements.noun, noun))
      .orderBy(retirements.seq)
    const last = new Map(marks.map((mark) => [`${mark.noun}/${mark.id}`, mark]))
    return [...last.values()].flatMap(({ noun: of, id, retired: is, by, at }) =>
      is ? [{ noun: of, id, ...(by === null ? {} : { by }), at: new Date(at).toISOString() }] : [],
    )
  }
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
    const lists = Object.fromEntries(
      NOUNS.map((noun) => [
        noun,
        newestOf(
          noun,
          rows.filter((row) => row.noun === noun),
        ).rows,
      ]),
    )
    return referenceFrom(lists as unknown as Reference, await retired())
  }
  /** Every version of a row, the newest first. */
  const versions = async <N extends Noun>(noun: N, id: string): Promise<RowVersion<N>[]> => {
    const rows = await db
      .select()
      .from(table)
      .where(and(eq(table.noun, noun), eq(table.id, id)))
      .orderBy(desc(table.version))
    return rows.map((stored) => {
      const { version, by, at } = stored
      const row = readStored(noun, stored)
      return {
        version,
        ...(by === null ? {} : { by }),
        ...(at === null ? {} : { at: new Date(at).toISOString() }),
        ...(isUnreadRow(row) ? { unread: row.says } : { row }),
      }
    })
  }
  /** A number that grows with every version that is added, and with every row that is retired or brought back: where it is the same, nothing has changed. */
  const stamp = async (): Promise<number> => {
    const [row] = await db
      .select({
        stamp: sql<number>`(select coalesce(max(rowid), 0) from ${table}) + (select coalesce(max(seq), 0) from ${retirements})`,
      })
      .from(sql`(select 1)`)
    return row?.stamp ?? 0
  }
  const isEmpty = async (noun: Noun): Promise<boolean> =>
    (await db.select({ id: table.id }).from(table).where(eq(table.noun, noun)).limit(1)).length === 0
  return { newest, all, current, retired, versions, stamp, isEmpty }
}
export type ReferenceStore = ReturnType<typeof referenceStore>

/** Adds a version of a row, in the transaction that is open. */
export async function addRow<N extends Noun>(
  tx: Writer,
  noun: N,
  row: Row<N>,
  { by, at }: SavedBy,
): Promise<void> {
  const { id, version } = row
  await tx.insert(table).values({ noun, id, version, body: JSON.stringify(row), by: by ?? null, at })
}

/** Retires a row or brings it back, in the transaction that is open. */
export async function retireRow(
  tx: Writer,
  noun: Noun,
  id: string,
  retired: boolean,
  { by, at }: SavedBy,
): Promise<void> {
  await tx.insert(retirements).values({ noun, id, retired, by: by ?? null, at })
}
