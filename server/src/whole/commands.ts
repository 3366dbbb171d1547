import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs'
import { dirname, resolve } from 'node:path'
import { rootMessage } from '../database/errors.ts'
import { openDatabase } from '../database/open.ts'
import { StartProblem } from '../problem.ts'
import { exportTo, importFrom } from './open-form.ts'
import { digestOf, openToRead } from './rows.ts'
import { verify as walk } from './verify.ts'

const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`

/** `npm run verify [FILE]`: walks through a logbook. Returns what to say, and whether all is as it should be. */
export async function verify(
  file: string,
  named: string | undefined,
  now: number,
): Promise<{ says: string; good: boolean }> {
  const of = resolve(named ?? file)
  const { entries, setups, rows, wrong } = await walk(of, now)
  const all = `${of}: ${counted(setups, 'setup', 'setups')}, ${counted(entries, 'entry', 'entries')}, ${counted(rows, 'version of a row', 'versions of rows')}.`
  return wrong.length === 0
    ? { good: true, says: `${all} All of it can be read, and what is worked out of it is what was kept.` }
    : { good: false, says: [all, ...wrong].join('\n') }
}

/** `npm run export FILE`: all of the logbook in open form. Returns what to say. */
export async function exportLogbook(file: string, to: string | undefined): Promise<string> {
  if (!to) throw new StartProblem('Say where to: npm run export FILE.jsonl.')
  if (!existsSync(file)) throw new StartProblem(`There is no logbook ${file}.`)
  if (existsSync(to)) throw new StartProblem(`${to} is there already. Name another file.`)
  const part = `${to}.part`
  try {
    mkdirSync(dirname(part), { recursive: true })
    rmSync(part, { force: true })
    const { entries, rows, results, lost } = await exportTo(file, part)
    renameSync(part, to)
    const missing = lost > 0 ? ` ${lost} more may have stood in damaged pages and could not be read.` : ''
    return `${to}: ${counted(entries, 'entry', 'entries')}, ${counted(rows, 'version of a row', 'versions of rows')}, ${counted(results, 'result of an exercise', 'results of exercises')}.${missing}`
  } catch (error) {
    rmSync(part, { force: true })
    if (error instanceof StartProblem) throw error
    throw new StartProblem(`${file} could not be written to ${to}: ${rootMessage(error)}`)
  }
}

/**
 * `npm run import FILE`: makes the logbook from a file in open form; there must be none yet. It gets its name once all of the file stands in it.
 * Returns what to say.
 */
export async function importLogbook(
  file: string,
  from: string | undefined,
  { now, migrations }: { now: number; migrations: string },
): Promise<string> {
  if (!from) throw new StartProblem('Say which file: npm run import FILE.jsonl.')
  if (existsSync(file))
    throw new StartProblem(
      `There is a logbook ${file} already, and it was left as it is. Name another with DOGLEG_DATA, or move this one away.`,
    )
  const part = `${file}.imported`
  const clear = () => {
    for (const end of ['', '-wal', '-shm', '-lock', '-known.json']) rmSync(part + end, { force: true })
  }
  try {
    clear()
    const database = await openDatabase(part, migrations, { makes: true, now })
    await database.close()
    const done = await importFrom(from, part)
    const db = openToRead(part)
    const { entries, rows } = digestOf(db)
    db.close()
    if (entries !== done.entries || rows !== done.rows)
      throw new StartProblem(`Not all of ${from} could be written. Nothing was kept.`)
    // What stands in the file beside comes into it: then the file alone is the logbook. It has another name than it was begun with.
    rmSync(`${part}-known.json`, { force: true })
    await (await openDatabase(part, migrations, { makes: false, now })).close()
    renameSync(part, file)
    return `${file}: ${counted(entries, 'entry', 'entries')}, ${counted(rows, 'version of a row', 'versions of rows')}. Start Dogleg: npm start.`
  } finally {
    clear()
  }
}
