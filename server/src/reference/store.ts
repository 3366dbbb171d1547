import { type Profile, profile } from '@dogleg/core/control'
import { type Machine, machine } from '@dogleg/core/machine'
import type { Reference } from '@dogleg/core/setup'
import { and, desc, eq } from 'drizzle-orm'
import type { Database } from '../database/open.ts'
import { reference as table } from '../database/schema.ts'

export type Noun = 'machines' | 'profiles'
export type Row<N extends Noun> = N extends 'machines' ? Machine : Profile

/** The schema of each noun's rows. */
export const ROW_SCHEMAS = { machines: machine, profiles: profile } as const

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
    return row && (JSON.parse(row.body) as Row<N>)
  }
  const all = <N extends Noun>(noun: N): Row<N>[] => {
    const rows = db.select().from(table).where(eq(table.noun, noun)).orderBy(table.id, table.version).all()
    const byId = new Map(rows.map(({ id, body }) => [id, JSON.parse(body) as Row<N>]))
    return [...byId.values()]
  }
  const add = <N extends Noun>(noun: N, row: Row<N>) => {
    db.insert(table)
      .values({ noun, id: row.id, version: row.version, body: JSON.stringify(row) })
      .run()
  }
  const current = (): Reference => ({ machines: all('machines'), profiles: all('profiles') })
  return { newest, all, add, current }
}
export type ReferenceStore = ReturnType<typeof referenceStore>
