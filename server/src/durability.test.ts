import { spawnSync } from 'node:child_process'
import { chmodSync, copyFileSync, mkdirSync, readFileSync, rmSync, statfsSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { createClient } from '@libsql/client/sqlite3'
import { ulid } from 'ulid'
import { afterAll, describe, expect, it } from 'vitest'
import { times } from '../../core/testing/depth.ts'
import { noteEntry, openedEntry } from './testing/entries.ts'
import { setupFileOf } from './testing/files.ts'
import { newFolder, refusedStart, type Started } from './testing/process.ts'
import { post, refusalOf, servers, stored } from './testing/shop.ts'

const { start, end, stop } = servers()

/** Writes from four tablets at once until the server is gone; returns the ids that it acknowledged. */
async function writeUntilKilled(server: Started, setup: string, killAfter: number): Promise<string[]> {
  const acknowledged: string[] = []
  const tablet = async () => {
    for (;;) {
      const entry = noteEntry(setup)
      const response = await post(server.address, [entry]).catch(() => undefined)
      if (!response?.ok) return
      acknowledged.push(entry.id)
      if (acknowledged.length === killAfter) void end(server)
    }
  }
  await Promise.all([tablet(), tablet(), tablet(), tablet()])
  return acknowledged
}

/** How many entries are acknowledged before each end. */
const KILLED_AFTER = Array.from({ length: times(3, 100) }, (_, n) => [3, 20, 57][n % 3] ?? 3)

describe('kill -9 in the middle of writes', () => {
  it('loses no acknowledged entry', async () => {
    const file = join(newFolder(), 'log.sqlite')
    const opened = openedEntry()
    const promised: string[] = [opened.id]
    let server = await start(file)
    expect((await post(server.address, [opened])).status).toBe(201)
    for (const killAfter of KILLED_AFTER) {
      promised.push(...(await writeUntilKilled(server, opened.id, killAfter)))
      server = await start(file)
      const kept = await stored(server.address, opened.id)
      expect(promised.filter((id) => !kept.has(id))).toEqual([])
    }
    expect(promised.length).toBeGreaterThan(80)
  }, 600_000)
})

describe('the file of a Dogleg that was stopped', () => {
  it('is the whole logbook, and can be copied', async () => {
    const file = join(newFolder(), 'log.sqlite')
    const server = await start(file)
    const opened = openedEntry()
    const notes = Array.from({ length: 50 }, () => noteEntry(opened.id, 'kept '.repeat(40)))
    expect((await post(server.address, [opened, ...notes])).status).toBe(201)
    expect(await stop(server)).toBe(0)
    const copy = join(newFolder(), 'copy.sqlite')
    copyFileSync(file, copy)
    const again = await start(copy)
    expect(await stored(again.address, opened.id)).toEqual(new Set([opened, ...notes].map(({ id }) => id)))
    await end(again)
  }, 30_000)
})

describe('a logbook file that cannot be used', () => {
  const ownFile = async () => {
    const file = join(newFolder(), 'log.sqlite')
    await end(await start(file))
    return file
  }

  it('from a newer version is left as it is', async () => {
    const file = await ownFile()
    const client = createClient({ url: pathToFileURL(file).href })
    await client.execute(
      "insert into __drizzle_migrations (hash, created_at) values ('later', 99999999999999)",
    )
    await client.execute('pragma wal_checkpoint(TRUNCATE)')
    client.close()
    const before = readFileSync(file)
    const { code, says } = await refusedStart(file)
    expect([code, says]).toEqual([2, expect.stringMatching(/newer Dogleg.*Update Dogleg/)])
    expect(readFileSync(file).equals(before)).toBe(true)
  }, 30_000)

  it('that is no database is left as it is', async () => {
    const file = join(newFolder(), 'log.sqlite')
    writeFileSync(file, 'a letter to the shop '.repeat(100))
    const { code, says } = await refusedStart(file)
    expect([code, says]).toEqual([2, expect.stringMatching(/not a Dogleg logbook/)])
    expect(readFileSync(file, 'utf8')).toMatch(/^a letter/)
  }, 30_000)

  it('that is damaged is left as it is', async () => {
    const file = await ownFile()
    // The first page says what tables there are; its head still says that this is SQLite.
    const bytes = readFileSync(file)
    bytes.fill(0x5a, 100, 4096)
    writeFileSync(file, bytes)
    rmSync(`${file}-wal`, { force: true })
    const { code, says } = await refusedStart(file)
    expect([code, says]).toEqual([2, expect.stringMatching(/not a Dogleg logbook, or is damaged/)])
    expect(readFileSync(file).equals(bytes)).toBe(true)
  }, 30_000)

  it('in a place where there can be none says so', async () => {
    const file = join(newFolder(), 'log.sqlite')
    mkdirSync(file)
    expect(await refusedStart(file)).toEqual({ code: 2, says: expect.stringMatching(/cannot be opened/) })
  }, 30_000)

  it.runIf(process.getuid?.() === 0)(
    'that is read-only can be looked at, and an addition gets a sentence',
    async () => {
      const folder = newFolder()
      const file = join(folder, 'log.sqlite')
      const opened = openedEntry()
      const first = await start(file)
      await post(first.address, [opened])
      await stop(first)
      chmodSync(folder, 0o777)
      chmodSync(file, 0o444)
      const server = await start(file, { uid: 65534 })
      expect(server.output()).toMatch(/cannot be written/)
      expect(await stored(server.address, opened.id)).toEqual(new Set([opened.id]))
      const refused = await post(server.address, [noteEntry(opened.id)])
      expect(refused.status).toBe(503)
      expect(await refused.json()).toMatchObject({
        error: { code: 'logbook-unwritable', says: expect.stringMatching(/kept on this tablet/) },
      })
    },
    30_000,
  )
})

/** A small disk of its own, where this user may make one. */
function smallDisk(size: string): string | undefined {
  const folder = newFolder()
  if (process.getuid?.() !== 0 || process.platform !== 'linux') return undefined
  const { status } = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${size}`, 'tmpfs', folder])
  return status === 0 ? folder : undefined
}
const disk = smallDisk('2m')
afterAll(() => {
  if (disk) spawnSync('umount', [disk])
})

/** The file of a setup with what could not be read where it was made. */
const fileOf = (
  opened: ReturnType<typeof openedEntry>,
  unread: { id: string; at: string; raw: string }[],
) => ({
  ...setupFileOf([opened], opened.machine.id),
  ...(unread.length > 0 ? { version: 2, unread } : {}),
})
const postFile = (address: string, file: object) =>
  fetch(`${address}/api/setup-files`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(file),
  })

describe.runIf(disk)('a full disk', () => {
  it('refuses with a sentence, keeps all that was acknowledged, and takes it again when there is room', async () => {
    const folder = disk as string
    const server = await start(join(folder, 'log.sqlite'))
    const opened = openedEntry()
    expect((await post(server.address, [opened])).status).toBe(201)
    const ballast = join(folder, 'ballast')
    const { bavail, bsize } = statfsSync(folder)
    writeFileSync(ballast, Buffer.alloc(Math.max(0, bavail - 40) * bsize, 1))
    const promised = [opened.id]
    let refused: Response | undefined
    while (!refused && promised.length < 400) {
      const entries = Array.from({ length: 5 }, () => noteEntry(opened.id, 'chips '.repeat(60)))
      const answer = await post(server.address, entries)
      if (answer.ok) promised.push(...entries.map(({ id }) => id))
      else refused = answer
    }
    expect(refused?.status).toBe(503)
    expect(await refused?.json()).toMatchObject({
      error: { code: 'logbook-unwritable', says: expect.stringMatching(/kept on this tablet/) },
    })
    // What was refused is not there by half; what was acknowledged is, and can still be read.
    expect(await stored(server.address, opened.id)).toEqual(new Set(promised))
    rmSync(ballast)
    const later = noteEntry(opened.id, 'there is room again')
    expect((await post(server.address, [later])).status).toBe(201)
    await end(server)
    const again = await start(join(folder, 'log.sqlite'))
    expect(await stored(again.address, opened.id)).toEqual(new Set([...promised, later.id]))
    await end(again)
  }, 30_000)

  it('takes a setup in whole or not at all, says why, and takes it when there is room', async () => {
    const folder = disk as string
    const server = await start(join(folder, 'taken.sqlite'))
    const opened = openedEntry()
    const lost = Array.from({ length: 30 }, () => ({
      id: ulid(),
      at: opened.at,
      raw: JSON.stringify({ ...noteEntry(opened.id, 'chips '.repeat(15_000)), kind: 'scanned' }),
    }))
    const take = () => postFile(server.address, fileOf(opened, lost))
    const refused = await take()
    expect(await refusalOf(refused)).toMatchObject({
      status: 503,
      code: 'logbook-unwritable',
      says: expect.stringMatching(/Check the disk/),
    })
    expect(await stored(server.address, opened.id)).toEqual(new Set())
    // It goes on with what fits, and takes the rest on a larger disk.
    expect((await postFile(server.address, fileOf(openedEntry(), []))).status).toBe(201)
    spawnSync('mount', ['-o', 'remount,size=20m', folder])
    expect((await take()).status).toBe(201)
    expect(await stored(server.address, opened.id)).toEqual(new Set([opened.id, ...lost.map(({ id }) => id)]))
    await end(server)
  }, 30_000)

  it('with no room for a logbook says so before it serves', async () => {
    const folder = disk as string
    const ballast = join(folder, 'ballast')
    const { bavail, bsize } = statfsSync(folder)
    writeFileSync(ballast, Buffer.alloc(bavail * bsize, 1))
    const { code, says } = await refusedStart(join(folder, 'other.sqlite'))
    expect([code, says]).toEqual([2, expect.stringMatching(/disk .*full/)])
    rmSync(ballast)
  }, 30_000)
})
