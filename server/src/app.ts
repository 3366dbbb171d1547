import { dirname, join } from 'node:path'
import helmet from '@fastify/helmet'
import Fastify, {
  type FastifyBaseLogger,
  type FastifyError,
  type FastifyInstance,
  type FastifyReply,
} from 'fastify'
import { backupKeeper } from './backup/keeper.ts'
import type { BackupPlan } from './backup/plan.ts'
import { shopRoutes } from './backup/routes.ts'
import { beginRoutes, type OwnShop } from './begin/routes.ts'
import { answerBroken } from './broken-question.ts'
import { changeFeed } from './changes/feed.ts'
import { changeRoutes } from './changes/routes.ts'
import { type Database, NOT_KEPT } from './database/open.ts'
import { databaseProblem } from './database/problems.ts'
import { LogbookDamaged, LogbookGone } from './database/watch.ts'
import { descriptionRoutes } from './description/routes.ts'
import { entryRoutes } from './entries/routes.ts'
import { entryStore } from './entries/store.ts'
import { guard, speakAlike } from './guard.ts'
import { importRoutes } from './imports/routes.ts'
import { keepLimits, type Limits, serverOptions, type Tls, USUAL_LIMITS } from './limits.ts'
import { pages, tellPage } from './pages.ts'
import { leaving as whenLeft } from './people/leaving.ts'
import { peopleRoutes } from './people/routes.ts'
import { slowDown } from './people/slow.ts'
import { peopleStore } from './people/store.ts'
import { askWho, type Signing } from './people/who.ts'
import { positionRoutes } from './positions/routes.ts'
import { practiceRoutes } from './practice/routes.ts'
import { Problem } from './problem.ts'
import { referenceRoutes } from './reference/routes.ts'
import { referenceStore } from './reference/store.ts'
import { failure, type LogLevel, type LogTo, loggerOptions, logRequests, newNumber } from './server-log.ts'
import { serverTime } from './server-time.ts'
import { simulatedRoutes } from './simulated/routes.ts'
import { simulatedMachines } from './simulated/sessions.ts'
import { startThreads, type ThreadLimits, USUAL_THREADS } from './threads/threads.ts'

export interface AppOptions {
  database: Database
  /** Names that a Host header may carry, lower case, without port. */
  hosts: ReadonlySet<string>
  /** Folder of the built page. */
  page: string
  /** Addresses (host:port) outside of the shop's network that may be asked for positions all the same. */
  agents?: ReadonlySet<string>
  /** The time, in ms since 1970. */
  clock: () => number
  limits?: Limits
  /** Where backups go; beside the logbook, none by itself, where nothing is said. */
  backups?: BackupPlan
  threadLimits?: ThreadLimits
  /** The own shop that can be set up while the demo is shown. */
  own?: OwnShop | undefined
  /** A certificate and its key: pages then come over https. */
  tls?: Tls | undefined
  /** Whether people sign in; nobody does where nothing is said. */
  signing?: Signing
  /** How much the server's log says, and where it goes. */
  log?: { level: LogLevel; to?: LogTo }
}

const CONTENT_SECURITY_POLICY = {
  useDefaults: false,
  directives: {
    defaultSrc: ["'none'"],
    scriptSrc: ["'self'"],
    styleSrc: ["'self'"],
    fontSrc: ["'self'"],
    imgSrc: ["'self'", 'data:'],
    connectSrc: ["'self'"],
    workerSrc: ["'self'"],
    manifestSrc: ["'self'"],
    baseUri: ["'none'"],
    formAction: ["'none'"],
    frameAncestors: ["'none'"],
  },
}

/** What of a tablet pages may use: its camera and its screen, and nothing else that it would ask for. */
const PERMISSIONS =
  'camera=(self), screen-wake-lock=(self), clipboard-write=(self), geolocation=(), microphone=(), payment=(), usb=(), serial=(), bluetooth=(), hid=(), midi=()'

/** So long after the server was built the logbook is read through, as far as it was not. */
const READY_AFTER_MS = 300

/** Turns whatever was thrown into a problem with a sentence; what is not foreseen is logged under a number, and kept general. */
function asProblem(error: unknown, log: FastifyBaseLogger): Problem {
  if (error instanceof Problem) return error
  if (error instanceof LogbookGone) return new Problem(503, 'logbook-gone', `${error.message} ${NOT_KEPT}`)
  if (error instanceof LogbookDamaged) return new Problem(503, 'logbook-damaged', error.message)
  const ofFile = databaseProblem(error)
  if (ofFile) return ofFile
  const { statusCode, message } = error as FastifyError
  if (statusCode === 413) return new Problem(413, 'too-large', 'That is too much at once.')
  if (statusCode !== undefined && statusCode < 500) return new Problem(statusCode, 'not-understood', message)
  const number = newNumber()
  log.error({ number, failure: failure(error) }, 'failed')
  return new Problem(
    500,
    'failed',
    `Something went wrong in the server. What you entered is kept on this tablet. Whoever looks after the server finds it in its log under ${number}.`,
  )
}

