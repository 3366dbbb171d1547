import { existsSync, mkdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import Sqlite from 'better-sqlite3'
import { type BetterSQLite3Database, drizzle } from 'drizzle-orm/better-sqlite3'
import { migrate } from 'drizzle-orm/better-sqlite3/migrator'
import { StartProblem } from '../problem.ts'
import * as schema from './schema.ts'

export interface Database {
  db: BetterSQLite3Database<typeof schema>
  /** True when the file cannot be written: it is shown, and every addition is refused with a sentence. */
  readOnly: boolean
  close: () => void
}

const isSqliteError = (error: unknown, ...codes: string[]) =>
  error instanceof Sqlite.SqliteError && codes.some((code) => error.code.startsWith(code))

/** An error of SQLite that means that nothing can be written now, though the file can be read. */
export const isUnwritable = (error: unknown) =>
  isSqliteError(error, 'SQLITE_READONLY', 'SQLITE_FULL', 'SQLITE_IOERR', 'SQLITE_CANTOPEN', 'SQLITE_BUSY')

function newestKnown(migrations: string): number {
  const journal = JSON.parse(readFileSync(join(migrations, 'meta', '_journal.json'), 'utf8')) as {
    entries: { when: number }[]
  }
  return Math.max(...journal.entries.map(({ when }) => when))
}

/** The time of the newest migration in the file; 0 in an empty one. */
function newestApplied(sqlite: Sqlite.Database): number {
  const table = sqlite.prepare("select 1 from sqlite_master where name = '__drizzle_migrations'").get()
  if (!table) return 0
  const row = sqlite.prepare('select max(created_at) as newest from __drizzle_migrations').get() as {
    newest: number
  }
  return Number(row.newest)
}

function openFile(file: string): Sqlite.Database {
  try {
    mkdirSync(dirname(file), { recursive: true })
    return new Sqlite(file, { timeout: 5000 })
  } catch (error) {
    throw new StartProblem(
      `The logbook file ${file} cannot be opened: ${(error as Error).message}. Check the folder and who may write in it, or name another file with DOGLEG_DATA.`,
    )
  }
}

function refuseForeign(sqlite: Sqlite.Database, file: string, migrations: string) {
  let applied: number
  try {
    applied = newestApplied(sqlite)
  } catch (error) {
    if (isSqliteError(error, 'SQLITE_NOTADB', 'SQLITE_CORRUPT'))
      throw new StartProblem(
        `${file} is not a Dogleg logbook, or is damaged. It was left as it is. Put the right file in its place, or name another with DOGLEG_DATA.`,
      )
    throw new StartProblem(
      `The logbook file ${file} cannot be read: ${(error as Error).message}. It was left as it is.`,
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
 */
export function openDatabase(file: string, migrations: string): Database {
  const existed = existsSync(file)
  const sqlite = openFile(file)
  const db = drizzle(sqlite, { schema })
  const close = () => sqlite.close()
  try {
    const applied = refuseForeign(sqlite, file, migrations)
    try {
      sqlite.pragma('journal_mode = WAL')
      sqlite.pragma('synchronous = FULL')
      sqlite.pragma('user_version = 1') // a write that changes nothing: fails here rather than at the first entry
      migrate(db, { migrationsFolder: migrations })
      return { db, readOnly: false, close }
    } catch (error) {
      if (!isUnwritable(error) || !existed) throw error
      if (applied < newestKnown(migrations))
        throw new StartProblem(
          `The logbook ${file} needs to be brought up to date, but it cannot be written. Check who may write it, then start again.`,
        )
      return { db, readOnly: true, close }
    }
  } catch (error) {
    close()
    if (error instanceof StartProblem) throw error
    throw new StartProblem(
      `The logbook ${file} cannot be used: ${(error as Error).message}. It was left as it is.`,
    )
  }
}
