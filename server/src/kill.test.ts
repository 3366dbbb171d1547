import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import Sqlite from 'libsql'
import { expect, it } from 'vitest'
import { times } from '../../core/testing/depth.ts'
import { openDatabase } from './database/open.ts'
import { anyEntry, noteEntry, openedEntry } from './testing/entries.ts'
import { dice } from './testing/histories.ts'
import { killAfter, newFolder } from './testing/process.ts'
import { ask, post, servers } from './testing/shop.ts'
import { digestOf, openToRead } from './whole/rows.ts'

// kill -9 at any moment: in the middle of writes, of backups, and of a file being brought up to date. What was acknowledged is there, once,
// and whatever is called a backup is whole. In `npm run test:thorough` a thousand times.

const { start, end } = servers()
const migrations = join(import.meta.dirname, '../migrations')

/** The ids of all entries in a file, each as often as it stands there. */
function idsIn(file: string): string[] {
  const db = openToRead(file)
  const ids = (db.prepare('select id from entries').all() as { id: string }[]).map(({ id }) => id)
  db.close()
  return ids
}

/** Backups that lie in a folder; what is half made has another name. */
const backupsOf = (folder: string) =>
  existsSync(folder) ? readdirSync(folder).filter((name) => name.endsWith('.sqlite')) : []

/** Holds a backup against the logbook that it is of, which may have gone on since. */
function expectWhole(backup: string, of: string) {
  const [made, source] = [openToRead(backup), openToRead(of)]
  try {
    expect(made.prepare('pragma integrity_check').all()).toEqual([{ integrity_check: 'ok' }])
    const has = digestOf(made)
    const should = digestOf(source, has)
    expect([has.logbook, has.entries, has.others]).toEqual([should.logbook, should.entries, should.others])
    for (const [setup, log] of should.logs) expect(has.logs.get(setup)).toBe(log)
  } finally {
    made.close()
    source.close()
  }
}

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))

const WRITES = times(4, 700)
const A_LOGBOOK = 20
it(
  `${WRITES} ends in the middle of writes and backups lose nothing that was acknowledged, and leave no half backup`,
  async () => {
    const roll = dice(27)
    let file = ''
    let folder = ''
    let opened = openedEntry()
    let promised = new Set<string>()
    let checked = new Set<string>()
    let [acknowledged, backups] = [0, 0]
    /** All that was promised of a logbook is read by the server, too. */
    const readAll = async () => {
      const server = await start(file)
      const { entries } = await ask<{ entries: { id: string; kind: string }[] }>(
        server.address,
        `/api/setups/${opened.id}/entries`,
      )
      await end(server)
      const read = new Set(entries.filter(({ kind }) => kind !== 'unread').map(({ id }) => id))
      expect([...promised].filter((id) => !read.has(id))).toEqual([])
      acknowledged += promised.size
      backups += checked.size
      rmSync(join(file, '..'), { recursive: true })
    }
    for (let n = 0; n < WRITES; n++) {
      // A logbook that is ended so often has grown, and so have its backups: then another is begun.
      if (n % A_LOGBOOK === 0) {
        if (n > 0) await readAll()
        file = join(newFolder(), 'log.sqlite')
        folder = join(file, '../backups')
        opened = openedEntry()
        promised = new Set()
        checked = new Set()
      }
      const server = await start(file)
      if (promised.size === 0) {
        expect((await post(server.address, [opened])).status).toBe(201)
        promised.add(opened.id)
      }
      let going = true
      const tablet = async (which: number) => {
        while (going) {
          const text = `O${which}\n${'G1 X1. Y2.\n'.repeat(100 + Math.floor(roll() * 100))}M30\n`
          const entries = [
            noteEntry(opened.id),
            anyEntry(opened.id, {
              kind: 'program',
              offset: 'G54',
              rests: [],
              profile: { id: 'compact', version: 1 },
              machine: { id: 'mill-1', version: 1 },
              how: 'copied',
              text,
            }),
          ] as unknown as Parameters<typeof post>[1]
          const response = await post(server.address, entries).catch(() => undefined)
          if (!response?.ok) return
          for (const { id } of entries) promised.add(id)
        }
      }
      const backing = async () => {
        while (going) {
          await fetch(`${server.address}/api/backups`, {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: '{}',
          }).catch(() => undefined)
          await wait(30)
        }
      }
      const work = [tablet(1), tablet(2), tablet(3), tablet(4), backing()]
      // Now and then long enough that a backup is done.
      await wait(n % 4 === 3 ? 1000 + roll() * 2000 : roll() * 600)
      await end(server)
      going = false
      await Promise.all(work)
      const ids = idsIn(file)
      const there = new Set(ids)
      expect(there.size).toBe(ids.length)
      expect([...promised].filter((id) => !there.has(id))).toEqual([])
      for (const name of backupsOf(folder)) {
        if (checked.has(name)) continue
        expectWhole(join(folder, name), file)
        checked.add(name)
      }
    }
    await readAll()
    expect(acknowledged).toBeGreaterThan(4 * WRITES)
    expect(backups).toBeGreaterThan(0)
  },
  WRITES * 6000 + 60_000,
)

/** A logbook as an earlier Dogleg left it, whose file is to be brought up to date. */
async function oldLogbook(file: string): Promise<string[]> {
  const folder = newFolder()
  const journal = JSON.parse(readFileSync(join(migrations, 'meta/_journal.json'), 'utf8')) as {
    entries: { tag: string }[]
  }
  const entries = journal.entries.slice(0, 3)
  mkdirSync(join(folder, 'meta'))
  writeFileSync(join(folder, 'meta/_journal.json'), JSON.stringify({ ...journal, entries }))
  for (const { tag } of entries) copyFileSync(join(migrations, `${tag}.sql`), join(folder, `${tag}.sql`))
  const database = await openDatabase(file, folder)
  await database.close()
  const db = new Sqlite(file)
  const add = db.prepare('insert into entries (id, setup, body) values (?, ?, ?)')
  const ids: string[] = []
  for (let n = 0; n < 40; n++) {
    const opened = openedEntry()
    for (const entry of [
      opened,
      ...Array.from({ length: 40 }, () => noteEntry(opened.id, 'chips '.repeat(30))),
    ]) {
      add.run(entry.id, entry.setup, JSON.stringify(entry))
      ids.push(entry.id)
    }
  }
  db.exec('pragma wal_checkpoint(TRUNCATE)')
  db.close()
  return ids
}

const UPDATES = times(3, 300)
it(
  `${UPDATES} ends while a file is brought up to date leave it as it was or as it will be, and the backup before it whole`,
  async () => {
    const roll = dice(28)
    const template = join(newFolder(), 'log.sqlite')
    const ids = await oldLogbook(template)
    let backups = 0
    for (let n = 0; n < UPDATES; n++) {
      const file = join(newFolder(), 'log.sqlite')
      copyFileSync(template, file)
      await killAfter(file, roll() * 900)
      const server = await start(file)
      await end(server)
      expect(idsIn(file)).toEqual(ids)
      const folder = join(file, '../backups')
      for (const name of backupsOf(folder)) {
        backups++
        expectWhole(join(folder, name), template)
      }
      rmSync(join(file, '..'), { recursive: true })
    }
    expect(backups).toBeGreaterThanOrEqual(UPDATES)
  },
  UPDATES * 8000 + 60_000,
)
