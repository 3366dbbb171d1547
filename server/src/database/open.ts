import { existsSync, mkdirSync, readFileSync, statSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { demoName } from '@dogleg/core/api'
import type { Client } from '@libsql/client/sqlite3'
import { migrate } from 'drizzle-orm/libsql/migrator'
import { ulid } from 'ulid'
import { copyLogbook } from '../backup/copy.ts'
import { newBackup } from '../backup/plan.ts'
import { StartProblem } from '../problem.ts'
import { type Connection, connect, type Reader, type Writer } from './connect.ts'
import { isDamage, isSqliteError, isUnwritable, rootMessage } from './errors.ts'
import { inTurn } from './in-turn.ts'
import { type Known, noteOf, readKnown, writeKnown } from './known.ts'
import { holdAlone } from './lock.ts'
import { type Damage, damageOf } from './soundness.ts'
import { LogbookDamaged, watchFile } from './watch.ts'

/** Which logbook, and how far it goes. */
type Place = Pick<Known, 'logbook' | 'seq'>

export interface Database {
  file: string
  db: Reader
  /** Does all of the work in one transaction or none of it; one such work at a time, in the order of asking. */
  write: <T>(work: (tx: Writer) => Promise<T>) => Promise<T>
  /** Lets work write that has a connection of its own: nobody else does meanwhile. */
  alone: <T>(work: () => Promise<T>) => Promise<T>
  /** True when the file cannot be written: it is shown, and every addition is refused with a sentence. */
  readOnly: boolean
  /** What is wrong with the file, where it is damaged; it is then shown as far as it can be read, and nothing is written. */
  damage: Damage | undefined
  /** Which logbook it is. */
  logbook: string
  /** It was made just now. */
  made: boolean
  /** What everybody must know of the file now, in a sentence: it is damaged, cannot be written, or is gone. */
  alarm: () => Promise<string | undefined>
  /** Puts all that was written into the one file, and lets go of it: then the file alone is the whole logbook. */
  close: () => Promise<void>
}

/** The time of the newest migration that this Dogleg knows. */
export function newestKnown(migrations: string): number {
  const journal = JSON.parse(readFileSync(join(migrations, 'meta', '_journal.json'), 'utf8')) as {
    entries: { when: number }[]
  }
  return Math.max(...journal.entries.map(({ when }) => when))
}

/** The time of the newest migration in the file; 0 in an empty one. */
export async function newestApplied(client: Client): Promise<number> {
  const { rows: tables } = await client.execute(
    "select 1 from sqlite_master where name = '__drizzle_migrations'",
  )
  if (tables.length === 0) return 0
  const { rows } = await client.execute('select max(created_at) as newest from __drizzle_migrations')
  return Number(rows[0]?.newest)
}

const cannotOpen = (file: string, error: unknown) =>
  new StartProblem(
    `The logbook file ${file} cannot be opened: ${(error as Error).message}. Check the folder and who may write in it, or name another file with DOGLEG_DATA.`,
  )

function makeFolder(file: string) {
  try {
    mkdirSync(dirname(file), { recursive: true })
  } catch (error) {
    throw cannotOpen(file, error)
  }
}

function openFile(file: string): Connection {
  try {
    return connect(file)
  } catch (error) {
    if (isDamage(error)) throw notALogbook(file)
    throw cannotOpen(file, error)
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
    if (isDamage(error)) throw notALogbook(file)
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

/** What stands in `user_version` while a process has the file, and once it was closed as it should be. */
const IN_USE = 2
const CLOSED = 1

const UNWRITABLE =
  'The logbook file cannot be written. It can be looked at; what is entered stays on the tablet. Check the disk and who may write the file, then start Dogleg again.'
/** What follows when the file is gone, and what to do. */
export const NOT_KEPT =
  'Nothing is acknowledged until it is back; what is entered stays on the tablet. Put the file back where it was, or stop Dogleg and take a backup: npm run restore FILE.'

/** What is wrong with a damaged file, how much of it is left, and what to do. */
const saysDamage = ({ says, readable }: Damage) =>
  `The logbook file is damaged: ${says.join('; ')}. What can be read: ${readable}. It is shown as far as it can be read, and nothing is written into it. Keep a copy of it, stop Dogleg, and take the last backup: npm run restore FILE.`

/** A file up to this size is looked through at every start, a larger one where the last end was not clean; in bytes. */
const QUICKLY_LOOKED_THROUGH = 64 * 1024 * 1024

const sizeOf = (path: string) => (existsSync(path) ? statSync(path).size : 0)

const dayOf = (at: string) => `${at.slice(0, 10)} ${at.slice(11, 16)} UTC`

/** Refuses to begin anew where a logbook is missing. */
function refuseMissing(file: string, known: Known | undefined, makes: boolean) {
  if (known)
    throw new StartProblem(
      `The logbook ${file} is missing: on ${dayOf(known.at)} it was here, with ${known.seq} entries. Nothing was begun in its place. Put it back where it was, or a backup of it: npm run restore FILE. To begin a new logbook here all the same, remove ${noteOf(file)} and start again.`,
    )
  if (sizeOf(`${file}-wal`) > 0)
    throw new StartProblem(
      `The logbook ${file} is missing, but the file beside it is there (${file}-wal): the two belong together. Nothing was begun in its place. Put the logbook back beside it, or take a backup: npm run restore FILE. To begin a new logbook here all the same, move that file away and start again.`,
    )
  if (!makes)
    throw new StartProblem(
      `There is no logbook ${file}. If there should be one, look whether the name is right and the disk is there. To begin one there: DOGLEG_NEW=empty npm start, or DOGLEG_NEW=demo with a made-up shop to look round in.`,
    )
}

/** Refuses a logbook that is another than the one that was here, or has less than it had. */
function refuseOther(file: string, known: Known | undefined, { logbook, seq }: Place) {
  if (!known || (known.logbook === logbook && seq >= known.seq)) return
  const what =
    known.logbook === logbook
      ? `has ${seq} entries; on ${dayOf(known.at)} it had ${known.seq}`
      : `is another than the one that was here on ${dayOf(known.at)}`
  throw new StartProblem(
    `The logbook ${file} ${what}. It was left as it is. Put the right one back, or a backup of it: npm run restore FILE. If this one is right, remove ${noteOf(file)} and start again.`,
  )
}

const EMPTY: Place = { logbook: '', seq: 0 }

/** Which logbook this is and the place of its last entry. */
async function placeIn(client: Client): Promise<Place> {
  const { rows: named } = await client.execute("select 1 from sqlite_master where name = 'logbook'")
  // A logbook from before they had names.
  const { rows: ids } =
    named.length > 0 ? await client.execute('select id from logbook') : { rows: [] as { id?: unknown }[] }
  const { rows: last } = await client.execute('select max(seq) as seq from entries')
  return { logbook: String(ids[0]?.id ?? ''), seq: Number(last[0]?.seq ?? 0) }
}

export interface OpenOptions {
  /** Whether a logbook may be made where there is none. */
  makes: boolean
  /** The time, in ms since 1970. */
  now: number
  /** It is made for the demo, and is named so. */
  demo?: boolean
  /** Where a backup goes that is made before the file is brought up to date; beside it where nothing is said. */
  backups?: string
}

/** Locks the file for this process; nothing where its folder cannot be written, so that nobody can write beside. */
async function lockWhereItCan(file: string): Promise<() => void> {
  try {
    return await holdAlone(file)
  } catch (error) {
    if (error instanceof StartProblem || !isUnwritable(error)) throw error
    return () => {}
  }
}

/**
 * Opens the logbook in WAL mode with full synchronisation (an acknowledged entry survives a power cut), and brings
 * it up to date. A file that can be read but not written, or is damaged, opens for reading. Throws StartProblem with a sentence.
 *
 * The driver has several connections to the file. WAL is kept in the file; full synchronisation is what the driver was
 * built with and holds on each of them, which `open.test.ts` asks. Its calls block this one thread, so a second
 * transaction that waited for the first to end would wait for ever: `write` lets one in at a time.
 */
export async function openDatabase(
  file: string,
  migrations: string,
  { makes, now, demo = false, backups = join(dirname(file), 'backups') }: OpenOptions = {
    makes: true,
    now: Date.now(),
  },
): Promise<Database> {
  const existed = existsSync(file)
  const known = readKnown(file)
  if (!existed) refuseMissing(file, known, makes)
  makeFolder(file)
  const unlock = await lockWhereItCan(file)
  try {
    return await openLocked(file, migrations, { existed, known, now, demo, backups, unlock })
  } catch (error) {
    unlock()
    throw error
  }
}

interface Locked {
  existed: boolean
  known: Known | undefined
  now: number
  demo: boolean
  backups: string
  unlock: () => void
}

/** Whether the file can be written, asked without changing anything in it. */
async function canWrite(client: Client): Promise<boolean> {
  try {
    const asked = await client.transaction('write')
    asked.close()
    return true
  } catch {
    return false
  }
}

/** A backup before the file is brought up to date; without one it stays as it is. */
async function backupBefore(file: string, to: string) {
  try {
    await copyLogbook(file, to)
  } catch (error) {
    throw new StartProblem(
      `The logbook ${file} needs to be brought up to date, and the backup that is made before cannot be: ${(error as Error).message} It was left as it is. Make room, or name another folder with DOGLEG_BACKUPS, then start again.`,
    )
  }
}

async function openLocked(
  file: string,
  migrations: string,
  { existed, known, now, demo, backups, unlock }: Locked,
): Promise<Database> {
  const leftOver = sizeOf(`${file}-wal`) > 0
  const { client, db, write } = openFile(file)
  const turn = inTurn()
  const database = async (readOnly: boolean, damage?: Damage): Promise<Database> => {
    const { logbook } = await placeIn(client).catch(() => ({ logbook: '' }))
    const stillThere = await watchFile(file)
    return {
      file,
      db,
      logbook,
      made: !existed,
      damage,
      readOnly,
      alarm: async () =>
        damage
          ? saysDamage(damage)
          : readOnly
            ? UNWRITABLE
            : stillThere().then(
                () => undefined,
                (gone: Error) => `${gone.message} ${NOT_KEPT}`,
              ),
      write: (work) =>
        turn(async () => {
          if (damage) throw new LogbookDamaged(saysDamage(damage))
          await stillThere()
          const done = await write(work)
          await stillThere()
          return done
        }),
      alone: (work) =>
        turn(async () => {
          if (damage) throw new LogbookDamaged(saysDamage(damage))
          await stillThere()
          const done = await work()
          await stillThere()
          return done
        }),
      close: async () => {
        // The driver leaves what stands in the file beside where it is. Where that cannot be moved now, it is safe there.
        if (!readOnly)
          await turn(async () => {
            writeKnown(file, await placeIn(client), Date.now())
            await client.execute(`pragma user_version = ${CLOSED}`)
            await client.execute('pragma wal_checkpoint(TRUNCATE)')
          }).catch(() => undefined)
        client.close()
        unlock()
      },
    }
  }
  try {
    const applied = await refuseForeign(client, file, migrations)
    const { rows: version } = await client.execute('pragma user_version')
    const clean = !leftOver && version[0]?.user_version !== IN_USE
    const looked = existed && (!clean || sizeOf(file) <= QUICKLY_LOOKED_THROUGH)
    const damage = looked ? await damageOf(client) : undefined
    if (damage) {
      if (applied < newestKnown(migrations)) throw notALogbook(file)
      return await database(true, damage)
    }
    if (existed) refuseOther(file, known, applied > 0 ? await placeIn(client) : EMPTY)
    if (existed && applied > 0 && applied < newestKnown(migrations) && (await canWrite(client)))
      await backupBefore(file, newBackup(backups, file, now, 'before-update'))
    try {
      await client.execute('pragma journal_mode = WAL')
      await client.execute(`pragma user_version = ${IN_USE}`) // fails here rather than at the first entry
      await migrate(db, { migrationsFolder: migrations })
      await client.execute({
        sql: 'insert into logbook (id) select ? where not exists (select 1 from logbook)',
        args: [demo ? demoName(ulid(now)) : ulid(now)],
      })
    } catch (error) {
      if (!isUnwritable(error) || !existed) throw error
      if (applied < newestKnown(migrations))
        throw new StartProblem(
          `The logbook ${file} needs to be brought up to date, but it cannot be written. Check who may write it, then start again.`,
        )
      return await database(true)
    }
    const place = await placeIn(client)
    // The one file alone is a logbook from the first moment on.
    await client.execute('pragma wal_checkpoint(TRUNCATE)')
    writeKnown(file, place, now)
    return await database(false)
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
