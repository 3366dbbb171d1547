import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs'
import { dirname, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { type Client, createClient } from '@libsql/client/sqlite3'
import { isDamage, rootMessage } from '../database/errors.ts'
import { damageOf } from '../database/soundness.ts'
import { StartProblem } from '../problem.ts'
import { digestOf, openToRead } from '../whole/rows.ts'

/** What is in a logbook file, as far as a copy must have it. */
export interface Contents {
  logbook: string
  entries: number
  setups: number
  rows: number
  /** Place of the last entry. */
  seq: number
}

const open = (file: string): Client => createClient({ url: pathToFileURL(file).href, timeout: 5000 })

const numberOf = async (client: Client, query: string) => {
  const { rows } = await client.execute(query)
  return Number(Object.values(rows[0] ?? {})[0] ?? 0)
}

async function hasTable(client: Client, name: string) {
  const { rows } = await client.execute({ sql: 'select 1 from sqlite_master where name = ?', args: [name] })
  return rows.length > 0
}

async function contentsOf(client: Client): Promise<Contents> {
  // A logbook from before logbooks had a name has none until it is opened.
  const ids = (await hasTable(client, 'logbook')) ? (await client.execute('select id from logbook')).rows : []
  return {
    logbook: String(ids[0]?.id ?? ''),
    entries: await numberOf(client, 'select count(*) from entries'),
    setups: await numberOf(client, 'select count(*) from entries where id = setup'),
    rows: await numberOf(client, 'select count(*) from reference'),
    seq: await numberOf(client, 'select max(seq) from entries'),
  }
}

/**
 * Opens a file and looks at every page of it.
 * @throws StartProblem with a sentence where it is no logbook, or damaged.
 */
export async function readContents(file: string): Promise<Contents> {
  if (!existsSync(file)) throw new StartProblem(`There is no file ${file}.`)
  const client = open(file)
  try {
    const damage = await damageOf(client)
    if (damage)
      throw new StartProblem(
        `${file} is damaged: ${damage.says.join('; ')}. What can be read: ${damage.readable}. It was left as it is.`,
      )
    if (!(await hasTable(client, 'entries'))) throw new StartProblem(`${file} is no logbook of Dogleg.`)
    return await contentsOf(client)
  } catch (error) {
    if (error instanceof StartProblem) throw error
    if (isDamage(error)) throw new StartProblem(`${file} is no logbook of Dogleg, or is damaged.`)
    throw new StartProblem(`${file} cannot be read: ${rootMessage(error)}`)
  } finally {
    client.close()
  }
}

/** Removes a file, where that can be done. */
export function remove(path: string) {
  try {
    rmSync(path, { force: true })
  } catch {
    // It is looked for again the next time.
  }
}

/** Removes what is left of a copy that was not finished, and what the store keeps beside it. */
export function removeUnfinished(part: string) {
  for (const beside of ['', '-journal', '-wal', '-shm']) remove(part + beside)
}

/** Whether a copy has every log, row and result just as they stand in what it is of; that may have gone on meanwhile. */
function isWhole(from: string, copy: string): boolean {
  const [source, made] = [openToRead(from), openToRead(copy)]
  try {
    const has = digestOf(made)
    const should = digestOf(source, has)
    const others = has.others === should.others && has.entries === should.entries
    return (
      others &&
      has.logs.size === should.logs.size &&
      [...should.logs].every(([id, log]) => has.logs.get(id) === log)
    )
  } finally {
    source.close()
    made.close()
  }
}

/**
 * Writes all of a logbook into one new file, as it is at one moment, also while a server writes on; what stands in the file beside
 * it comes along. The copy is opened and looked through before it gets its name.
 * @throws StartProblem with a sentence; then there is no copy.
 */
export async function copyLogbook(from: string, to: string): Promise<Contents> {
  if (!existsSync(from)) throw new StartProblem(`There is no logbook ${from}.`)
  if (existsSync(to)) throw new StartProblem(`${to} is there already. Name another file.`)
  const part = `${resolve(to)}.part`
  const client = open(from)
  try {
    mkdirSync(dirname(part), { recursive: true })
    removeUnfinished(part)
    const before = (await hasTable(client, 'entries')) ? await contentsOf(client) : undefined
    await client.execute({ sql: 'vacuum into ?', args: [part] })
    const copied = await readContents(part)
    if (
      !before ||
      copied.logbook !== before.logbook ||
      copied.entries < before.entries ||
      copied.rows < before.rows ||
      !isWhole(from, part)
    )
      throw new StartProblem(`The copy of ${from} does not have all of it. Nothing was kept.`)
    renameSync(part, to)
    return copied
  } catch (error) {
    removeUnfinished(part)
    if (error instanceof StartProblem) throw error
    throw new StartProblem(`${from} could not be copied to ${to}: ${rootMessage(error)}`)
  } finally {
    client.close()
  }
}
