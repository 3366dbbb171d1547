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
import { newBackup, stampOf } from './plan.ts'

const said = ({ entries, setups, rows }: Contents) =>
  `${setups} ${setups === 1 ? 'setup' : 'setups'}, ${entries} entries, ${rows} rows of reference data`

/** `npm run backup [FILE]`: all of the logbook as it is now, in one file. Returns what to say. */
export async function backup(
  file: string,
  to: string | undefined,
  { now, folder }: { now: number; folder: string },
): Promise<string> {
  const target = to === undefined ? newBackup(folder, file, now, 'asked') : resolve(to)
  const contents = await copyLogbook(file, target)
  return `${target}: ${said(contents)}. It was opened and looked through.`
}

/** The files that belong to a logbook: itself, what was not yet put into it, its index, the note of it. */
const filesOf = (file: string) => [file, `${file}-wal`, `${file}-shm`, noteOf(file)]

/** Moves a logbook with all that belongs to it into a folder beside it; undefined where there is nothing. */
function moveAside(file: string, now: number): string | undefined {
  const stood = filesOf(file).filter(existsSync)
  if (stood.length === 0) return undefined
  const aside = join(dirname(file), `${basename(file)}.before-${stampOf(now)}`)
  mkdirSync(aside)
  // The note last: until then a start says that the logbook is missing, and begins no other.
  for (const path of stood) renameSync(path, join(aside, basename(path)))
  return aside
}

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
    const aside = moveAside(file, now)
    renameSync(ready, file)
    forgetKept(file)
    if (contents.logbook !== '') writeKnown(file, contents, now)
    const kept = aside === undefined ? '' : ` What stood there is kept in ${aside}.`
    return `${file} is now ${source}: ${said(contents)}.${kept} Start Dogleg: npm start.`
  } finally {
    unlock()
  }
}

/** What is to be typed so that a shop is begun again; the second time a number that nobody types by chance. */
const FIRST_WORDS = 'begin again'

/**
 * `npm run begin-again`: a backup is made and held against the logbook, then it is moved aside with all that belongs to it, so that the
 * next start asks anew. Asks twice, by `ask`; nothing is done before both were answered. Returns what to say.
 * @throws StartProblem with a sentence: a server is running, the backup cannot be made, it was answered otherwise.
 */
export async function beginAgain(
  file: string,
  { now, folder, ask }: { now: number; folder: string; ask: (question: string) => Promise<string> },
): Promise<string> {
  if (!existsSync(file))
    throw new StartProblem(`There is no logbook ${file}: the next start begins one. Nothing was changed.`)
  const unlock = await holdAlone(file)
  try {
    const contents = await readContents(file)
    const refuse = () => new StartProblem('That was not it. Nothing was changed.')
    const first = await ask(
      `${file} holds ${said(contents)}. After this it is not shown any more. It is kept, and a backup of it is made first.\nTo begin again without it, type: ${FIRST_WORDS}\n`,
    )
    if (first.trim().toLowerCase() !== FIRST_WORDS) throw refuse()
    const second = await ask(`Are you sure? Then type how many entries it holds: ${contents.entries}\n`)
    if (second.trim() !== String(contents.entries)) throw refuse()
    const copy = newBackup(folder, file, now, 'asked')
    await copyLogbook(file, copy)
    const aside = moveAside(file, now)
    forgetKept(file)
    return `${copy} is a backup of it: it was opened and held against the logbook. What stood there is kept in ${aside}. Start Dogleg: npm start asks what to begin with.`
  } finally {
    unlock()
  }
}
