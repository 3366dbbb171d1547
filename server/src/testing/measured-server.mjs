// A server that says how long its one thread was ever held up. Asked 'begin' it counts anew; asked 'most' it answers in ms.
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

process.on('message', async (asked) => {
  if (asked === 'begin') {
    delay.reset()
    most = 0
  }
  if (asked === 'stop') await server.stop()
  process.send({ asked, most: Math.min(most, delay.max / 1e6 - RESOLUTION_MS) })
  if (asked === 'stop') process.exit()
})
process.send({ asked: 'start', address: server.address })
