import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs'
import { basename, dirname, join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { createClient } from '@libsql/client/sqlite3'
import { noteOf, writeKnown } from '../database/known.ts'
import { holdAlone } from '../database/lock.ts'
import { newestApplied, newestKnown } from '../database/open.ts'
import { keptOf } from '../kept/open.ts'
import { StartProblem } from '../problem.ts'
import { type Contents, copyLogbook, readContents } from './copy.ts'
import { backupName, stampOf } from './plan.ts'

const said = ({ entries, setups, rows }: Contents) =>
  `${setups} ${setups === 1 ? 'setup' : 'setups'}, ${entries} entries, ${rows} rows of reference data`

/** `npm run backup [FILE]`: all of the logbook as it is now, in one file. Returns what to say. */
export async function backup(
  file: string,
  to: string | undefined,
  { now, folder }: { now: number; folder: string },
): Promise<string> {
  const target = resolve(to ?? join(folder, backupName(file, now, 'asked')))
  const contents = await copyLogbook(file, target)
  return `${target}: ${said(contents)}. It was opened and looked through.`
}

/** The files that belong to a logbook: itself, what was not yet put into it, its index, the note of it. */
const filesOf = (file: string) => [file, `${file}-wal`, `${file}-shm`, noteOf(file)]

/** What is kept for speed of what stood there is of nothing now. */
const forgetKept = (file: string) => {
  for (const path of [keptOf(file), `${keptOf(file)}-wal`, `${keptOf(file)}-shm`])
    rmSync(path, { force: true })
}

/** The newest migration that this Dogleg knows, from its folder; a newer file is refused. */
async function refuseNewer(source: string, migrations: string) {
  const client = createClient({ url: pathToFileURL(source).href, timeout: 5000 })
  try {
    if ((await newestApplied(client)) > newestKnown(migrations))
      throw new StartProblem(
        `${source} was written by a newer Dogleg than this one. Nothing was changed. Update Dogleg, then do it again.`,
      )
  } finally {
    client.close()
  }
}

/**
 * `npm run restore FILE`: puts a backup in the place of the logbook. What stood there is moved aside with all that belongs to it, and
 * kept; nothing is moved before the backup was copied and looked through. Returns what to say.
 * @throws StartProblem with a sentence: a server is running, the backup is none, or damaged.
 */
export async function restore(
  file: string,
  from: string | undefined,
  { now, migrations }: { now: number; migrations: string },
): Promise<string> {
  if (from === undefined || from === '') throw new StartProblem('Say which backup: npm run restore FILE.')
  const source = resolve(from)
  if (source === resolve(file)) throw new StartProblem(`${file} is the logbook itself. Name a backup of it.`)
  await readContents(source)
  await refuseNewer(source, migrations)
  mkdirSync(dirname(file), { recursive: true })
  const unlock = await holdAlone(file)
  try {
    const ready = `${file}.restored`
    const contents = await copyLogbook(source, ready)
    const stood = filesOf(file).filter(existsSync)
    const aside = join(dirname(file), `${basename(file)}.before-${stampOf(now)}`)
    if (stood.length > 0) {
      mkdirSync(aside)
      // The note last: until then a start says that the logbook is missing, and begins no other.
      for (const path of stood) renameSync(path, join(aside, basename(path)))
    }
    renameSync(ready, file)
    forgetKept(file)
    if (contents.logbook !== '') writeKnown(file, contents, now)
    const kept = stood.length > 0 ? ` What stood there is kept in ${aside}.` : ''
    return `${file} is now ${source}: ${said(contents)}.${kept} Start Dogleg: npm start.`
  } finally {
    unlock()
  }
}
