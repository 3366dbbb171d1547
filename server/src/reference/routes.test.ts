import type { OwnCode, Profile } from '@dogleg/core/control'
import { demoReference } from '@dogleg/core/demo'
import type { ToolShape } from '@dogleg/core/machine'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { reference as table } from '../database/schema.ts'
import { type DemoApp, demoApp } from '../testing/app.ts'
import { addRow, referenceStore } from './store.ts'

let demo: DemoApp
beforeAll(async () => {
  demo = await demoApp()
})
afterAll(() => demo.close())

const [drill] = demoReference.tools as [ToolShape]
const says = async (asked: ReturnType<DemoApp['ask']>) => {
  const { status, body } = (await asked) as {
    status: number
    body: { error?: { code: string; says: string } }
  }
  return [status, body.error?.code, body.error?.says]
}
const post = (row: Partial<ToolShape>) => demo.ask('POST', '/api/tools', { ...drill, ...row })
const put = (row: ToolShape) => demo.ask('PUT', `/api/tools/${row.id}`, row)

describe('the number of a tool', () => {
  it('is given once on a machine: of two tablets that make the next one, the second is told whose it is', async () => {
    const made = ['from-one', 'from-other'].map((id) => post({ id, number: 41, name: `Tool ${id}` }))
    const answers = (await Promise.all(made.map(says))).toSorted((a, b) => Number(a[0]) - Number(b[0]))
    expect(answers[0]?.[0]).toBe(201)
    expect(answers[1]?.slice(0, 2)).toEqual([409, 'number-taken'])
    expect(answers[1]?.[2]).toMatch(
      /^T41 of this machine is Tool from-(one|other) already\. Give this tool another/,
    )
    // Another machine has numbers of its own.
    expect((await post({ id: 'elsewhere', machineId: 'lathe-1', number: 41 })).status).toBe(201)
    // The same tool sent twice is one.
    expect((await post({ id: 'elsewhere', machineId: 'lathe-1', number: 41 })).status).toBe(201)
  })

  it('is not changed to one that is taken, and may be to one that is free', async () => {
    expect((await put({ ...drill, number: 7 })).status).toBe(409)
    const moved = await put({ ...drill, number: 42 })
    expect(moved.status).toBe(200)
    expect((await put({ ...drill, version: 2, number: 3 })).status).toBe(200)
  })

  it('that two had before stays with both, so that each can still be mended', async () => {
    const twin = { ...drill, id: 'twin', number: 7, version: 1 }
    await demo.database.write((tx) => addRow(tx, 'tools', twin, { at: 0 }))
    expect((await put({ ...twin, note: 'dull' })).status).toBe(200)
    expect((await put({ ...twin, version: 2, number: 43 })).status).toBe(200)
  })
})

describe('the codes that a profile lists as the machine’s own', () => {
  const [compact] = demoReference.profiles as [Profile]
  const own = (code: string, by: string): OwnCode => ({
    ...{ code, on: 'both', says: '', by },
    ...{ does: 'harmless', seconds: 0 },
  })
  const save = async (row: Profile, by: string) =>
    (await demo.ask('PUT', `/api/profiles/compact?by=${by}`, row)).body as Profile

  it('are on the word of who saves them, whatever is sent; what is written stands, until anything else is edited', async () => {
    const first = await save({ ...compact, ownCodes: [own('M51', 'ZZ'), ...compact.ownCodes] }, 'MK')
    expect(first.ownCodes[0]).toEqual(own('M51', 'MK'))
    expect(first.ownCodes.slice(1)).toEqual(compact.ownCodes)
    expect([first.version, first.writesSince]).toEqual([compact.version + 1, compact.writesSince])
    // One that is left as it was stays on the word of who said it; sent twice it is the same edit.
    const second = await save({ ...first, ownCodes: [own('M51', 'MK'), own('M52', '')] }, 'RT')
    expect(second.ownCodes).toEqual([own('M51', 'MK'), own('M52', 'RT')])
    expect(await save({ ...first, ownCodes: [own('M51', 'MK'), own('M52', 'RT')] }, 'RT')).toEqual(second)
    const third = await save({ ...second, clearUp: { way: 'home-return', note: '' } }, 'RT')
    expect(third.writesSince).toBe(third.version)
    // What a page says of it counts for nothing.
    const fourth = await save({ ...third, writesSince: 1 }, 'RT')
    expect(fourth.writesSince).toBe(third.version)
  })
})

