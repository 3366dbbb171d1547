import { realpathSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { createClient } from '@libsql/client/sqlite3'
import { StartProblem } from '../problem.ts'
import { isSqliteError } from './errors.ts'

/** The same file by whatever name it is called. */
function trueName(file: string): string {
  try {
    return realpathSync(file)
  } catch {
    return join(realpathSync(dirname(file)), basename(file))
  }
}

/**
 * Holds the logbook for this process alone, until it is let go or the process ends, however it ends: the operating system takes
 * back the lock of a process that is gone, so nothing stale is left behind. The lock is SQLite's, on a small file beside.
 * @throws StartProblem where another process holds it.
 */
export async function holdAlone(file: string): Promise<() => void> {
  const client = createClient({ url: pathToFileURL(`${trueName(file)}-lock`).href, timeout: 0 })
  try {
    await client.execute('pragma journal_mode = DELETE')
    const held = await client.transaction('write')
    return () => {
      held.close()
      client.close()
    }
  } catch (error) {
    client.close()
    if (!isSqliteError(error, 'SQLITE_BUSY')) throw error
    throw new StartProblem(
      `Dogleg is running on the logbook ${file} already. Use that one, stop it first, or name another file with DOGLEG_DATA.`,
    )
  }
}
