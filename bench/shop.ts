import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { ulid } from 'ulid'
import { report } from './report.ts'
import { ask, makeShop, memoryOf, type Shop, start, stop } from './running-shop.ts'

// What a shop of ten years costs against the same shop of one month: whatever is asked, only what changed counts.

const DAYS = 3650
const SETUPS = 50_000
const MONTH = 30
/** Times that each thing is done, in turns on both servers. */
const ROUNDS = 41

const note = ({ setup }: { setup: string }) => ({
  entries: [
    { id: ulid(), setup, at: new Date().toISOString(), by: 'RT', kind: 'note', text: 'first part measured' },
  ],
})

const median = (times: number[]) =>
  times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)] ?? Number.NaN

export async function benchShop() {
  const month = await makeShop(Math.round((SETUPS * MONTH) / DAYS), MONTH)
  const years = await makeShop(SETUPS, DAYS)
  console.log(
    `ten years: ${years.opened.length} setups, ${years.entries} entries, read through once in ${Math.round(years.readMs / 1000)} s; one month: ${month.opened.length} setups, ${month.entries} entries, ${Math.round(month.readMs)} ms`,
  )
  try {
    const last = ({ opened }: Shop) => opened.at(-1) ?? { setup: '', machine: '' }
    const work: Record<string, (shop: Shop) => Promise<unknown>> = {
      'an entry recorded': (shop) => ask(shop.running, '/api/entries', note(last(shop))),
      'the board after an entry': (shop) => ask(shop.running, '/api/setups?by=RT'),
      'how a machine stands': (shop) => ask(shop.running, `/api/machines/${last(shop).machine}/entries`),
      'a setup opened': (shop) => ask(shop.running, `/api/setups/${last(shop).setup}/entries`),
      'an old setup opened': (shop) => ask(shop.running, `/api/setups/${shop.opened[3]?.setup}/entries`),
      'a page of older setups': (shop) => ask(shop.running, `/api/machines/${last(shop).machine}/setups`),
    }
    const times = Object.fromEntries(
      Object.keys(work).map((name) => [name, [[], []] as [number[], number[]]]),
    )
    for (let round = 0; round < ROUNDS; round++)
      for (const [name, doIt] of Object.entries(work))
        for (const [at, shop] of [month, years].entries()) {
          const began = performance.now()
          await doIt(shop)
          if (round > 3) times[name]?.[at]?.push(performance.now() - began)
        }
    for (const [name, [ofMonth, ofYears]] of Object.entries(times))
      report({
        name: `${name}, in a shop of ten years`,
        baseline: 'of one month',
        measured: `${median(ofYears).toFixed(1)} ms`,
        against: `${median(ofMonth).toFixed(1)} ms`,
        ratio: median(ofYears) / median(ofMonth),
        limit: 1.5,
      })
    const starts: [number[], number[]] = [[], []]
    for (let round = 0; round < 5; round++)
      for (const [at, shop] of [month, years].entries()) {
        await stop(shop.running)
        shop.running = await start(shop.file)
        starts[at as 0 | 1].push(shop.running.startMs)
      }
    report({
      name: 'start of the server, in a shop of ten years',
      baseline: 'of one month',
      measured: `${median(starts[1]).toFixed(0)} ms`,
      against: `${median(starts[0]).toFixed(0)} ms`,
      ratio: median(starts[1]) / median(starts[0]),
      limit: 3,
    })
    // As it runs from one day to the next: started, and used.
    for (let round = 0; round < 10; round++)
      for (const doIt of Object.values(work)) for (const shop of [month, years]) await doIt(shop)
    const memory = [month, years].map(({ running }) => memoryOf(running)) as [number, number]
    report({
      name: 'memory of the server, in a shop of ten years',
      baseline: 'of one month',
      measured: `${memory[1].toFixed(0)} MB`,
      against: `${memory[0].toFixed(0)} MB`,
      ratio: memory[1] / memory[0],
      limit: 1.5,
    })
  } finally {
    for (const { running, file } of [month, years]) {
      await stop(running)
      rmSync(join(file, '..'), { recursive: true, force: true })
    }
  }
}
