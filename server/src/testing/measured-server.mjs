// A server that says how long its one thread was ever held up. Asked 'begin' it counts anew; asked 'most' it answers in ms, and how
// long the same thread took, before and after, for a fixed piece of work: on a slow or busy PC both grow.
import { existsSync, readFileSync } from 'node:fs'
import { monitorEventLoopDelay, performance } from 'node:perf_hooks'
import { readConfig, serve } from '../../dist/serve.js'

const RESOLUTION_MS = 5
const server = await serve(readConfig(process.env, Date.now()))
const delay = monitorEventLoopDelay({ resolution: RESOLUTION_MS })
delay.enable()

// What the thread itself has worked, where the system tells it: a PC that is busy with other things holds it up as well, and that is
// no doing of the server.
const WORKED = `/proc/self/task/${process.pid}/schedstat`
const tells = existsSync(WORKED)
const workedMs = () =>
  tells ? Number(readFileSync(WORKED, 'utf8').split(' ', 1)[0]) / 1e6 : performance.now()
let before = workedMs()
let most = 0
setInterval(() => {
  const now = workedMs()
  most = Math.max(most, now - before)
  before = now
}, RESOLUTION_MS)

/** Text that takes this server's thread about 50 ms to read and write again on an idle PC of the usual kind. */
const FIXED = JSON.stringify(
  Array.from({ length: 17_000 }, (_, n) => ({
    id: `e-${n}`,
    at: n / 7,
    fact: { kind: 'note', text: 'a note' },
  })),
)
const fixedMs = () => {
  const from = workedMs()
  JSON.stringify(JSON.parse(FIXED))
  return workedMs() - from
}
let fixedBefore = 0

process.on('message', async (asked) => {
  const heldUp = Math.min(most, delay.max / 1e6 - RESOLUTION_MS)
  if (asked === 'begin') {
    fixedBefore = fixedMs()
    // What the piece of work itself held up does not count.
    await new Promise((resolve) => setTimeout(resolve, 4 * RESOLUTION_MS))
    delay.reset()
    most = 0
  }
  if (asked === 'stop') await server.stop()
  process.send({ asked, most: heldUp, fixed: asked === 'most' ? Math.max(fixedBefore, fixedMs()) : 0 })
  if (asked === 'stop') process.exit()
})
process.send({ asked: 'start', address: server.address })
