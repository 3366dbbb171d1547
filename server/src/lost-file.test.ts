import {
  copyFileSync,
  existsSync,
  readFileSync,
  renameSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { noteEntry, openedEntry } from './testing/entries.ts'
import { newFolder, refusedStart } from './testing/process.ts'
import { ask, post, refusalOf, servers, stored } from './testing/shop.ts'

// A file that is not there, or is another, is never taken for a new shop, and nothing is acknowledged that is not in the file that
// others would find.

const { start, end, stop } = servers()
const LONG = 60_000

/** A shop that has worked for a while, and what was acknowledged. */
async function shop(notes = 20) {
  const file = join(newFolder(), 'log.sqlite')
  const server = await start(file)
  const opened = openedEntry()
  const entries = [opened, ...Array.from({ length: notes }, () => noteEntry(opened.id))]
  expect((await post(server.address, entries)).status).toBe(201)
  return { file, server, opened, ids: new Set(entries.map(({ id }) => id)) }
}

interface Board {
  board: {
    machines: { ready: string; setups: { id: string; unread: number }[] }[]
    unreadable: { id: string; says: string }[]
  }
}

const setNameless = { DOGLEG_NEW: '' }

describe('a logbook whose file goes away while the server runs', () => {
  const ways: [string, (file: string) => void][] = [
    ['is removed', (file) => rmSync(file)],
    ['is moved', (file) => renameSync(file, `${file}.moved`)],
    [
      'is put in the place of another',
      (file) => {
        copyFileSync(file, `${file}.copy`)
        renameSync(`${file}.copy`, file)
      },
    ],
    ['loses the file beside it', (file) => rmSync(`${file}-wal`)],
    [
      'is removed with the file beside it',
      (file) => {
        rmSync(file)
        rmSync(`${file}-wal`)
      },
    ],
  ]
  it.each(ways)(
    'acknowledges nothing once it %s, and says so to everybody',
    async (_how, happens) => {
      const { file, server, opened } = await shop()
      await ask(server.address, '/api/setups')
      happens(file)
      for (let n = 0; n < 5; n++) {
        const { status, code, says } = await refusalOf(await post(server.address, [noteEntry(opened.id)]))
        expect([status, code]).toEqual([503, 'logbook-gone'])
        expect(says).toMatch(/while Dogleg was running.*npm run restore/s)
      }
      const { alarm } = await ask<{ alarm: string }>(server.address, '/api/setups')
      expect(alarm).toMatch(/while Dogleg was running/)
    },
    LONG,
  )

  it(
    'goes on where the file is put back',
    async () => {
      const { file, server, opened, ids } = await shop()
      renameSync(file, `${file}.moved`)
      expect((await post(server.address, [noteEntry(opened.id)])).status).toBe(503)
      renameSync(`${file}.moved`, file)
      const later = noteEntry(opened.id)
      expect((await post(server.address, [later])).status).toBe(201)
      await end(server)
      const again = await start(file)
      expect(await stored(again.address, opened.id)).toEqual(new Set([...ids, later.id]))
    },
    LONG,
  )
})

describe('a start without the logbook that was there', () => {
  it(
    'is an alarm with a choice, and begins no other',
    async () => {
      const { file, server } = await shop()
      await stop(server)
      renameSync(file, `${file}.moved`)
      const { code, says } = await refusedStart(file)
      expect([code, says]).toEqual([
        2,
        expect.stringMatching(/is missing.*entries.*npm run restore.*remove/s),
      ])
      expect(existsSync(file)).toBe(false)
      renameSync(`${file}.moved`, file)
      await start(file)
    },
    LONG,
  )

  it(
    'by a name that was never begun asks first',
    async () => {
      const file = join(newFolder(), 'mistyped.sqlite')
      const { code, says } = await refusedStart(file, { settings: setNameless })
      expect([code, says]).toEqual([2, expect.stringMatching(/There is no logbook.*DOGLEG_NEW=empty/s)])
      expect(existsSync(file)).toBe(false)
    },
    LONG,
  )

  it(
    'finds the file beside alone, and leaves it as it is',
    async () => {
      const { file, server } = await shop()
      await end(server)
      rmSync(file)
      rmSync(`${file}-known.json`)
      const before = readFileSync(`${file}-wal`)
      expect(before.length).toBeGreaterThan(0)
      const { code, says } = await refusedStart(file)
      expect([code, says]).toEqual([2, expect.stringMatching(/the two belong together/)])
      expect(readFileSync(`${file}-wal`).equals(before)).toBe(true)
    },
    LONG,
  )

  it(
    'with another logbook in its place, or an older state of it, says so and leaves it as it is',
    async () => {
      const { file, server, opened } = await shop()
      await stop(server)
      const older = readFileSync(file)
      const again = await start(file)
      expect((await post(again.address, [noteEntry(opened.id)])).status).toBe(201)
      await stop(again)
      const newest = readFileSync(file)
      writeFileSync(file, older)
      const less = await refusedStart(file)
      expect(readFileSync(file).equals(older)).toBe(true)
      expect([less.code, less.says]).toEqual([2, expect.stringMatching(/has \d+ entries; on .* it had \d+/)])
      const other = await shop()
      await stop(other.server)
      copyFileSync(other.file, file)
      const before = readFileSync(file)
      const another = await refusedStart(file)
      expect(readFileSync(file).equals(before)).toBe(true)
      expect([another.code, another.says]).toEqual([2, expect.stringMatching(/is another than the one/)])
      writeFileSync(file, newest)
      await start(file)
    },
    LONG,
  )

  it(
    'fills no made-up shop into an empty file',
    async () => {
      const file = join(newFolder(), 'log.sqlite')
      writeFileSync(file, '')
      const server = await start(file)
      const { board } = await ask<{ board: { machines: unknown[] } }>(server.address, '/api/setups')
      expect(board.machines).toEqual([])
      expect(server.output()).not.toMatch(/made-up/)
    },
    LONG,
  )

  it(
    'takes no file whose end was cut off, and no made-up shop stands in its place',
    async () => {
      const { file, server } = await shop(200)
      await stop(server)
      truncateSync(file, 4096 * 3)
      const { code } = await refusedStart(file)
      expect(code).toBe(2)
    },
    LONG,
  )
})

describe('a second server on the same logbook', () => {
  it(
    'is refused with a sentence, by whatever name the file is called; the first goes on',
    async () => {
      const { file, server, opened } = await shop()
      const { code, says } = await refusedStart(file)
      expect([code, says]).toEqual([2, expect.stringMatching(/running on the logbook .* already/)])
      expect((await post(server.address, [noteEntry(opened.id)])).status).toBe(201)
      await end(server)
      // Killed, it leaves nothing behind that would keep out the next.
      await start(file)
    },
    LONG,
  )
})

/** Overwrites the page of the file on which a text stands, as a bad disk would. */
function damagePageOf(file: string, text: string) {
  const bytes = readFileSync(file)
  const at = bytes.indexOf(text)
  expect(at).toBeGreaterThan(0)
  const page = Math.floor(at / 4096) * 4096
  bytes.fill(0x5a, page, page + 4096)
  writeFileSync(file, bytes)
  return bytes
}

/** A setup's log as the server tells it: what is read of it, and what cannot be. */
async function logIn(address: string, setup: string) {
  const { entries } = await ask<{ entries: { kind: string; says?: string }[] }>(
    address,
    `/api/setups/${setup}/entries`,
  )
  return {
    read: entries.filter(({ kind }) => kind !== 'unread'),
    unread: entries.filter(({ kind }) => kind === 'unread'),
  }
}

describe('a logbook with a page that was overwritten', () => {
  it(
    'is shown as far as it can be read, says what is damaged, and is not written',
    async () => {
      const { file, server, opened } = await shop()
      const far = openedEntry()
      const notes = Array.from({ length: 400 }, (_, n) => noteEntry(far.id, `chips ${n} `.repeat(60)))
      expect((await post(server.address, [far, ...notes.slice(0, 200)])).status).toBe(201)
      expect((await post(server.address, notes.slice(200))).status).toBe(201)
      await stop(server)
      const bytes = damagePageOf(file, 'chips 250 ')
      const damaged = await start(file)
      expect(damaged.output()).toMatch(/is damaged: .*What can be read: \d+ of \d+ entries.*npm run restore/s)
      const { code, status } = await refusalOf(await post(damaged.address, [noteEntry(opened.id)]))
      expect([status, code]).toEqual([503, 'logbook-damaged'])
      // What can be read is shown; nothing of it counts as fresh.
      const { board } = await ask<Board>(damaged.address, '/api/setups')
      const shown = [...board.unreadable, ...board.machines.flatMap(({ setups }) => setups)]
      expect(shown.map(({ id }) => id)).toEqual(expect.arrayContaining([opened.id]))
      for (const { ready, setups } of board.machines) {
        if (setups.length > 0) expect(ready).not.toBe('done')
        for (const { unread } of setups) expect(unread).toBeGreaterThan(0)
      }
      const log = await logIn(damaged.address, opened.id)
      expect(log.read).toHaveLength(21)
      expect(log.unread).toMatchObject([{ says: expect.stringMatching(/may be missing/) }])
      const cut = await logIn(damaged.address, far.id)
      expect(cut.read.length).toBeGreaterThan(300)
      expect(cut.read.length).toBeLessThan(401)
      await stop(damaged)
      expect(readFileSync(file).equals(bytes)).toBe(true)
    },
    LONG,
  )
})
