import { pathToFileURL } from 'node:url'
import { type Client, createClient, type ResultSet } from '@libsql/client/sqlite3'
import { drizzle } from 'drizzle-orm/libsql/sqlite3'
import type { BaseSQLiteDatabase } from 'drizzle-orm/sqlite-core'
import * as schema from './schema.ts'

type Queries = BaseSQLiteDatabase<'async', ResultSet, typeof schema>

/** Where questions are asked: the file as it stands, or a transaction that is open. */
export type Reader = Pick<Queries, 'select'>
/** A transaction that is open for writing. */
export type Writer = Pick<Queries, 'select' | 'insert'>

/** How long a connection waits for another that writes. */
const PATIENCE_MS = 5000

export interface Connection {
  client: Client
  db: ReturnType<typeof drizzle<typeof schema>>
  /** Does all of the work in one transaction or none of it. */
  write: <T>(work: (tx: Writer) => Promise<T>) => Promise<T>
}

/** Opens connections to a logbook file. */
export function connect(file: string): Connection {
  const client = createClient({ url: pathToFileURL(file).href, timeout: PATIENCE_MS })
  const db = drizzle(client, { schema })
  return { client, db, write: (work) => db.transaction(work, { behavior: 'immediate' }) }
}
