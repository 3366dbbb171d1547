import { copyFileSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import { BUILT_IN_PROFILES } from '@dogleg/core/control'
import type { Logged } from '@dogleg/core/setup'
import { createClient } from '@libsql/client/sqlite3'
import { sql } from 'drizzle-orm'
import { describe, expect, it } from 'vitest'
import { newBackup } from '../backup/plan.ts'
import { appendEntries } from '../entries/append.ts'
import { entryStore } from '../entries/store.ts'
import { referenceStore } from '../reference/store.ts'
import { logsIn, noteEntry, openedEntry } from '../testing/entries.ts'
import { newFolder } from '../testing/process.ts'
import type { Reader } from './connect.ts'
import { sqliteCode } from './errors.ts'
import { type Database, openDatabase } from './open.ts'
import { entries as table } from './schema.ts'

const migrations = join(import.meta.dirname, '../../migrations')
const newLogbook = () => openDatabase(join(newFolder(), 'log.sqlite'), migrations)

/** What SQLite says of a connection: 2 is FULL (SQLite's documentation of `pragma synchronous`). */
const settingsOf = async (on: Reader) => {
  const [row] = await on
    .select({
      synchronous: sql<number>`(select synchronous from pragma_synchronous)`,
      timeout: sql<number>`(select timeout from pragma_busy_timeout)`,
      journal: sql<string>`(select journal_mode from pragma_journal_mode)`,
    })
    .from(sql`(select 1)`)
  return row
}

describe('the connections to the logbook', () => {
  it('all write through to the disk before they answer, those of transactions too', async () => {
    const database = await newLogbook()
    const expected = { synchronous: 2, timeout: 5000, journal: 'wal' }
    // A transaction holds one connection, so that the questions beside it need others.
    await database.write(async (tx) => {
      expect(await settingsOf(tx)).toEqual(expected)
      const others = await Promise.all(Array.from({ length: 8 }, () => settingsOf(database.db)))
      expect(others).toEqual(Array(8).fill(expected))
    })
    await database.close()
  })

  it('never wait for each other: work that writes comes in turn, and what fails leaves nothing', async () => {
    const database = await newLogbook()
    const opened = openedEntry()
    await database.write((tx) => appendEntries(tx, [opened], { by: 'file', now: Date.now() }))
    const works = Array.from({ length: 30 }, (_, n) =>
      database.write(async (tx) => {
        await appendEntries(tx, [noteEntry(opened.id, `${n}`)], { by: 'file', now: Date.now() })
        // Others ask and want to write meanwhile.
        await new Promise((resolve) => setTimeout(resolve, 1))
        if (n % 3 === 0) throw new Error(`no ${n}`)
      }),
    )
    // One that waited for another of this thread would wait out its patience, and be refused as well.
    const outcomes = await Promise.allSettled(works)
    expect(outcomes.filter(({ status }) => status === 'rejected')).toHaveLength(10)
    const { entries } = await entryStore(database.db).since(opened.id, 0)
    expect(entries.flatMap((entry) => (entry.kind === 'note' ? Number(entry.text) : []))).toEqual(
      Array.from({ length: 30 }, (_, n) => n).filter((n) => n % 3 !== 0),
    )
    await database.close()
  })

  it('show a reader only what is committed', async () => {
    const database = await newLogbook()
    const opened = openedEntry()
    await database.write(async (tx) => {
      await appendEntries(tx, [opened], { by: 'file', now: Date.now() })
      expect(await entryStore(database.db).isEmpty()).toBe(true)
      expect(await entryStore(tx).isEmpty()).toBe(false)
    })
    expect(await entryStore(database.db).isEmpty()).toBe(false)
    await database.close()
  })
})

describe('an error of SQLite', () => {
  it('is known by its code through what the driver and the query builder put round it', async () => {
    const database = await newLogbook()
    const opened = openedEntry()
    const add = () =>
      database.write(async (tx) => {
        await tx.insert(table).values({ id: opened.id, setup: opened.id, body: '{}' })
      })
    await add()
    const error = await add().catch((refused: unknown) => refused)
    expect(sqliteCode(error)).toMatch(/^SQLITE_CONSTRAINT/)
    expect(sqliteCode(new Error('another', { cause: new Error('one') }))).toBeUndefined()
    await database.close()
  })
})

const logbooks = join(import.meta.dirname, '../testing/logbooks')
const unpacked = (path: string) => gunzipSync(readFileSync(join(logbooks, path)))

interface Said {
  setups: Record<string, Logged[]>
  reference: Record<string, unknown>
}

/** What rows have that they did not have when this was written: 'machines head: null'. */
function added(now: Said['reference'], then: Said['reference']): string[] {
  const of = (is: unknown, was: unknown, path: string): string[] => {
    if (is === null || typeof is !== 'object' || was === null || typeof was !== 'object') return []
    return Object.entries(is).flatMap(([key, value]) => {
      const name = Array.isArray(is) ? path : `${path}${path.includes(' ') ? '.' : ' '}${key}`
      return key in was
        ? of(value, (was as Record<string, unknown>)[key], name)
        : [`${name}: ${JSON.stringify(value)}`]
    })
  }
  return Object.entries(now).flatMap(([noun, rows]) => of(rows, then[noun], noun))
}

/** The same of the entries of logs: 'gripped seated: null'. */
const addedTo = (now: Said['setups'], then: Said['setups']) =>
  new Set(
    Object.entries(now).flatMap(([id, entries]) =>
      entries.flatMap((entry, n) => added({ [entry.kind]: entry }, { [entry.kind]: then[id]?.[n] })),
    ),
  )

async function sayOf(database: Database): Promise<Said> {
  return {
    setups: Object.fromEntries(await logsIn(database.db)),
    reference: { ...(await referenceStore(database.db).current()) },
  }
}

/**
 * A logbook of November 2026, written through the driver that was used then (better-sqlite3), and what that server said of it: the
 * demo, a machine that was edited, and a setup whose last entry was acknowledged a moment before the server was killed, so that it
 * stands only in the file beside (the write-ahead log).
 */
describe('a logbook of November 2026', () => {
  const said = JSON.parse(unpacked('2026-11/said.json.gz').toString()) as Said
  const last = Object.values(said.setups)
    .flat()
    .find((entry) => entry.kind === 'note' && /power went/.test(entry.text))

  it('whose update was ended just after the backup is brought up to date in the same second all the same', async () => {
    const file = join(newFolder(), 'log.sqlite')
    writeFileSync(file, unpacked('2026-11/logbook.sqlite.gz'))
    const folder = join(dirname(file), 'backups')
    const now = Date.UTC(2026, 11, 1, 9, 30)
    mkdirSync(folder)
    copyFileSync(file, newBackup(folder, file, now, 'before-update'))
    const database = await openDatabase(file, migrations, { makes: false, now })
    await database.close()
    expect(readdirSync(folder).sort()).toEqual([
      'log-before-update-2026-12-01-093000.sqlite',
      'log-before-update-2026-12-01-093001.sqlite',
    ])
  })

  it.each(['killed', 'closed'])('that was %s opens and says the same', async (ended) => {
    const file = join(newFolder(), 'log.sqlite')
    writeFileSync(file, unpacked('2026-11/logbook.sqlite.gz'))
    if (ended === 'killed') writeFileSync(`${file}-wal`, unpacked('2026-11/logbook-wal.gz'))
    const database = await openDatabase(file, migrations)
    // As it was, with all that stood in the file beside, it lies in a backup: before anything was changed in it.
    const [before] = readdirSync(join(dirname(file), 'backups'))
    expect(before).toMatch(/^log-before-update-.*\.sqlite$/)
    const copy = createClient({ url: `file:${join(dirname(file), 'backups', before ?? '')}` })
    const { rows } = await copy.execute('select count(*) as entries from entries')
    copy.close()
    expect(rows[0]?.entries).toBe(Object.values(said.setups).flat().length - (ended === 'killed' ? 0 : 1))
    const says = await sayOf(database)
    expect(says.reference).toMatchObject(said.reference)
    // What rows have got since then is not known of them, or is as controls usually have it.
    expect(new Set(added(says.reference, said.reference))).toEqual(
      new Set([
        'machines head: null',
        'machines turret: null',
        'machines rapidMarks: null',
        'machines xSpeeds: null',
        'machines dynamics.smoothing: null',
        'machines dynamics.spindleTimed: false',
        'machines secondHome: null',
        'machines shape: 2',
        'profiles reading.leftTap: null',
        'profiles reading.initialLevel: "before-first"',
        'profiles program.before: ""',
        'profiles setting: null',
        'profiles shape: 3',
        'profiles reading.driven: null',
        'profiles reading.threads: null',
        'profiles reading.threads: {"leads":1,"starts":false}',
        'profiles writesSince: 1',
        'tools onLathe.point: "corner"',
        'tools shape: 2',
        // The usual codes of each kind of control, how it usually compensates, and how positions are written.
        ...BUILT_IN_PROFILES.map(({ ownCodes }) => `profiles ownCodes: ${JSON.stringify(ownCodes)}`),
        ...BUILT_IN_PROFILES.flatMap(({ reading: { compensation, positions } }) => [
          `profiles reading.compensation: ${JSON.stringify(compensation)}`,
          `profiles reading.positions: ${JSON.stringify(positions)}`,
        ]),
      ]),
    )
    const kept = (entries: Logged[]) =>
      ended === 'killed' ? entries : entries.filter(({ id }) => id !== last?.id)
    expect(last).toBeDefined()
    const then = Object.fromEntries(Object.entries(said.setups).map(([id, entries]) => [id, kept(entries)]))
    expect(says.setups).toMatchObject(then)
    const sizes = (logs: Said['setups']) =>
      Object.fromEntries(Object.entries(logs).map(([id, { length }]) => [id, length]))
    expect(sizes(says.setups)).toEqual(sizes(then))
    // What entries have got since then was not asked.
    expect(addedTo(says.setups, then)).toEqual(new Set(['gripped seated: null', 'proved shape: 2']))
    // It is written on, closed, and opened again.
    const note = noteEntry(last?.setup ?? '', 'by the new driver')
    await database.write((tx) => appendEntries(tx, [note], { by: 'file', now: Date.now() }))
    await database.close()
    const again = await openDatabase(file, migrations)
    expect((await entryStore(again.db).since(last?.setup ?? '', 0)).entries.at(-1)).toEqual(note)
    await again.close()
  })
})
