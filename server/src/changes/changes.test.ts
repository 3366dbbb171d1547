import { join } from 'node:path'
import { CONTRACT } from '@dogleg/core/api'
import { afterAll, describe, expect, it } from 'vitest'
import { noteEntry, openedEntry } from '../testing/entries.ts'
import { newFolder } from '../testing/process.ts'
import { ask, post, servers } from '../testing/shop.ts'
import type { Changed } from './feed.ts'

const { start, stop } = servers()
const ears: (() => void)[] = []
afterAll(() => {
  for (const end of ears) end()
})

interface Heard {
  id: string
  changed: Changed
  /** When, by the steady clock in ms. */
  at: number
}

/** Listens as a tablet does; every event is held against the contract. */
async function listen(address: string, after?: string) {
  const ended = new AbortController()
  ears.push(() => ended.abort())
  const response = await fetch(`${address}/api/changes${after === undefined ? '' : `?after=${after}`}`, {
    signal: ended.signal,
    headers: { accept: 'text/event-stream' },
  })
  expect(response.headers.get('content-type')).toMatch(/^text\/event-stream/)
  const heard: Heard[] = []
  let wake = () => {}
  const over = (async () => {
    let text = ''
    const decoder = new TextDecoder()
    for await (const piece of response.body ?? []) {
      text += decoder.decode(piece as Uint8Array, { stream: true })
      for (let end = text.indexOf('\n\n'); end >= 0; end = text.indexOf('\n\n')) {
        const lines = Object.fromEntries(
          text
            .slice(0, end)
            .split('\n')
            .map((line) => [line.slice(0, line.indexOf(': ')), line.slice(line.indexOf(': ') + 2)]),
        )
        text = text.slice(end + 2)
        expect(lines.event).toBe('changed')
        const changed = CONTRACT.changes.answer.parse(JSON.parse(lines.data ?? ''))
        heard.push({ id: lines.id ?? '', changed, at: performance.now() })
        wake()
      }
    }
  })().catch(() => undefined)
  const next = async (count: number): Promise<Heard[]> => {
    while (heard.length < count) await new Promise<void>((resolve) => (wake = resolve))
    return heard
  }
  return { next, end: () => ended.abort(), over }
}

describe('changes', () => {
  it('are told to every tablet as they are made, with the setup and its machine', async () => {
    const { address } = await start(join(newFolder(), 'log.sqlite'))
    const [one, other] = [await listen(address), await listen(address)]
    const [first] = await one.next(1)
    // A tablet that says nothing of where it left off is told that anything may be new to it.
    expect(first?.changed).toMatchObject({ all: true, setups: [] })
    await other.next(1)
    const opened = openedEntry()
    await post(address, [opened, noteEntry(opened.id)])
    for (const tablet of [one, other]) {
      const [, told] = await tablet.next(2)
      expect(told?.changed.setups).toEqual([{ id: opened.id, machine: 'mill-1', kinds: ['opened', 'note'] }])
      expect(told?.changed.place.seq).toBe((first?.changed.place.seq ?? 0) + 2)
    }
    // Sent again it is no change.
    const { machines } = await ask<{ machines: { id: string }[] }>(address, '/api/machines')
    await post(address, [opened])
    await fetch(`${address}/api/machines`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ ...machines[0], id: 'mill-9', name: 'Mill 9' }),
    })
    const [, told, row] = await one.next(3)
    expect(row?.changed).toMatchObject({ setups: [] })
    expect(row?.changed.stamp).toBeGreaterThan(told?.changed.stamp ?? Number.POSITIVE_INFINITY)
  })

  it('that a tablet missed are told first when it is back, and all where it cannot be told which', async () => {
    const file = join(newFolder(), 'log.sqlite')
    const server = await start(file)
    const away = await listen(server.address)
    const [{ id: left } = { id: '' }] = await away.next(1)
    away.end()
    const [one, other] = [openedEntry(), openedEntry()]
    await post(server.address, [one])
    await post(server.address, [other, noteEntry(one.id)])
    const [back] = await (await listen(server.address, left)).next(1)
    expect(back?.changed.all).toBeUndefined()
    expect(back?.changed.setups.map(({ id }) => id).toSorted()).toEqual([one.id, other.id].toSorted())
    const [known] = await (await listen(server.address, back?.id)).next(1)
    expect(known?.changed).toMatchObject({ setups: [] })
    expect(known?.changed.all).toBeUndefined()
    // Of another logbook, of a place that is still to come, or nothing that was ever told.
    const { logbook, seq } = back?.changed.place ?? { logbook: '', seq: 0 }
    for (const odd of [`01M8JSHE3K9HABF3T635A5XCKS.${seq}`, `${logbook}.${seq + 5}`, 'x', `${logbook}.-1`])
      expect((await (await listen(server.address, odd)).next(1))[0]?.changed.all).toBe(true)
    const many = Array.from({ length: 120 }, () => openedEntry())
    await post(server.address, many)
    await post(
      server.address,
      many.map(({ id }) => noteEntry(id)),
    )
    expect((await (await listen(server.address, back?.id)).next(1))[0]?.changed.all).toBe(true)
  })

  it('hold up no server that is told to end', async () => {
    const server = await start(join(newFolder(), 'log.sqlite'))
    const ear = await listen(server.address)
    await ear.next(1)
    const since = performance.now()
    expect(await stop(server)).toBe(0)
    await ear.over
    expect(performance.now() - since).toBeLessThan(8000)
  })
})
