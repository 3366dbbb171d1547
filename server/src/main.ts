import { fileURLToPath } from 'node:url'
import { buildApp } from './app.ts'
import { readConfig } from './config.ts'
import { openDatabase } from './database/open.ts'
import { builtDemo, fillDemo, fillLibrary } from './demo.ts'
import { StartProblem } from './problem.ts'

// This file runs from server/src and, built, from server/dist: both lie beside migrations.
const beside = (path: string) => fileURLToPath(new URL(path, import.meta.url))

async function start() {
  const config = readConfig(process.env, Date.now())
  const database = await openDatabase(config.file, beside('../migrations'))
  const filled = await fillDemo(database, config.demoNow, builtDemo(beside('demo.json')))
  await fillLibrary(database)
  const app = await buildApp({
    database,
    hosts: config.hosts,
    agents: config.agents,
    page: beside('../../web/dist'),
    clock: Date.now,
  })
  const stop = async () => {
    await app.close()
    await database.close()
    process.exit(0)
  }
  process.once('SIGINT', stop)
  process.once('SIGTERM', stop)
  const address = await app
    .listen({ port: config.port, host: config.host })
    .catch((error: NodeJS.ErrnoException) => {
      if (error.code !== 'EADDRINUSE') throw error
      throw new StartProblem(
        `Port ${config.port} is taken; perhaps Dogleg is running already. Stop it, or choose another port: DOGLEG_PORT=${config.port + 1} npm start`,
      )
    })
  if (filled) console.log('The logbook was empty: it holds the demo now.')
  if (database.readOnly)
    console.log(`The logbook ${config.file} cannot be written. It can be looked at; nothing can be added.`)
  console.log(`Dogleg is at ${address}`)
}

start().catch((error: unknown) => {
  console.error(error instanceof StartProblem ? error.message : error)
  process.exit(error instanceof StartProblem ? 2 : 1)
})
