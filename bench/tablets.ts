import http from 'node:http'
import { ulid } from 'ulid'
import { ask, makeShop, type Shop, stop } from './running-shop.ts'

// A shop at its busiest: a hundred tablets that stand by and twenty at work, for a minute, each doing what its page does. Counts are
// told, not ratios: whether anything was refused or took too long.

const IDLE = 100
const AT_WORK = 20
const FOR_MS = 60_000
/** Somebody at work records something so often. */
const EVERY_MS = 3000
/** As the page: it asks for the board at most so often. */
const BOARD_MS = 1000
const SETUPS = 411

interface Took {
  what: string
  ms: number
  refused: boolean
}

/** What one tablet is told, and what it asks for then; `took` is told of every answer. */
function tablet(
  address: string,
  { setup, machine, board }: { setup: string; machine: string; board: boolean },
  by: string,
  took: (took: Took) => void,
) {
  const agent = new http.Agent({ keepAlive: true, maxSockets: 5 })
  const question = (what: string, path: string, body?: unknown): Promise<{ seq?: number; mark?: string }> =>
    new Promise((resolve) => {
      const began = performance.now()
      const done = (refused: boolean, text = '{}') => {
        took({ what, ms: performance.now() - began, refused })
        resolve(refused ? {} : (JSON.parse(text) as object))
      }
      const request = http.request(
        address + path,
        {
          agent,
          method: body === undefined ? 'GET' : 'POST',
          headers: body === undefined ? {} : { 'content-type': 'application/json' },
        },
        (response) => {
          let text = ''
          response.setEncoding('utf8').on('data', (data) => {
            text += data
          })
          response.on('end', () => done((response.statusCode ?? 500) >= 400, text))
        },
      )
      request.on('error', () => done(true))
      request.end(body === undefined ? undefined : JSON.stringify(body))
    })

  let mark = ''
  let [log, ofMachine] = [0, 0]
  const askLog = async () => {
    log = (await question('a log since', `/api/setups/${setup}/entries?after=${log}&texts=named`)).seq ?? log
  }
  const askMachine = async () => {
    const told = await question('a machine since', `/api/machines/${machine}/entries?after=${ofMachine}`)
    ofMachine = told.seq ?? ofMachine
  }
  const askBoard = async () => {
    mark = (await question('the board', `/api/setups?by=${by}&mark=${encodeURIComponent(mark)}`)).mark ?? mark
  }
  let boardDue: ReturnType<typeof setTimeout> | undefined
  let listening: http.ClientRequest | undefined
  const heard = (of: { id: string; machine?: string }[]) => {
    if (of.length === 0) return
    if (board)
      boardDue ??= setTimeout(() => {
        boardDue = undefined
        void askBoard()
      }, BOARD_MS)
    else if (of.some((each) => each.id === setup)) void askLog()
    if (!board && of.some((each) => each.machine === undefined || each.machine === machine)) void askMachine()
  }
  const listen = () => {
    listening = http.get(
      `${address}/api/changes`,
      { headers: { accept: 'text/event-stream' } },
      (response) => {
        if (response.statusCode !== 200) took({ what: 'listening', ms: 0, refused: true })
        let rest = ''
        response.setEncoding('utf8').on('data', (data: string) => {
          rest += data
          for (let end = rest.indexOf('\n\n'); end >= 0; end = rest.indexOf('\n\n')) {
            const line = rest
              .slice(0, end)
              .split('\n')
              .find((each) => each.startsWith('data:'))
            rest = rest.slice(end + 2)
            if (line)
              heard((JSON.parse(line.slice(5)) as { setups: { id: string; machine?: string }[] }).setups)
          }
        })
      },
    )
    listening.on('error', () => undefined)
  }
  return {
    open: async () => {
      if (board) await askBoard()
      else await Promise.all([askLog(), askMachine()])
      listen()
    },
    record: () =>
      question('an entry recorded', '/api/entries', {
        entries: [
          { id: ulid(), setup, at: new Date().toISOString(), by, kind: 'note', text: 'first part measured' },
        ],
      }),
    close: () => {
      clearTimeout(boardDue)
      listening?.destroy()
      agent.destroy()
    },
  }
}

const at = (times: readonly number[], share: number) =>
  times.toSorted((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))] ?? 0

async function measure({ running: { address }, opened }: Shop, forMs: number) {
  const all: Took[] = []
  let counts = false
  const took = (one: Took) => {
    if (counts) all.push(one)
  }
  // What was worked on last stands on the machines; each tablet is at one of them.
  const last = new Map(opened.map((each) => [each.machine, each]))
  const standing = [...last.values()]
  const of = (n: number) => standing[n % standing.length] ?? { setup: '', machine: '' }
  // Half of those that stand by show the board: a screen on the wall, whoever passes by.
  const idle = Array.from({ length: IDLE }, (_, n) =>
    tablet(address, { ...of(n), board: n % 2 === 0 }, `P${n % 12}`, took),
  )
  const working = Array.from({ length: AT_WORK }, (_, n) =>
    tablet(address, { ...of(n), board: false }, `W${n % 12}`, took),
  )
  for (const each of [...idle, ...working]) await each.open()
  counts = true
  const until = performance.now() + forMs
  await Promise.all(
    working.map(async (each, n) => {
      await new Promise((resolve) => setTimeout(resolve, (n * EVERY_MS) / AT_WORK))
      while (performance.now() < until) {
        const began = performance.now()
        await each.record()
        await new Promise((resolve) =>
          setTimeout(resolve, Math.max(0, EVERY_MS - (performance.now() - began))),
        )
      }
    }),
  )
  for (const each of [...idle, ...working]) each.close()
  return all
}

export async function benchTablets(forMs = FOR_MS) {
  const shop = await makeShop(SETUPS, 30)
  try {
    await ask(shop.running, '/api/setups')
    const all = await measure(shop, forMs)
    const kinds = [...new Set(all.map(({ what }) => what))].sort()
    console.log(`${IDLE} tablets stand by and ${AT_WORK} are at work, for ${Math.round(forMs / 1000)} s:`)
    for (const kind of kinds) {
      const of = all.filter(({ what }) => what === kind)
      const times = of.map(({ ms }) => ms)
      console.log(
        `  ${kind}: ${of.length}, half within ${at(times, 0.5).toFixed(0)} ms, 99 of 100 within ${at(times, 0.99).toFixed(0)} ms, the last within ${Math.max(...times).toFixed(0)} ms; ${of.filter(({ ms }) => ms > 1000).length} over 1 s, ${of.filter(({ refused }) => refused).length} refused`,
      )
    }
  } finally {
    await stop(shop.running)
  }
}
