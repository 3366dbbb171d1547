import { Writable } from 'node:stream'
import { type FastifyInstance, LogController } from 'fastify'
import { ulid } from 'ulid'
import { sqliteCode } from './database/errors.ts'

/** How much the server's log says, from nothing to all: requests are told from 'info' on, what is slow or fails before. */
export const LOG_LEVELS = ['silent', 'error', 'warn', 'info', 'debug'] as const
export type LogLevel = (typeof LOG_LEVELS)[number]

/** An answer that took longer is told even where requests are not, in ms. By judgement: a person at a tablet has looked up by then. */
const SLOW_MS = 1000

/** Errors of the language itself name what the code lacks; any other may quote what somebody wrote. */
const QUOTES_NOTHING: ReadonlySet<string> = new Set(['TypeError', 'ReferenceError', 'RangeError'])

/** What failed and where, without a word of what was sent: no program's text and no note is to stand in a log. */
export function failure(error: unknown): object {
  if (!(error instanceof Error)) return { type: typeof error }
  const { name, message, stack = '', cause } = error
  const code = sqliteCode(error) ?? (error as NodeJS.ErrnoException).code
  return {
    type: name,
    ...(code === undefined ? {} : { code }),
    ...(QUOTES_NOTHING.has(name) ? { says: message } : {}),
    at: stack
      .split('\n')
      .map((line) => line.trim())
      .filter((line) => line.startsWith('at ')),
    ...(cause === undefined ? {} : { cause: failure(cause) }),
  }
}

/** A number by which a failure is found in the log: short enough to be read out. */
export const newNumber = () => ulid().slice(-6)

/** Where a log goes, a line a time; standard output where nothing is said. */
export type LogTo = (line: string) => void

const linesTo = (to: LogTo) =>
  new Writable({
    write: (line, _encoding, done) => {
      to(String(line))
      done()
    },
  })

export const loggerOptions = (level: LogLevel, to?: LogTo) => ({
  // Told below, in one line when it was answered.
  logController: new LogController({ disableRequestLogging: true }),
  logger: {
    level,
    base: null,
    timestamp: () => `,"time":"${new Date().toISOString()}"`,
    ...(to ? { stream: linesTo(to) } : {}),
  },
})

/** One line a request: what was asked for, by its route, how it was answered and how long that took. */
export function logRequests(app: FastifyInstance) {
  app.addHook('onResponse', async (request, reply) => {
    const ms = Math.round(reply.elapsedTime)
    const { refusal } = reply
    const line = {
      method: request.method,
      route: request.routeOptions.url ?? 'none',
      status: reply.statusCode,
      ms,
      ...(refusal ? { refusal } : {}),
    }
    if (ms >= SLOW_MS && !request.routeOptions.config.lasts) request.log.warn(line, 'slow')
    else request.log.info(line, 'answered')
  })
}

declare module 'fastify' {
  interface FastifyReply {
    /** The code of the problem that it says, if it says one. */
    refusal: string
  }
}
