import { pathToFileURL } from 'node:url'
import { type Client, createClient, type ResultSet, type TransactionMode } from '@libsql/client/sqlite3'
import { drizzle } from 'drizzle-orm/libsql/sqlite3'
import type { BaseSQLiteDatabase } from 'drizzle-orm/sqlite-core'
import { rootMessage } from './errors.ts'
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

/** What SQLite says of a transaction that it has rolled back by itself, as it may where the disk is full or fails. */
const ROLLED_BACK = /no transaction is active|transaction is closed/i

/**
 * Lets a transaction that SQLite has rolled back by itself end as one that was rolled back: else what is told is that nothing could be
 * rolled back, and not why.
 */
export function endsAsRolledBack(client: Client): Client {
  const begin = client.transaction.bind(client)
  client.transaction = async (mode?: TransactionMode) => {
    const begun = await (mode === undefined ? begin() : begin(mode))
    const rollback = begun.rollback.bind(begun)
    begun.rollback = () =>
      rollback().catch((error: unknown) => {
        if (!ROLLED_BACK.test(rootMessage(error))) throw error
      })
    return begun
  }
  return client
}

/** Opens connections to a logbook file. */
export function connect(file: string): Connection {
  const client = endsAsRolledBack(createClient({ url: pathToFileURL(file).href, timeout: PATIENCE_MS }))
  const db = drizzle(client, { schema })
  return { client, db, write: (work) => db.transaction(work, { behavior: 'immediate' }) }
}