describe('a row that is retired', () => {
  interface Told {
    tools: ToolShape[]
    retired: { id: string; by?: string; at: string }[]
    stamp: number
  }
  const told = async () => (await demo.ask('GET', '/api/tools')).body as Told
  const retire = (id: string, retired: boolean, by = 'MK', noun = 'tools') =>
    demo.ask('PUT', `/api/${noun}/${id}/retired?by=${by}`, { retired })

  it('stays in its list and says who retired it; its number is free, and it comes back only while that is', async () => {
    const tool = { id: 'worn', number: 61, name: 'Worn out' }
    expect((await post(tool)).status).toBe(201)
    const before = await told()
    expect((await retire('worn', true)).status).toBe(200)
    const after = await told()
    expect(after.tools).toEqual(before.tools)
    expect(after.retired).toMatchObject([{ id: 'worn', by: 'MK', at: expect.stringMatching(/^20/) }])
    expect(after.stamp).toBeGreaterThan(before.stamp)
    // Sent twice it is done once.
    await retire('worn', true, 'RT')
    expect(await told()).toMatchObject({ stamp: after.stamp, retired: [{ by: 'MK' }] })
    expect((await post({ id: 'fresh', number: 61, name: 'Fresh' })).status).toBe(201)
    expect((await says(retire('worn', false))).slice(0, 2)).toEqual([409, 'number-taken'])
    const fresh = (await told()).tools.find(({ id }) => id === 'fresh') as ToolShape
    expect((await put({ ...fresh, number: 62 })).status).toBe(200)
    expect((await retire('worn', false)).body).toEqual({ id: 'worn', retired: false })
    expect((await told()).retired).toEqual([])
    expect((await says(retire('nobody', true))).slice(0, 2)).toEqual([404, 'not-found'])
    expect((await demo.ask('PUT', '/api/tools/worn/retired', { retired: 'yes' })).status).toBe(422)
    expect(
      (await demo.ask('PUT', '/api/tools/worn/retired?by=nobody-at-all', { retired: true })).status,
    ).toBe(422)
  })

  it('is no tool of any program, and a machine is named where its setups are and not on the board', async () => {
    const store = referenceStore(demo.database.db)
    const at = async () => (await store.current()).tools.filter(({ number }) => number === 61)
    expect(await at()).toHaveLength(1)
    await retire('worn', true)
    expect(await at()).toEqual([])
    expect((await store.current()).retired).toEqual([{ noun: 'tools', id: 'worn', name: 'Worn out' }])

    const board = async () =>
      ((await demo.ask('GET', '/api/setups')).body as { board: { machines: { id: string }[] } }).board
    const machines = (await board()).machines.map(({ id }) => id)
    expect(machines).toContain('mill-2')
    await retire('mill-2', true, 'MK', 'machines')
    const without = await board()
    expect(without.machines.map(({ id }) => id)).toEqual(machines.filter((id) => id !== 'mill-2'))
    expect(without).toMatchObject({ unreadable: [] })
    const { setups, unreadable } = (await demo.ask('GET', '/api/machines/mill-2/setups')).body as {
      setups: unknown[]
      unreadable: unknown[]
    }
    expect(setups.length).toBeGreaterThan(0)
    expect(unreadable).toEqual([])
    const { found } = (await demo.ask('GET', '/api/search?text=%22Mill%202%22')).body as { found: unknown[] }
    expect(found).toMatchObject([{ machine: 'Mill 2' }])
    await retire('mill-2', false, 'MK', 'machines')
    expect((await board()).machines.map(({ id }) => id)).toEqual(machines)
  })
})

describe('the versions of a row', () => {
  it('say who saved each and when, and each can be taken back as the next one', async () => {
    const tool = { id: 'kept', number: 63, name: 'Kept' }
    await demo.ask('POST', '/api/tools?by=RT', { ...drill, ...tool })
    demo.pass(60)
    await demo.ask('PUT', '/api/tools/kept?by=MK', { ...drill, ...tool, version: 1, note: 'dull' })
    demo.pass(60)
    await demo.ask('PUT', '/api/tools/kept', { ...drill, ...tool, version: 2, note: 'ground' })
    interface Version {
      version: number
      by?: string
      at: string
      row: ToolShape
    }
    const versions = async () =>
      ((await demo.ask('GET', '/api/tools/kept/versions')).body as { versions: Version[] }).versions
    const all = await versions()
    expect(all.map(({ version, by, row }) => [version, by, row.note])).toEqual([
      [3, undefined, 'ground'],
      [2, 'MK', 'dull'],
      [1, 'RT', drill.note],
    ])
    const [third, second, first] = all.map(({ at }) => Date.parse(at)) as [number, number, number]
    expect([third - second, second - first].map((ms) => Math.round(ms / 60_000))).toEqual([1, 1])
    expect((await put({ ...(all[2] as Version).row, version: 3 })).status).toBe(200)
    const back = await versions()
    expect(back).toHaveLength(4)
    expect(back[0]?.row).toEqual({ ...all[2]?.row, version: 4 })
    expect((await demo.ask('GET', '/api/tools/none/versions')).status).toBe(404)
  })

  it('that were saved before that was kept, or cannot be read, say so', async () => {
    await demo.database.write(async (tx) => {
      for (const [version, body] of [
        [1, JSON.stringify({ ...drill, id: 'old', number: 64 })],
        [2, '{'],
      ] as const)
        await tx.insert(table).values({ noun: 'tools', id: 'old', version, body })
    })
    expect((await demo.ask('GET', '/api/tools/old/versions')).body).toEqual({
      versions: [
        { version: 2, unread: 'What stands in its place cannot be read.' },
        { version: 1, row: { ...drill, id: 'old', number: 64, version: 1 } },
      ],
    })
  })
})
