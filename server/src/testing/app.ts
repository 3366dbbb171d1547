import { join } from 'node:path'
import type { FastifyInstance } from 'fastify'
import { buildApp } from '../app.ts'
import { type Database, openDatabase } from '../database/open.ts'
import { fillDemo } from '../demo.ts'
import { USUAL_LIMITS } from '../limits.ts'
import type { Signing } from '../people/who.ts'
import { holdToContract } from './contract.ts'
import { newFolder } from './process.ts'

const MIGRATIONS = join(import.meta.dirname, '../../migrations')

export interface DemoApp {
  app: FastifyInstance
  database: Database
  /** Moves the clock on. */
  pass: (seconds: number) => void
  ask: (
    method: 'GET' | 'POST' | 'PUT',
    url: string,
    body?: unknown,
    cookie?: string,
  ) => Promise<{ status: number; body: never; text: string; type: string; cookie: string | undefined }>
  close: () => Promise<void>
}

/** The server on a logbook with the demo, with a clock of its own. Every answer that it gives is held against the contract. */
export async function demoApp(
  agents: ReadonlySet<string> = new Set(),
  signing: Signing = { signs: false, secure: false, names: [] },
): Promise<DemoApp> {
  const database = await openDatabase(join(newFolder(), 'log.sqlite'), MIGRATIONS)
  let now = Date.now()
  await fillDemo(database, now)
  const app = await buildApp({
    database,
    hosts: new Set(['localhost']),
    page: newFolder(),
    clock: () => now,
    agents,
    signing,
    // One address asks for all tablets of a test.
    limits: { ...USUAL_LIMITS, aMinute: 10_000_000 },
    own: { file: join(newFolder(), 'own.sqlite'), migrations: MIGRATIONS, goOn: () => undefined },
  })
  return {
    app,
    database,
    pass: (seconds) => {
      now += seconds * 1000
    },
    ask: async (method, url, body, cookie) => {
      const response = await app.inject({
        method,
        url,
        headers: {
          host: 'localhost:7080',
          ...(cookie === undefined ? {} : { cookie }),
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        },
        ...(body === undefined ? {} : { payload: JSON.stringify(body) }),
      })
      const type = String(response.headers['content-type'])
      const told: unknown = type.includes('json') ? response.json() : {}
      if (type.includes('json')) holdToContract(method, url, response.statusCode, told)
      return {
        status: response.statusCode,
        body: told as never,
        text: response.body,
        type,
        cookie: [response.headers['set-cookie']].flat()[0],
      }
    },
    close: async () => {
      await app.close()
      await database.close()
    },
  }
}
