import { existsSync, readdirSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { demoName, isDemo } from '@dogleg/core/api'
import { firstMachine, firstTools } from '@dogleg/core/begin'
import { describe, expect, it } from 'vitest'
import { wasHere } from '../database/known.ts'
import { openDatabase } from '../database/open.ts'
import { entryStore } from '../entries/store.ts'
import { referenceStore } from '../reference/store.ts'
import { openedEntry } from '../testing/entries.ts'
import { newFolder, refusedStart, runCommand } from '../testing/process.ts'
import { ask, post, servers } from '../testing/shop.ts'
import { makeOwnShop } from './own-shop.ts'

const { start, stop } = servers()
const LONG = 60_000
const migrations = join(import.meta.dirname, '../../migrations')
const machine = firstMachine('own-mill', {
  name: 'Bench mill',
  kind: 'mill',
  unit: 'mm',
  travels: { X: 500, Y: 300, Z: 400 },
  profileId: 'plain',
})
const tools = firstTools(machine, (number) => `own-t${number}`)
const rows = { machines: [machine], tools }
const asks = { settings: { DOGLEG_NEW: 'ask' } }

interface ShopTold {
  logbook: string
  begins?: true
  file: string
}
interface BoardTold {
  board: { machines: { name: string; setups: unknown[] }[] }
}
const shopOf = (address: string) => ask<ShopTold>(address, '/api/shop')
const setUp = (address: string, body: object = rows) =>
  fetch(`${address}/api/own-shop`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })
