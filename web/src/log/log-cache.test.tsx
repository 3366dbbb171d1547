import type { Entry } from '@dogleg/core/setup'
import { QueryClient } from '@tanstack/react-query'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { fakeServer, logOf } from '../testing/shop.tsx'
import {
  askMachineLog,
  askSince,
  type Log,
  logKey,
  machineLogKey,
  NUMBERS_KEY,
  noteDelivered,
} from './log-cache.ts'

const log = logOf(/first side/)
const [opened, second, third] = log as [Entry, Entry, Entry]
if (opened.kind !== 'opened') throw new Error('a log begins where it is opened')
const { setup } = opened
const machine = opened.machine.id
const numbered = { ...second, id: '01KAS0000000000000000000N1', kind: 'numbered' } as unknown as Entry

let client: QueryClient
const of = (key: string[]) => client.getQueryData<Log>(key)
const ids = (key: string[]) => of(key)?.entries.map(({ id }) => id)
/** A server that tells what came after a place, and where it was asked from. */
function server(...entries: Entry[]) {
  const asked: number[] = []
  const ask = async (after: number): Promise<Log> => {
    asked.push(after)
    return { entries: entries.slice(after), seq: entries.length }
  }
  return { asked, ask }
}

beforeEach(() => {
  client = new QueryClient()
})
afterEach(() => vi.unstubAllGlobals())

describe('a log as far as the server told of it', () => {
  it('is asked for from where it ended, and grows by what is new', async () => {
    const { asked, ask } = server(opened, second)
    client.setQueryData(logKey(setup), await askSince(client, logKey(setup), ask))
    const later = server(opened, second, third)
    client.setQueryData(logKey(setup), await askSince(client, logKey(setup), later.ask))
    expect([asked, later.asked]).toEqual([[0], [2]])
    expect(of(logKey(setup))).toEqual({ entries: [opened, second, third], seq: 3 })
  })

  it('is the same object where nothing is new, so that nothing is worked out again', async () => {
    const { ask } = server(opened, second)
    client.setQueryData(logKey(setup), await askSince(client, logKey(setup), ask))
    expect(await askSince(client, logKey(setup), ask)).toBe(of(logKey(setup)))
  })

  it('keeps what was delivered while it was being asked for, once', async () => {
    client.setQueryData<Log>(logKey(setup), { entries: [opened], seq: 1 })
    const answer = await askSince(client, logKey(setup), async (after) => {
      noteDelivered(client, [third])
      return { entries: [opened, second, third].slice(after), seq: 3 }
    })
    expect(answer.entries.map(({ id }) => id).sort()).toEqual([opened.id, second.id, third.id].sort())
    expect(answer.seq).toBe(3)
  })
})

describe('entries that were delivered', () => {
  it('stand in the log of their setup at once, and are asked for again from where the server ended', () => {
    client.setQueryData<Log>(logKey(setup), { entries: [opened], seq: 41 })
    noteDelivered(client, [second, third, second])
    expect(ids(logKey(setup))).toEqual([opened.id, second.id, third.id])
    expect(of(logKey(setup))?.seq).toBe(41)
  })

  it('stand in the logs of the machine that the setup is on, and in no other', () => {
    client.setQueryData<Log>(machineLogKey(machine), { entries: [opened], seq: 1 })
    client.setQueryData<Log>(machineLogKey('another'), { entries: [], seq: 1 })
    noteDelivered(client, [second])
    expect(ids(machineLogKey(machine))).toEqual([opened.id, second.id])
    expect(ids(machineLogKey('another'))).toEqual([])
  })

  it('of a setup that they open stand there too', () => {
    client.setQueryData<Log>(machineLogKey(machine), { entries: [], seq: 0 })
    noteDelivered(client, [opened, second])
    expect(ids(machineLogKey(machine))).toEqual([opened.id, second.id])
  })

  it('with a serial number stand in the list of the shop, where that was asked for', () => {
    noteDelivered(client, [numbered])
    expect(of(NUMBERS_KEY)).toBeUndefined()
    client.setQueryData<Log>(NUMBERS_KEY, { entries: [], seq: 9 })
    noteDelivered(client, [numbered, second])
    expect(of(NUMBERS_KEY)).toEqual({ entries: [numbered], seq: 9 })
  })
})

describe('how a machine stands', () => {
  const stranger = { ...third, id: '01KAS0000000000000000000X1', setup: '01KAS0000000000000000000X0' }

  it('is asked anew where something came to a setup that this page has not from its beginning', async () => {
    const asked = fakeServer({
      [`GET /api/machines/${machine}/entries`]: (_body: unknown, path: string) =>
        path.includes('after=0')
          ? { entries: [opened, second], seq: 9, earlier: { until: 5 } }
          : { entries: [stranger], seq: 9 },
    })
    const first = await askMachineLog(client, machine)
    expect(first).toMatchObject({ seq: 9, earlier: { until: 5 } })
    expect(asked).toHaveLength(1)
    client.setQueryData(machineLogKey(machine), first)
    const now = await askMachineLog(client, machine)
    expect(asked.map((each) => each.split('after=')[1])).toEqual(['0', '9', '0'])
    expect(now).toEqual({ entries: [opened, second], seq: 9, earlier: { until: 5 } })
  })

  it('is asked anew where something came to a setup of which it has only single entries', async () => {
    const asked = fakeServer({
      [`GET /api/machines/${machine}/entries`]: (_body: unknown, path: string) =>
        path.includes('after=0')
          ? { entries: [opened, second, third], seq: 12 }
          : { entries: [third], seq: 12 },
    })
    client.setQueryData<Log>(machineLogKey(machine), { entries: [opened], seq: 9, single: [opened.setup] })
    const now = await askMachineLog(client, machine)
    expect(asked.map((each) => each.split('after=')[1])).toEqual(['9', '0'])
    expect(now).toEqual({ entries: [opened, second, third], seq: 12 })
  })

  it('grows by what came to setups that it has, and keeps what is known of the time before', async () => {
    const read = { ...third, id: '01KAS0000000000000000000X2', setup: stranger.setup, kind: 'acknowledged' }
    fakeServer({ [`GET /api/machines/${machine}/entries`]: { entries: [third, read], seq: 11 } })
    client.setQueryData<Log>(machineLogKey(machine), { entries: [opened], seq: 9, earlier: { until: 5 } })
    const now = await askMachineLog(client, machine)
    expect(now.entries.map(({ id }) => id)).toEqual([opened.id, third.id, read.id])
    expect(now).toMatchObject({ seq: 11, earlier: { until: 5 } })
    expect(await askMachineLog(client, machine)).toMatchObject({ earlier: { until: 5 } })
  })
})
