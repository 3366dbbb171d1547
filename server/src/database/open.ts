import { existsSync, mkdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { type Client, createClient, type ResultSet } from '@libsql/client/sqlite3'
import { migrate } from 'drizzle-orm/libsql/migrator'
import { drizzle } from 'drizzle-orm/libsql/sqlite3'
import type { BaseSQLiteDatabase } from 'drizzle-orm/sqlite-core'
import { StartProblem } from '../problem.ts'
import { inTurn } from './in-turn.ts'
import * as schema from './schema.ts'

type Queries = BaseSQLiteDatabase<'async', ResultSet, typeof schema>

/** Where questions are asked: the file as it stands, or a transaction that is open. */
export type Reader = Pick<Queries, 'select'>
/** A transaction that is open for writing. */
export type Writer = Pick<Queries, 'select' | 'insert'>

export interface Database {
  db: Reader
  /** Does all of the work in one transaction or none of it; one such work at a time, in the order of asking. */
  write: <T>(work: (tx: Writer) => Promise<T>) => Promise<T>
  /** True when the file cannot be written: it is shown, and every addition is refused with a sentence. */
  readOnly: boolean
  /** Puts all that was written into the one file, and lets go of it: then the file alone is the whole logbook. */
  close: () => Promise<void>
}

/** How long a connection waits for another process that writes. */
const PATIENCE_MS = 5000

/** SQLite's own code of an error ('SQLITE_FULL'), however deep the driver and the query builder have wrapped it. */
export function sqliteCode(error: unknown): string | undefined {
  for (let at = error; at instanceof Error; at = at.cause)
    if ('code' in at && typeof at.code === 'string' && at.code.startsWith('SQLITE_')) return at.code
  return undefined
}

const isSqliteError = (error: unknown, ...codes: string[]) => {
  const code = sqliteCode(error)
  return code !== undefined && codes.some((each) => code.startsWith(each))
}

/** An error of SQLite that means that nothing can be written now, though the file can be read. */
export const isUnwritable = (error: unknown) =>
  isSqliteError(error, 'SQLITE_READONLY', 'SQLITE_FULL', 'SQLITE_IOERR', 'SQLITE_CANTOPEN', 'SQLITE_BUSY')

/** What an error says at its root: the query builder puts the whole statement round it. */
function rootMessage(error: unknown): string {
  let at = error
  while (at instanceof Error && at.cause instanceof Error) at = at.cause
  return at instanceof Error ? at.message : String(at)
}

function newestKnown(migrations: string): number {
  const journal = JSON.parse(readFileSync(join(migrations, 'meta', '_journal.json'), 'utf8')) as {
    entries: { when: number }[]
  }
  return Math.max(...journal.entries.map(({ when }) => when))
}

/** The time of the newest migration in the file; 0 in an empty one. */
async function newestApplied(client: Client): Promise<number> {
  const { rows: tables } = await client.execute(
    "select 1 from sqlite_master where name = '__drizzle_migrations'",
  )
  if (tables.length === 0) return 0
  const { rows } = await client.execute('select max(created_at) as newest from __drizzle_migrations')
  return Number(rows[0]?.newest)
}

function openFile(file: string): Client {
  try {
    mkdirSync(dirname(file), { recursive: true })
    return createClient({ url: pathToFileURL(file).href, timeout: PATIENCE_MS })
  } catch (error) {
    if (isSqliteError(error, 'SQLITE_NOTADB', 'SQLITE_CORRUPT')) throw notALogbook(file)
    throw new StartProblem(
      `The logbook file ${file} cannot be opened: ${(error as Error).message}. Check the folder and who may write in it, or name another file with DOGLEG_DATA.`,
    )
  }
}

const notALogbook = (file: string) =>
  new StartProblem(
    `${file} is not a Dogleg logbook, or is damaged. It was left as it is. Put the right file in its place, or name another with DOGLEG_DATA.`,
  )

async function refuseForeign(client: Client, file: string, migrations: string): Promise<number> {
  let applied: number
  try {
    applied = await newestApplied(client)
  } catch (error) {
    if (isSqliteError(error, 'SQLITE_NOTADB', 'SQLITE_CORRUPT')) throw notALogbook(file)
    throw new StartProblem(
      `The logbook file ${file} cannot be read: ${rootMessage(error)}. It was left as it is.`,
    )
  }
  if (applied > newestKnown(migrations))
    throw new StartProblem(
      `The logbook ${file} was written by a newer Dogleg than this one. It was left as it is. Update Dogleg, then start again.`,
    )
  return applied
}

/**
 * Opens the logbook in WAL mode with full synchronisation (an acknowledged entry survives a power cut), and brings
 * it up to date. A file that can be read but not written opens for reading. Throws StartProblem with a sentence.
 *
 * The driver has several connections to the file. WAL is kept in the file; full synchronisation is what the driver was
 * built with and holds on each of them, which `open.test.ts` asks. Its calls block this one thread, so a second
 * transaction that waited for the first to end would wait for ever: `write` lets one in at a time.
 */
export async function openDatabase(file: string, migrations: string): Promise<Database> {
  const existed = existsSync(file)
  const client = openFile(file)
  const db = drizzle(client, { schema })
  const turn = inTurn()
  const database = (readOnly: boolean): Database => ({
    db,
    write: (work) => turn(() => db.transaction(work, { behavior: 'immediate' })),
    readOnly,
    close: async () => {
      // The driver leaves what stands in the file beside where it is. Where that cannot be moved now, it is safe there.
      if (!readOnly)
        await turn(() => client.execute('pragma wal_checkpoint(TRUNCATE)')).catch(() => undefined)
      client.close()
    },
  })
  try {
    const applied = await refuseForeign(client, file, migrations)
    try {
      await client.execute('pragma journal_mode = WAL')
      await client.execute('pragma user_version = 1') // a write that changes nothing: fails here rather than at the first entry
      await migrate(db, { migrationsFolder: migrations })
      return database(false)
    } catch (error) {
      if (!isUnwritable(error) || !existed) throw error
      if (applied < newestKnown(migrations))
        throw new StartProblem(
          `The logbook ${file} needs to be brought up to date, but it cannot be written. Check who may write it, then start again.`,
        )
      return database(true)
    }
  } catch (error) {
    client.close()
    if (error instanceof StartProblem) throw error
    if (isSqliteError(error, 'SQLITE_FULL'))
      throw new StartProblem(
        `The disk is full: there is no room for the logbook ${file}. Make room, or name a file on another disk with DOGLEG_DATA, then start again.`,
      )
    throw new StartProblem(`The logbook ${file} cannot be used: ${rootMessage(error)}. It was left as it is.`)
  }
}
