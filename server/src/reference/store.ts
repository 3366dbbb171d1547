import { profile } from '@dogleg/core/control'
import { material } from '@dogleg/core/cutting'
import { collet, vise } from '@dogleg/core/hold'
import { machine, toolShape } from '@dogleg/core/machine'
import type { Reference } from '@dogleg/core/setup'
import { and, desc, eq, sql } from 'drizzle-orm'
import type { Reader, Writer } from '../database/open.ts'
import { reference as table } from '../database/schema.ts'

export type Noun = keyof Reference
export type Row<N extends Noun> = Reference[N][number]

/** The schema of each noun's rows. */
export const ROW_SCHEMAS = {
  machines: machine,
  profiles: profile,
  vises: vise,
  collets: collet,
  tools: toolShape,
  materials: material,
} as const
export const NOUNS = Object.keys(ROW_SCHEMAS) as Noun[]

/** A row as it was stored, with the defaults of what its schema has learnt since. */
const readRow = <N extends Noun>(noun: N, body: string) => ROW_SCHEMAS[noun].parse(JSON.parse(body)) as Row<N>

/** The newest version of each row, in the order of the ids; `rows` come by id and version. */
const newestOf = <N extends Noun>(noun: N, rows: readonly { id: string; body: string }[]): Row<N>[] =>
  [...new Map(rows.map(({ id, body }) => [id, body])).values()].map((body) => readRow(noun, body))

/** Rows of reference data, every version kept; the newest is the one in force. */
export function referenceStore(db: Reader) {
  const newest = async <N extends Noun>(noun: N, id: string): Promise<Row<N> | undefined> => {
    const [row] = await db
      .select()
      .from(table)
      .where(and(eq(table.noun, noun), eq(table.id, id)))
      .orderBy(desc(table.version))
      .limit(1)
    return row && readRow(noun, row.body)
  }
  const all = async <N extends Noun>(noun: N): Promise<Row<N>[]> =>
    newestOf(noun, await db.select().from(table).where(eq(table.noun, noun)).orderBy(table.id, table.version))
  /** All of it, as it was at one moment. */
  const current = async (): Promise<Reference> => {
    const rows = await db.select().from(table).orderBy(table.id, table.version)
    const of = <N extends Noun>(noun: N) =>
      newestOf(
        noun,
        rows.filter((row) => row.noun === noun),
      )
    return {
      machines: of('machines'),
      profiles: of('profiles'),
      vises: of('vises'),
      collets: of('collets'),
      tools: of('tools'),
      materials: of('materials'),
    }
  }
  /** A number that grows with every version that is added: where it is the same, nothing has changed. Rows are never removed. */
  const stamp = async (): Promise<number> => {
    const [row] = await db.select({ stamp: sql<number | null>`max(rowid)` }).from(table)
    return row?.stamp ?? 0
  }
  return { newest, all, current, stamp }
}
export type ReferenceStore = ReturnType<typeof referenceStore>

/** Adds a version of a row, in the transaction that is open. */
export async function addRow<N extends Noun>(tx: Writer, noun: N, row: Row<N>): Promise<void> {
  await tx.insert(table).values({ noun, id: row.id, version: row.version, body: JSON.stringify(row) })
}
