// Runs servers one after another in one process, as the built server does, so that a test waits neither for a new process nor for
// its compiling. Asked by messages { id, start: settings } and { id, stop: port }; answers { id, port } or { id, says }.
import { readConfig, serve } from '../server/dist/serve.js'

/** The servers that answer, by port. */
const serving = new Map()

async function start(settings) {
  const server = await serve(readConfig(settings, Date.now()))
  const port = Number(new URL(server.address).port)
  serving.set(port, server)
  return port
}

async function stop(port) {
  await serving.get(port)?.stop()
  serving.delete(port)
  return port
}

process.on('message', async ({ id, ...asked }) => {
  try {
    process.send({ id, port: await (asked.start ? start(asked.start) : stop(asked.stop)) })
  } catch (error) {
    process.send({ id, says: String(error) })
  }
})
process.once('disconnect', () => process.exit())
