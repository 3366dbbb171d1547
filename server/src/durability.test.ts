import { spawnSync } from 'node:child_process'
import { chmodSync, copyFileSync, mkdirSync, readFileSync, rmSync, statfsSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import type { Entry } from '@dogleg/core/setup'
import { createClient } from '@libsql/client/sqlite3'
import { afterAll, afterEach, describe, expect, it } from 'vitest'
import { noteEntry, openedEntry } from './testing/entries.ts'
import { kill, newFolder, refusedStart, type Started, startServer } from './testing/process.ts'

const running = new Set<Started>()
const start = async (file: string, uid?: number) => {
  const server = await startServer(file, uid === undefined ? {} : { uid })
  running.add(server)
  return server
}
const end = async (server: Started) => {
  running.delete(server)
  await kill(server)
}
afterEach(() => Promise.all([...running].map(end)))

const post = (address: string, entries: Entry[]) =>
  fetch(`${address}/api/entries`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ entries }),
  })

const stored = async (address: string, setup: string) => {
  const { entries } = (await (await fetch(`${address}/api/setups/${setup}/entries`)).json()) as {
    entries: Entry[]
  }
  return new Set(entries.map(({ id }) => id))
}

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

describe('kill -9 in the middle of writes', () => {
  it('loses no acknowledged entry', async () => {
    const file = join(newFolder(), 'log.sqlite')
    const opened = openedEntry()
    const promised: string[] = [opened.id]
    let server = await start(file)
    expect((await post(server.address, [opened])).status).toBe(201)
    for (const killAfter of [3, 20, 57]) {
      promised.push(...(await writeUntilKilled(server, opened.id, killAfter)))
      server = await start(file)
      const kept = await stored(server.address, opened.id)
      expect(promised.filter((id) => !kept.has(id))).toEqual([])
    }
    expect(promised.length).toBeGreaterThan(80)
  }, 60_000)
})

describe('a backup as the README says', () => {
  it('is the one file, copied when Dogleg was stopped: all entries are in it', async () => {
    const file = join(newFolder(), 'log.sqlite')
    const server = await start(file)
    const opened = openedEntry()
    const notes = Array.from({ length: 50 }, () => noteEntry(opened.id, 'kept '.repeat(40)))
    expect((await post(server.address, [opened, ...notes])).status).toBe(201)
    running.delete(server)
    const ended = new Promise((resolve) => server.child.once('exit', resolve))
    server.child.kill('SIGTERM')
    expect(await ended).toBe(0)
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
      first.child.kill('SIGTERM')
      await new Promise((resolve) => first.child.once('exit', resolve))
      running.delete(first)
      chmodSync(folder, 0o777)
      chmodSync(file, 0o444)
      const server = await start(file, 65534)
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
