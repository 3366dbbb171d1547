import { type ChildProcess, fork } from 'node:child_process'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { anyEntry, noteEntry, openedEntry } from '../testing/entries.ts'
import { setupFileOf } from '../testing/files.ts'
import { newFolder } from '../testing/process.ts'
import { ask, post } from '../testing/shop.ts'

// Nothing that anybody sends holds up the server's one thread: it is measured there, while all of this is under way.

/** What the thread may be held up, in ms, on a PC of the usual kind. */
const MOST_MS = 50
/** What the server does comes each time; what the first time of anything takes, does not: the least of so many tries counts. */
const TRIES = 5

interface Measured {
  /** How long the thread was held up at most, in ms. */
  most: number
  /** How long it took at that time for work that takes 50 ms on a PC of the usual kind, in ms. */
  fixed: number
}
/** How much of what is allowed the thread was held up: on a PC that is slow or busy just now, all of it takes longer. */
const share = ({ most, fixed }: Measured): number => most / Math.max(MOST_MS, fixed)

let child: ChildProcess
let address = ''
const told = <T>(): Promise<T> =>
  new Promise((resolve) => child.once('message', (said) => resolve(said as T)))
const say = (asked: string) => {
  const answer = told<Measured>()
  child.send(asked)
  return answer
}

beforeAll(async () => {
  child = fork(join(import.meta.dirname, '../testing/measured-server.mjs'), {
    env: {
      ...process.env,
      DOGLEG_DATA: join(newFolder(), 'log.sqlite'),
      DOGLEG_NEW: 'demo',
      DOGLEG_PORT: '0',
      DOGLEG_MOST_A_MINUTE: '1000000',
    },
  })
  address = (await told<{ address: string }>()).address
}, 30_000)
// What is under way is given ten seconds.
afterAll(() => say('stop'), 30_000)

const send = (method: string, path: string, body: unknown) =>
  fetch(address + path, {
    method,
    headers: { 'content-type': 'application/json' },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  })

/** Does something while a tablet enters notes; gives how much of what is allowed the thread was held up. */
async function heldUp(work: () => Promise<unknown>): Promise<number> {
  const opened = openedEntry()
  await post(address, [opened])
  let busy = true
  const tablet = (async () => {
    while (busy) {
      expect((await post(address, [noteEntry(opened.id)])).status).toBe(201)
      await new Promise((resolve) => setTimeout(resolve, 10))
    }
  })()
  await say('begin')
  await work()
  const measured = await say('most')
  busy = false
  await tablet
  return share(measured)
}

/** The same, as often as it takes to tell the server from a busy PC. */
async function meanwhile(work: () => Promise<unknown>): Promise<number> {
  let least = Number.POSITIVE_INFINITY
  for (let n = 0; n < TRIES && least >= 1; n++) least = Math.min(least, await heldUp(work))
  return least
}

const PROGRAMS: Record<string, string> = {
  'a loop round a long expression': `G20\nWHILE[1EQ1]DO1\n#1=[${'1+'.repeat(5000)}1]\nEND1\nM30`,
  'two hundred holes with tiny pecks': `G20 G90 G54\nT1 M6\nS1000 M3\nG43 H1 Z1.\n${Array.from({ length: 200 }, (_, n) => `G83 X${n / 100} Y0. Z-9.9 R.05 Q.001 F5.`).join('\n')}\nG80\nM30`,
  'a loop that lost its end': `G20\n#1=0\nWHILE[#1LT1]DO1\n${'G1 X1. F10.\n'.repeat(9000)}END1\nM30`,
  'the longest text that is taken': 'G1 X1. Y2. F10.\nX0\n'.repeat(10_000),
  'one block that repeats without end': 'G20\nG91 G81 X.1 Z-.5 R.1 F10 L99999999\nM30',
  'offsets that are written again and again': `G20 G90\n${Array.from({ length: 300 }, (_, n) => `G10 L2 P1 X-${n % 9}.\nX0.`).join('\n')}\nM30`,
  'a text cycle with a long text': `G20\nG47 P0 X0 Y0 I0 J.1 R.1 Z-.01 F10 E5 (${'AB8'.repeat(13_333)})\nM30`,
}

describe('the one thread of the server', () => {
  it.each(Object.keys(PROGRAMS))(
    'is not held up by %s on a simulated machine',
    async (name) => {
      const id = `m-${Object.keys(PROGRAMS).indexOf(name)}`
      const most = await meanwhile(async () => {
        await send('PUT', `/api/simulated/${id}`, { machine: 'mill-1', seed: 7 })
        const loaded = await send('POST', `/api/simulated/${id}/actions`, {
          actions: [{ do: 'load', text: PROGRAMS[name] }, { do: 'single', on: false }, { do: 'start' }],
        })
        expect([200, 422]).toContain(loaded.status)
        for (let n = 0; n < 5; n++) {
          await fetch(`${address}/api/simulated/${id}`)
          await fetch(`${address}/simulated/${id}/current`)
        }
      })
      expect(most).toBeLessThan(1)
    },
    60_000,
  )

  it('is not held up by a setup file of 60 MB, nor by what is then shown of it', async () => {
    const opened = openedEntry()
    const { machines } = await ask<{ machines: { id: string; profileId: string }[] }>(
      address,
      '/api/machines',
    )
    const machine = machines.find(({ id }) => id === 'mill-1')
    const text = 'G1 X1. Y2.\n'.repeat(18_000)
    const entries = [
      opened,
      ...Array.from({ length: 300 }, (_, n) =>
        anyEntry(opened.id, {
          kind: 'program',
          offset: 'G54',
          what: 'coded',
          title: `O${n}`,
          rests: [],
          profile: { id: machine?.profileId, version: 1 },
          machine: { id: 'mill-1', version: 1 },
          how: 'copied',
          text,
        }),
      ),
    ]
    const file = JSON.stringify(setupFileOf(entries))
    expect(file.length).toBeGreaterThan(55e6)
    const most = await meanwhile(async () => {
      const taken = await send('POST', '/api/setup-files', file)
      expect([taken.status, await taken.json()]).toEqual([201, expect.objectContaining({ setup: opened.id })])
      const [board, log, machineLog] = await Promise.all([
        fetch(`${address}/api/setups`),
        fetch(`${address}/api/setups/${opened.id}/entries`),
        fetch(`${address}/api/machines/mill-1/entries`),
      ])
      expect([board.status, log.status, machineLog.status]).toEqual([200, 200, 200])
      expect(((await log.json()) as { entries: unknown[] }).entries).toHaveLength(301)
    })
    expect(most).toBeLessThan(1)
  }, 120_000)
})