/** Until the server shows the own shop: meanwhile it may answer nothing, or that it is closing. */
async function ownShown(address: string): Promise<ShopTold> {
  for (;;) {
    const shop: Partial<ShopTold> | undefined = await shopOf(address).catch(() => undefined)
    if (shop?.logbook !== undefined && !isDemo(shop.logbook)) return shop as ShopTold
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
}

describe('an own shop', () => {
  it(
    'is shown from the moment that it is set up, at the same address, with nothing of the demo; a start finds it',
    async () => {
      const file = join(newFolder(), 'log.sqlite')
      const server = await start(file, asks)
      const { address } = server
      expect(await shopOf(address)).toMatchObject({ begins: true, file: join(dirname(file), 'demo.sqlite') })
      expect((await ask<BoardTold>(address, '/api/setups')).board.machines).toHaveLength(3)
      expect(existsSync(file)).toBe(false)
      const [one, other] = await Promise.all([setUp(address, { ...rows, by: 'RT' }), setUp(address)])
      const statuses = [one.status, other.status].sort()
      expect(statuses).toEqual([201, 409])
      const shop = await ownShown(address)
      expect(shop).toMatchObject({ file })
      expect(shop.begins).toBeUndefined()
      const { board } = await ask<BoardTold>(address, '/api/setups')
      expect(board.machines.map(({ name, setups }) => [name, setups])).toEqual([['Bench mill', []]])
      // What is recorded now is in it, and stays over a start.
      const opened = { ...openedEntry(), machine: { id: 'own-mill', version: 1 } }
      expect((await post(address, [opened])).status).toBe(201)
      await stop(server)
      const again = await start(file, asks)
      expect(await shopOf(again.address)).toMatchObject({ logbook: shop.logbook, file })
      expect((await setUp(again.address)).status).toBe(409)
      await stop(again)
      const database = await openDatabase(file, migrations)
      expect((await entryStore(database.db).since(opened.id, 0)).entries).toHaveLength(1)
      const reference = await referenceStore(database.db).current()
      expect(reference.machines).toEqual([machine])
      expect(reference.tools).toEqual([...tools].sort((a, b) => (a.id < b.id ? -1 : 1)))
      expect(reference.profiles.map(({ id }) => id).sort()).toEqual(['compact', 'plain', 'two-line'])
      expect(JSON.stringify(reference)).not.toMatch(/Mill 1|Lathe 1|Fourth axis/)
      await database.close()
    },
    LONG,
  )

  it(
    'that was there is never taken for none: its loss is an alarm, and no demo is shown in its place',
    async () => {
      const file = join(newFolder(), 'log.sqlite')
      await makeOwnShop(file, migrations, rows, { at: Date.now() })
      await stop(await start(file, asks))
      const { rmSync } = await import('node:fs')
      rmSync(file)
      expect(wasHere(file)).toBe(true)
      expect(await refusedStart(file, asks)).toEqual({ code: 2, says: expect.stringMatching(/is missing/) })
    },
    LONG,
  )

  it('is not made of rows that cannot be, nor over another; nothing half is left', async () => {
    const file = join(newFolder(), 'log.sqlite')
    const make = (of: Partial<typeof rows>) =>
      makeOwnShop(file, migrations, { ...rows, ...of }, { at: Date.now() }).then(
        () => 'made',
        (error: { code: string }) => error.code,
      )
    const [tool] = tools
    if (!tool) throw new Error('There are no tools.')
    expect(await make({ machines: [{ ...machine, profileId: 'none' }] })).toBe('profile-unknown')
    expect(await make({ tools: [{ ...tool, machineId: 'none' }] })).toBe('machine-unknown')
    expect(await make({ tools: [tool, { ...tool, id: 'twin' }] })).toBe('number-taken')
    expect(await make({ machines: [machine, machine] })).toBe('id-taken')
    expect(readdirSync(dirname(file))).toEqual([])
    expect(await make({})).toBe('made')
    expect(await make({})).toBe('own-shop-there')
    expect(readdirSync(dirname(file)).filter((each) => each.includes('begun'))).toEqual([])
  })

  it(
    'is begun again only after it was asked twice, and what stood there is kept, with a backup',
    async () => {
      const file = join(newFolder(), 'log.sqlite')
      expect(runCommand(file, 'begin-again')).toEqual({
        status: 2,
        says: expect.stringMatching(/no logbook/),
      })
      await makeOwnShop(file, migrations, rows, { at: Date.now() })
      const typing = (...lines: string[]) =>
        runCommand(file, { typed: `${lines.join('\n')}\n` }, 'begin-again')
      for (const typed of [[], ['yes'], ['begin again'], ['begin again', '7'], ['0', 'begin again']]) {
        expect(typing(...typed)).toEqual({ status: 2, says: expect.stringMatching(/Nothing was changed/) })
        expect(existsSync(file)).toBe(true)
      }
      expect(typing('begin again', '0')).toEqual({
        status: 0,
        says: expect.stringMatching(/0 setups, 0 entries[\s\S]*held against the logbook.*npm start asks/),
      })
      expect(wasHere(file)).toBe(false)
      const [aside] = readdirSync(dirname(file)).filter((each) => each.includes('.before-'))
      expect(readdirSync(join(dirname(file), aside ?? ''))).toContain('log.sqlite')
      const [backup] = readdirSync(join(dirname(file), 'backups'))
      expect(runCommand(file, 'restore', join(dirname(file), 'backups', backup ?? '')).status).toBe(0)
      const database = await openDatabase(file, migrations)
      expect((await referenceStore(database.db).current()).machines).toEqual([machine])
      await database.close()
    },
    LONG,
  )

  it('is told from the demo by its name alone', async () => {
    const [own, demo] = [join(newFolder(), 'a.sqlite'), join(newFolder(), 'b.sqlite')]
    const opened = [
      await openDatabase(own, migrations),
      await openDatabase(demo, migrations, { makes: true, now: Date.now(), demo: true }),
    ]
    expect(opened.map(({ logbook }) => isDemo(logbook))).toEqual([false, true])
    expect(isDemo(demoName('01M8Q2DJCD7HBESY2T54F0ZK2T'))).toBe(true)
    for (const each of opened) await each.close()
  })
})
