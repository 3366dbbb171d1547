import type { Server } from 'node:https'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { FastifyInstance } from 'fastify'
import { buildApp } from './app.ts'
import type { BackupPlan } from './backup/plan.ts'
import type { OwnShop } from './begin/routes.ts'
import type { Config } from './config.ts'
import { wasHere } from './database/known.ts'
import { type Database, openDatabase } from './database/open.ts'
import { builtDemo, fillDemo, fillLibrary } from './demo.ts'
import { endServer, USUAL_LIMITS } from './limits.ts'
import { peopleStore } from './people/store.ts'
import { StartProblem } from './problem.ts'
import { certificateOf } from './wire/certificate.ts'
import { plainServer } from './wire/plain.ts'

export { readConfig } from './config.ts'

// This file runs from server/src and, built, from server/dist: both lie beside migrations.
const beside = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export interface Serving {
  /** Where it answers, such as http://127.0.0.1:7080. */
  address: string
  /** A logbook was made just now, and holds the demo. */
  filled: boolean
  /** What is wrong with the logbook, in a sentence. */
  alarm: string | undefined
  /** Over https: where a tablet comes to trust the shop's own certificate, and by what it is compared. */
  trust: { address: string; fingerprint: string } | undefined
  /** Ends what is under way and closes the logbook. */
  stop(): Promise<void>
}

/** A server on one logbook. */
interface Running extends Serving {
  /** The ports that it has, to go on at. */
  ports: Pick<Config, 'port' | 'https'>
}

const beginsDemo = ({ begins, file }: Config) => begins === 'ask' && !wasHere(file)

/** Backups of the demo lie apart, and few of them. */
const demoBackups = ({ demo }: Config): BackupPlan => ({
  folder: join(dirname(demo), 'demo-backups'),
  days: 2,
  months: 0,
})

/** Refuses to be reached by others as long as nobody could let a tablet in. */
async function refuseWithoutLead(database: Database, { host }: Config) {
  if ((await peopleStore(database.db).leads()).length > 0) return
  await database.close()
  throw new StartProblem(
    `On a network people sign in, and nobody leads this shop yet: Dogleg does not listen at ${host} before. Set up your shop at this PC (npm start without DOGLEG_HOST and DOGLEG_HOSTS), name the first lead here at the keyboard (npm run people), then start it again as you did.`,
  )
}

const portOf = (server: { address(): unknown }) => (server.address() as { port: number }).port

async function run(config: Config, own: OwnShop | undefined): Promise<Running> {
  const shows = own ? 'demo' : config.begins
  const [file, backups] = own ? [config.demo, demoBackups(config)] : [config.file, config.backups]
  const database = await openDatabase(file, beside('../migrations'), {
    makes: shows === 'demo' || shows === 'empty',
    demo: shows === 'demo',
    now: Date.now(),
    backups: backups.folder,
  })
  const filled =
    shows === 'demo' && (await fillDemo(database, config.demoNow, builtDemo(beside('demo.json'))))
  await fillLibrary(database, Date.now())
  if (config.signs) await refuseWithoutLead(database, config)
  const limits = { ...USUAL_LIMITS, aMinute: config.mostAMinute }
  let plain: FastifyInstance | undefined
  const certificate = config.https && (await certificateOf(config))
  const app = await buildApp({
    database,
    tls: certificate?.now(),
    hosts: config.hosts,
    agents: config.agents,
    backups,
    own,
    signing: {
      signs: config.signs,
      secure: certificate !== undefined,
      names: config.names,
      ...(certificate?.trust ? { plainPort: () => plain && portOf(plain.server) } : {}),
    },
    page: beside('../../web/dist'),
    clock: Date.now,
    limits,
    log: { level: config.log },
  })
  plain =
    certificate &&
    (await plainServer({
      hosts: config.hosts,
      limits,
      securePort: () => portOf(app.server),
      ...(certificate.trust ? { trust: certificate.trust } : {}),
    }))
  const listen = (at: FastifyInstance, port: number, setting: string) =>
    at.listen({ port, host: config.host }).catch(async (error: NodeJS.ErrnoException) => {
      await Promise.all([app.close(), plain?.close()])
      await database.close()
      if (error.code !== 'EADDRINUSE') throw error
      throw new StartProblem(
        `Port ${port} is taken; perhaps Dogleg is running already. Stop it, or choose another port: ${setting}=${port + 1} npm start`,
      )
    })
  const address = config.https
    ? await listen(app, config.https.port, 'DOGLEG_HTTPS_PORT')
    : await listen(app, config.port, 'DOGLEG_PORT')
  const plainAddress = plain && (await listen(plain, config.port, 'DOGLEG_PORT'))
  const renewing = certificate?.keepUp((server) => (app.server as Server).setSecureContext(server), app.log)
  const stop = async () => {
    app.log.info('ending')
    clearInterval(renewing)
    await Promise.all([endServer(app, limits), plain && endServer(plain, limits)])
    await database.close()
    app.log.info('ended')
  }
  const ports = {
    port: portOf((plain ?? app).server),
    https: config.https && { ...config.https, port: portOf(app.server) },
  }
  const trust =
    plainAddress && certificate?.trust
      ? { address: plainAddress, fingerprint: certificate.trust.fingerprint() }
      : undefined
  return { address, filled, alarm: await database.alarm(), trust, ports, stop }
}

/**
 * Opens the logbook and answers. Where there is none yet and somebody is to be asked, the demo is shown until an own shop is set up, and
 * then that, at the same address.
 * @throws StartProblem with a sentence: the file is no logbook, the port is taken.
 */
export async function serve(config: Config): Promise<Serving> {
  let ended = false
  let going: Promise<unknown> = Promise.resolve()
  const goOn = () => {
    going = (async () => {
      const { ports } = running
      await running.stop()
      if (!ended) running = await run({ ...config, ...ports }, undefined)
    })().catch((error: unknown) => {
      // Nothing answers any more: whoever keeps the server up starts it again, with the own shop.
      console.error(error instanceof StartProblem ? error.message : error)
      process.exit(1)
    })
  }
  let running = await run(
    config,
    beginsDemo(config) ? { file: config.file, migrations: beside('../migrations'), goOn } : undefined,
  )
  const stop = async () => {
    ended = true
    await going
    await running.stop()
  }
  return { ...running, stop }
}
