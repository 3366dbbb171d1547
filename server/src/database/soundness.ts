import type { Client } from '@libsql/client/sqlite3'
import { rootMessage } from './errors.ts'

/** Lines of SQLite's report that are told. */
const MOST_LINES = 5
const TABLES = { entries: 'entries', reference: 'rows of reference data', practice: 'results of exercises' }

/** What is wrong with a file, in words, and how much of it can be read. */
export interface Damage {
  says: string[]
  readable: string
}

/** How many rows of a table can be read, one by one; undefined where the table itself cannot. */
async function countReadable(
  client: Client,
  table: string,
): Promise<{ read: number; of: number } | undefined> {
  try {
    const { rows } = await client.execute(`select rowid as id from ${table} order by rowid`)
    let read = 0
    for (const { id } of rows) {
      try {
        const { rows: one } = await client.execute({
          sql: `select * from ${table} where rowid = ?`,
          args: [Number(id)],
        })
        if (one.length === 1) read += 1
      } catch {
        // Counted as one that cannot be read.
      }
    }
    return { read, of: rows.length }
  } catch {
    return undefined
  }
}

/** Asks SQLite whether every page of the file is as it should be; what is wrong, or undefined where nothing is. */
export async function damageOf(client: Client): Promise<Damage | undefined> {
  let says: string[]
  try {
    const { rows } = await client.execute('pragma integrity_check')
    says = rows.map((row) => String(row.integrity_check))
  } catch (error) {
    says = [rootMessage(error)]
  }
  if (says.length === 1 && says[0] === 'ok') return undefined
  const counts: string[] = []
  for (const [table, name] of Object.entries(TABLES)) {
    const count = await countReadable(client, table)
    counts.push(count ? `${count.read} of ${count.of} ${name}` : `none of the ${name}`)
  }
  return { says: says.slice(0, MOST_LINES), readable: counts.join(', ') }
}
