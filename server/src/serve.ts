import { fileURLToPath } from 'node:url'
import { buildApp } from './app.ts'
import type { Config } from './config.ts'
import { openDatabase } from './database/open.ts'
import { builtDemo, fillDemo, fillLibrary } from './demo.ts'
import { endServer, USUAL_LIMITS } from './limits.ts'
import { StartProblem } from './problem.ts'

export { readConfig } from './config.ts'

// This file runs from server/src and, built, from server/dist: both lie beside migrations.
const beside = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export interface Serving {
  /** Where it answers, such as http://127.0.0.1:7080. */
  address: string
  /** The logbook was made just now, and holds the demo. */
  filled: boolean
  /** What is wrong with the logbook, in a sentence. */
  alarm: string | undefined
  /** Ends what is under way and closes the logbook. */
  stop(): Promise<void>
}

/**
 * Opens the logbook, fills an empty one with the demo, and answers.
 * @throws StartProblem with a sentence: the file is no logbook, the port is taken.
 */
export async function serve(config: Config): Promise<Serving> {
  const database = await openDatabase(config.file, beside('../migrations'), {
    makes: config.begins !== undefined,
    now: Date.now(),
    backups: config.backups.folder,
  })
  const filled =
    config.begins === 'demo' && (await fillDemo(database, config.demoNow, builtDemo(beside('demo.json'))))
  await fillLibrary(database, Date.now())
  const limits = { ...USUAL_LIMITS, aMinute: config.mostAMinute }
  const app = await buildApp({
    database,
    hosts: config.hosts,
    agents: config.agents,
    backups: config.backups,
    page: beside('../../web/dist'),
    clock: Date.now,
    limits,
    log: { level: config.log },
  })
  const address = await app
    .listen({ port: config.port, host: config.host })
    .catch(async (error: NodeJS.ErrnoException) => {
      await database.close()
      if (error.code !== 'EADDRINUSE') throw error
      throw new StartProblem(
        `Port ${config.port} is taken; perhaps Dogleg is running already. Stop it, or choose another port: DOGLEG_PORT=${config.port + 1} npm start`,
      )
    })
  const stop = async () => {
    app.log.info('ending')
    await endServer(app, limits)
    await database.close()
    app.log.info('ended')
  }
  return { address, filled, alarm: await database.alarm(), stop }
}
