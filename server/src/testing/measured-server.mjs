// A server that says how long its one thread was ever held up. Asked 'begin' it counts anew; asked 'most' it answers in ms.
import { monitorEventLoopDelay } from 'node:perf_hooks'
import { readConfig, serve } from '../../dist/serve.js'

const RESOLUTION_MS = 5
const server = await serve(readConfig(process.env, Date.now()))
const delay = monitorEventLoopDelay({ resolution: RESOLUTION_MS })
delay.enable()
process.on('message', async (asked) => {
  if (asked === 'begin') delay.reset()
  if (asked === 'stop') await server.stop()
  process.send({ asked, most: delay.max / 1e6 - RESOLUTION_MS })
  if (asked === 'stop') process.exit()
})
process.send({ asked: 'start', address: server.address })
