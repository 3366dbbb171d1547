import { readConfig } from './config.ts'
import { StartProblem } from './problem.ts'
import { serve } from './serve.ts'

async function start() {
  const config = readConfig(process.env, Date.now())
  const { address, filled, alarm, trust, stop } = await serve(config)
  let ending = false
  const end = async () => {
    // Asked again, it does not wait for what is under way.
    if (ending) process.exit(1)
    ending = true
    await stop()
    process.exit(0)
  }
  process.on('SIGINT', end)
  process.on('SIGTERM', end)
  if (filled) console.log('A made-up shop was begun, to look round in. Your own is set up on the page.')
  if (alarm) console.log(`${config.file}: ${alarm}`)
  if (trust)
    console.log(
      `A new tablet first comes to trust this shop's certificate: ${trust.address}\nSHA-256 ${trust.fingerprint}`,
    )
  console.log(`Dogleg is at ${address}`)
}

start().catch((error: unknown) => {
  console.error(error instanceof StartProblem ? error.message : error)
  process.exit(error instanceof StartProblem ? 2 : 1)
})