/** The server: one room a noun, one shape of error, headers that keep other sites out. */
export async function buildApp({
  database,
  hosts,
  page,
  clock,
  agents = new Set(),
  limits = USUAL_LIMITS,
  backups: plan = { folder: join(dirname(database.file), 'backups'), days: 0, months: 0 },
  threadLimits = USUAL_THREADS,
  own,
  tls,
  signing = { signs: false, secure: false, names: [] },
  log = { level: 'silent' },
}: AppOptions): Promise<FastifyInstance> {
  const app = Fastify({
    bodyLimit: 4 * 1024 * 1024,
    ...serverOptions(limits, tls),
    ...loggerOptions(log.level, log.to),
    clientErrorHandler: answerBroken,
    frameworkErrors: (error, request, reply: FastifyReply) => {
      const problem = asProblem(error, request.log)
      reply.code(problem.status).send(problem.body())
    },
  })
  app.decorateReply('refusal', '')
  app.setErrorHandler((error, request, reply) => {
    const problem = asProblem(error, request.log)
    reply.refusal = problem.code
    return reply.code(problem.status).send(problem.body())
  })
  logRequests(app)
  await app.register(helmet, {
    contentSecurityPolicy: CONTENT_SECURITY_POLICY,
    strictTransportSecurity: false,
    referrerPolicy: { policy: 'no-referrer' },
  })
  app.addHook('onSend', async (request, reply) => {
    reply.header('permissions-policy', PERMISSIONS)
    // What a shop knows is in no cache of a tablet but its page's own.
    if (request.url.startsWith('/api/') && !reply.hasHeader('cache-control'))
      reply.header('cache-control', 'no-store')
  })
  tellPage(app, page)
  guard(app, hosts)
  speakAlike(app)
  await keepLimits(app, limits)
  const [people, heard, leaving] = [peopleStore(database.db), new Map<string, number>(), whenLeft()]
  await askWho(app, { signing, store: people, heard, clock })
  const threads = startThreads(threadLimits)
  app.addHook('onClose', () => threads.close())
  const reference = referenceStore(database.db)
  const entries = entryStore(database.db, { damaged: database.damage !== undefined })
  const time = serverTime(clock, database.damage ? 0 : await entries.lastReceived())
  const of = { file: database.file, logbook: database.logbook, damaged: database.damage !== undefined }
  // Soon, but not before the server answers. Where it fails, the first question says so.
  const told = () => ({ logbook: database.logbook, time: new Date(time()).toISOString() })
  const soon = setTimeout(() => threads.follow({ of, told: told() }).catch(() => undefined), READY_AFTER_MS)
  app.addHook('preClose', async () => clearTimeout(soon))
  const backups = backupKeeper({
    file: database.file,
    logbook: database.logbook,
    damaged: database.damage !== undefined,
    plan,
    threads,
    clock: time,
  })
  app.addHook('preClose', () => backups.end())
  const began = database.damage ? 0 : (await entries.last()).seq
  const feed = changeFeed(
    async () => ({
      place: { logbook: database.logbook, ...(await entries.last()) },
      stamp: await reference.stamp(),
      time: new Date(time()).toISOString(),
    }),
    began,
  )
  await app.register(peopleRoutes, {
    database,
    store: people,
    slow: slowDown(clock),
    leaving,
    heard,
    clock: time,
  })
  await app.register(changeRoutes, { feed, store: entries, leaving })
  const simulated = simulatedMachines(reference, threads, clock)
  await app.register(entryRoutes, {
    database,
    store: entries,
    people,
    reference,
    feed,
    backups,
    threads,
    of,
    clock: time,
  })
  await app.register(shopRoutes, { database, store: entries, backups, begins: own !== undefined })
  await app.register(beginRoutes, { own, clock: time })
  await app.register(importRoutes, { database, feed, threads, of, clock: time })
  await app.register(referenceRoutes, { database, feed, store: reference, clock: time })
  await app.register(simulatedRoutes, { machines: simulated, clock })
  await app.register(positionRoutes, { reference, simulated, agents, clock })
  await app.register(practiceRoutes, { database, simulated, threads, clock })
  await app.register(descriptionRoutes, { threads })
  await pages(app, page)
  return app
}
