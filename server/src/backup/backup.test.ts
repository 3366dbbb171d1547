import { copyFileSync, existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { noteEntry, openedEntry } from '../testing/entries.ts'
import { newFolder, refusedStart, runCommand as run } from '../testing/process.ts'
import { post, servers, stored } from '../testing/shop.ts'

const { start, end, stop } = servers()
const LONG = 60_000

async function shop() {
  const file = join(newFolder(), 'log.sqlite')
  const server = await start(file)
  const opened = openedEntry()
  const notes = Array.from({ length: 60 }, () => noteEntry(opened.id, 'kept '.repeat(40)))
  expect((await post(server.address, [opened, ...notes])).status).toBe(201)
  return { file, server, opened, ids: new Set([opened, ...notes].map(({ id }) => id)) }
}

describe('npm run backup', () => {
  it(
    'while the server runs and is written to, has every entry that was acknowledged before it',
    async () => {
      const { file, server, opened, ids } = await shop()
      let writes = true
      const writing = (async () => {
        while (writes) await post(server.address, [noteEntry(opened.id)])
      })()
      const copy = join(newFolder(), 'copy.sqlite')
      const { status, says } = run(file, 'backup', copy)
      writes = false
      await writing
      expect([status, says]).toEqual([0, expect.stringMatching(/setups, \d+ entries.*looked through/)])
      expect(readdirSync(dirname(copy))).toEqual(['copy.sqlite'])
      const again = await start(copy)
      const there = await stored(again.address, opened.id)
      expect([...ids].filter((id) => !there.has(id))).toEqual([])
      await end(again)
    },
    LONG,
  )

  it(
    'without a name goes beside the logbook, by its time',
    async () => {
      const { file } = await shop()
      const { status } = run(file, 'backup')
      expect(status).toBe(0)
      expect(readdirSync(join(dirname(file), 'backups'))).toEqual([
        expect.stringMatching(/^log-\d{4}-\d\d-\d\d-\d{6}\.sqlite$/),
      ])
    },
    LONG,
  )

  it(
    'writes over nothing, and says what it cannot copy',
    async () => {
      const { file } = await shop()
      const there = join(newFolder(), 'there.sqlite')
      writeFileSync(there, 'mine')
      expect(run(file, 'backup', there)).toEqual({ status: 2, says: expect.stringMatching(/there already/) })
      expect(readFileSync(there, 'utf8')).toBe('mine')
      expect(run(join(newFolder(), 'none.sqlite'), 'backup', `${there}.2`)).toEqual({
        status: 2,
        says: expect.stringMatching(/There is no logbook/),
      })
      writeFileSync(`${there}.letter`, 'a letter to the shop '.repeat(300))
      const other = run(`${there}.letter`, 'backup', `${there}.3`)
      expect([other.status, existsSync(`${there}.3`)]).toEqual([2, false])
    },
    LONG,
  )
})

describe('npm run restore', () => {
  it(
    'puts a backup in the place of the logbook, and keeps all that stood there',
    async () => {
      const { file, server, opened, ids } = await shop()
      const copy = join(newFolder(), 'copy.sqlite')
      expect(run(file, 'backup', copy).status).toBe(0)
      const later = noteEntry(opened.id, 'after the backup')
      await post(server.address, [later])
      // Killed: what came last stands in the file beside, which does not fit the backup.
      await end(server)
      const { status, says } = run(file, 'restore', copy)
      expect([status, says]).toEqual([0, expect.stringMatching(/What stood there is kept in /)])
      const again = await start(file)
      expect(await stored(again.address, opened.id)).toEqual(ids)
      await stop(again)
      const aside = /kept in (\S+)\. Start/.exec(says)?.[1] ?? ''
      const before = await start(join(aside, 'log.sqlite'))
      expect(await stored(before.address, opened.id)).toEqual(new Set([...ids, later.id]))
      await end(before)
    },
    LONG,
  )

  it(
    'where the logbook is lost gives it back, and a start takes it',
    async () => {
      const { file, server, opened, ids } = await shop()
      const copy = join(newFolder(), 'copy.sqlite')
      run(file, 'backup', copy)
      await stop(server)
      const moved = join(newFolder(), 'away')
      mkdirSync(moved)
      copyFileSync(file, join(moved, 'log.sqlite'))
      writeFileSync(file, 'a letter to the shop '.repeat(300))
      expect((await refusedStart(file)).code).toBe(2)
      expect(run(file, 'restore', copy).status).toBe(0)
      const again = await start(file)
      expect(await stored(again.address, opened.id)).toEqual(ids)
      await end(again)
    },
    LONG,
  )

  it(
    'does nothing while a server runs, from what is no backup, or from a damaged one',
    async () => {
      const { file, server, opened, ids } = await shop()
      const copy = join(newFolder(), 'copy.sqlite')
      run(file, 'backup', copy)
      expect(run(file, 'restore', copy)).toEqual({
        status: 2,
        says: expect.stringMatching(/running on the logbook/),
      })
      await stop(server)
      const before = readFileSync(file)
      const bytes = readFileSync(copy)
      bytes.fill(0x5a, 4096 * 4, 4096 * 5)
      const damaged = join(newFolder(), 'damaged.sqlite')
      writeFileSync(damaged, bytes)
      const letter = join(newFolder(), 'letter.txt')
      writeFileSync(letter, 'a letter to the shop '.repeat(300))
      for (const bad of [damaged, letter, join(newFolder(), 'none'), file, '']) {
        const { status, says } = run(file, 'restore', bad)
        expect([bad, status, says]).toEqual([bad, 2, expect.not.stringMatching(/ at .*\.js/)])
      }
      expect(readFileSync(file).equals(before)).toBe(true)
      const again = await start(file)
      expect(await stored(again.address, opened.id)).toEqual(ids)
      await end(again)
    },
    LONG,
  )
})
