import { readConfig } from './config.ts'
import { StartProblem } from './problem.ts'
import { serve } from './serve.ts'

async function start() {
  const config = readConfig(process.env, Date.now())
  const { address, filled, readOnly, stop } = await serve(config)
  const end = async () => {
    await stop()
    process.exit(0)
  }
  process.once('SIGINT', end)
  process.once('SIGTERM', end)
  if (filled) console.log('The logbook was empty: it holds the demo now.')
  if (readOnly)
    console.log(`The logbook ${config.file} cannot be written. It can be looked at; nothing can be added.`)
  console.log(`Dogleg is at ${address}`)
}

start().catch((error: unknown) => {
  console.error(error instanceof StartProblem ? error.message : error)
  process.exit(error instanceof StartProblem ? 2 : 1)
})
