import { profile } from '@dogleg/core/control'
import { material } from '@dogleg/core/cutting'
import { collet, vise } from '@dogleg/core/hold'
import { machine, toolShape } from '@dogleg/core/machine'
import type { Reference } from '@dogleg/core/setup'
import { and, desc, eq } from 'drizzle-orm'
import type { Database } from '../database/open.ts'
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

/** Rows of reference data, every version kept; the newest is the one in force. */
export function referenceStore({ db }: Database) {
  const newest = <N extends Noun>(noun: N, id: string): Row<N> | undefined => {
    const row = db
      .select()
      .from(table)
      .where(and(eq(table.noun, noun), eq(table.id, id)))
      .orderBy(desc(table.version))
      .limit(1)
      .get()
    return row && readRow(noun, row.body)
  }
  const all = <N extends Noun>(noun: N): Row<N>[] => {
    const rows = db.select().from(table).where(eq(table.noun, noun)).orderBy(table.id, table.version).all()
    const byId = new Map(rows.map(({ id, body }) => [id, body]))
    return [...byId.values()].map((body) => readRow(noun, body))
  }
  const add = <N extends Noun>(noun: N, row: Row<N>) => {
    db.insert(table)
      .values({ noun, id: row.id, version: row.version, body: JSON.stringify(row) })
      .run()
  }
  const current = (): Reference => ({
    machines: all('machines'),
    profiles: all('profiles'),
    vises: all('vises'),
    collets: all('collets'),
    tools: all('tools'),
    materials: all('materials'),
  })
  return { newest, all, add, current }
}
export type ReferenceStore = ReturnType<typeof referenceStore>
