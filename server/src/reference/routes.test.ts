import { demoReference } from '@dogleg/core/demo'
import type { ToolShape } from '@dogleg/core/machine'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type DemoApp, demoApp } from '../testing/app.ts'
import { addRow } from './store.ts'

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
    await demo.database.write((tx) => addRow(tx, 'tools', twin))
    expect((await put({ ...twin, note: 'dull' })).status).toBe(200)
    expect((await put({ ...twin, version: 2, number: 43 })).status).toBe(200)
  })
})
