import { existsSync, mkdirSync, renameSync } from 'node:fs'
import { basename, dirname, join, resolve } from 'node:path'
import { noteOf, writeKnown } from '../database/known.ts'
import { holdAlone } from '../database/lock.ts'
import { StartProblem } from '../problem.ts'
import { type Contents, copyLogbook, readContents } from './copy.ts'

const stampOf = (now: number) =>
  new Date(now).toISOString().slice(0, 19).replaceAll(':', '').replace('T', '-')

const said = ({ entries, setups, rows }: Contents) =>
  `${setups} ${setups === 1 ? 'setup' : 'setups'}, ${entries} entries, ${rows} rows of reference data`

/** Where a backup goes that was given no name: beside the logbook, by its time. */
const usualBackup = (file: string, now: number) =>
  join(dirname(file), 'backups', `${basename(file, '.sqlite')}-${stampOf(now)}.sqlite`)

/** `npm run backup [FILE]`: all of the logbook as it is now, in one file. Returns what to say. */
export async function backup(file: string, to: string | undefined, now: number): Promise<string> {
  const target = resolve(to ?? usualBackup(file, now))
  const contents = await copyLogbook(file, target)
  return `${target}: ${said(contents)}. It was opened and looked through.`
}

/** The files that belong to a logbook: itself, what was not yet put into it, its index, the note of it. */
const filesOf = (file: string) => [file, `${file}-wal`, `${file}-shm`, noteOf(file)]

/**
 * `npm run restore FILE`: puts a backup in the place of the logbook. What stood there is moved aside with all that belongs to it, and
 * kept; nothing is moved before the backup was copied and looked through. Returns what to say.
 * @throws StartProblem with a sentence: a server is running, the backup is none, or damaged.
 */
export async function restore(file: string, from: string | undefined, now: number): Promise<string> {
  if (from === undefined || from === '') throw new StartProblem('Say which backup: npm run restore FILE.')
  const source = resolve(from)
  if (source === resolve(file)) throw new StartProblem(`${file} is the logbook itself. Name a backup of it.`)
  await readContents(source)
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
    if (contents.logbook !== '') writeKnown(file, contents, now)
    const kept = stood.length > 0 ? ` What stood there is kept in ${aside}.` : ''
    return `${file} is now ${source}: ${said(contents)}.${kept} Start Dogleg: npm start.`
  } finally {
    unlock()
  }
}
