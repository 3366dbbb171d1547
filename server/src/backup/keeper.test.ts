import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { afterEach, describe, expect, it } from 'vitest'
import { type Database, openDatabase } from '../database/open.ts'
import { fillDemo } from '../demo.ts'
import { newFolder } from '../testing/process.ts'
import { startThreads, type Threads } from '../threads/threads.ts'
import { readContents } from './copy.ts'
import { type BackupKeeper, backupKeeper } from './keeper.ts'

const migrations = join(import.meta.dirname, '../../migrations')
const DAY = 86_400_000
/** What is in a folder; nothing where a busy machine had not even made it before it was stopped. */
const filesIn = (folder: string) => (existsSync(folder) ? readdirSync(folder) : [])
const ends: (() => Promise<unknown>)[] = []
afterEach(async () => {
  for (const end of ends.splice(0).reverse()) await end()
})

/** A keeper on a logbook with the demo; its clock can be set. */
async function shop({ days = 14, damaged = false, spoil = (threads: Threads): Threads => threads } = {}) {
  const database: Database = await openDatabase(join(newFolder(), 'log.sqlite'), migrations)
  await fillDemo(database, Date.now())
  const threads = startThreads()
  const time = { now: new Date(2026, 10, 25, 8, 0).getTime() }
  const folder = join(dirname(database.file), 'kept-here')
  const keeper = backupKeeper({
    file: database.file,
    logbook: database.logbook,
    damaged,
    plan: { folder, days, months: 12 },
    threads: spoil(threads),
    clock: () => time.now,
  })
  ends.push(
    () => database.close(),
    () => threads.close(),
    () => keeper.end(),
  )
  return { keeper, folder, time, database }
}

async function done(keeper: BackupKeeper) {
  for (;;) {
    const state = await keeper.state()
    if (state.running === undefined) return state
    await new Promise((resolve) => setTimeout(resolve, 20))
  }
}

describe('backups', () => {
  it('are made each night by themselves, whole, and once', async () => {
    const { keeper, folder, time, database } = await shop()
    keeper.look()
    expect((await keeper.state()).running).toBe('night')
    const state = await done(keeper)
    expect(state.failed).toBeUndefined()
    expect(state.made).toMatchObject([{ why: 'night', at: new Date(time.now).toISOString() }])
    const contents = await readContents(join(folder, state.made[0]?.name ?? ''))
    expect(contents).toMatchObject({ logbook: database.logbook, entries: expect.any(Number) })
    expect(contents.entries).toBeGreaterThan(100)
    keeper.look()
    expect((await keeper.state()).running).toBeUndefined()
    time.now += DAY
    keeper.look()
    expect((await done(keeper)).made).toHaveLength(2)
    // In their folder is nothing else.
    expect(readdirSync(folder)).toHaveLength(2)
  })

  it('are made when somebody asks, and none where one is being made; none by itself where none is wanted', async () => {
    const { keeper } = await shop({ days: 0 })
    keeper.look()
    expect((await keeper.state()).running).toBeUndefined()
    await Promise.all([keeper.begin(), keeper.begin()])
    expect((await keeper.state()).running).toBe('asked')
    expect((await done(keeper)).made).toMatchObject([{ why: 'asked' }])
  })

  it('can be stopped, and nothing half made is left', async () => {
    const { keeper, folder } = await shop()
    await keeper.begin()
    keeper.stop()
    const state = await done(keeper)
    expect([state.made, state.failed]).toEqual([[], undefined])
    await new Promise((resolve) => setTimeout(resolve, 300))
    expect(filesIn(folder)).toEqual([])
  })

  it('can be stopped at any moment of it: the server goes on, and the next one is whole', {
    timeout: 60_000,
  }, async () => {
    const { keeper, folder, time } = await shop()
    for (let wait = 0; wait < 600; wait += 50) {
      await keeper.begin()
      await new Promise((resolve) => setTimeout(resolve, wait))
      keeper.stop()
      await done(keeper)
      time.now += 1000
    }
    expect(filesIn(folder).filter((name) => !name.endsWith('.sqlite'))).toEqual([])
    await keeper.begin()
    const { made, failed } = await done(keeper)
    expect(failed).toBeUndefined()
    expect((await readContents(join(folder, made[0]?.name ?? ''))).entries).toBeGreaterThan(100)
  })

  it('that cannot be made say why, are tried again, and warn once there is none of the week', async () => {
    const { keeper, folder, time } = await shop()
    // A file lies where the folder should be.
    writeFileSync(folder, 'in the way')
    keeper.look()
    const { failed, made } = await done(keeper)
    expect(made).toEqual([])
    expect(failed?.says).toMatch(/could not be copied/)
    keeper.look()
    expect((await keeper.state()).running).toBeUndefined()
    time.now += 4 * 3_600_000
    keeper.look()
    expect((await keeper.state()).running).toBe('night')
    await done(keeper)
    time.now = Date.now() + 8 * DAY
    expect((await keeper.warnings()).join(' ')).toMatch(
      /no backup of this week: there is none at all.*could not be copied/,
    )
  })

  it('warn of an old one by its day, and of none that is young', async () => {
    const { keeper, folder, time } = await shop()
    mkdirSync(folder)
    time.now = Date.UTC(2027, 0, 20, 12)
    writeFileSync(join(folder, 'log-night-2027-01-11-020000.sqlite'), 'x')
    expect((await keeper.warnings()).join(' ')).toMatch(
      /no backup of this week: the last one is of 2027-01-11/,
    )
    writeFileSync(join(folder, 'log-2027-01-19-020000.sqlite'), 'x')
    expect(await keeper.warnings()).toEqual([])
    // One that is still being made is none.
    writeFileSync(join(folder, 'log-night-2027-01-20-020000.sqlite.part'), 'x')
    expect((await keeper.state()).made).toHaveLength(2)
  })

  it('of a damaged logbook are not made, and put none of the good ones out', async () => {
    const { keeper } = await shop({ damaged: true })
    keeper.look()
    expect((await keeper.state()).running).toBeUndefined()
    await keeper.begin()
    expect((await done(keeper)).failed?.says).toMatch(/damaged/)
  })
})
