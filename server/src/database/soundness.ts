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

/** The highest row number of a table, also where its last page is damaged and SQLite remembers it elsewhere. */
async function lastRow(client: Client, table: string): Promise<number> {
  const questions = [
    `select max(rowid) as last from ${table}`,
    `select seq as last from sqlite_sequence where name = '${table}'`,
  ]
  for (const question of questions) {
    try {
      const { rows } = await client.execute(question)
      if (rows.length > 0) return Number(rows[0]?.last ?? 0)
    } catch {
      // Asked another way.
    }
  }
  return 0
}

/** How many rows of a table can be read, one by one: a page that is damaged takes only its own with it. */
async function countReadable(client: Client, table: string): Promise<{ read: number; of: number }> {
  const of = await lastRow(client, table)
  let read = 0
  for (let id = 1; id <= of; id++) {
    try {
      const { rows } = await client.execute({ sql: `select * from ${table} where rowid = ?`, args: [id] })
      read += rows.length
    } catch {
      // Counted as one that cannot be read.
    }
  }
  return { read, of }
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
    counts.push(`${count.read} of ${count.of} ${name}`)
  }
  return { says: says.slice(0, MOST_LINES), readable: counts.join(', ') }
}
