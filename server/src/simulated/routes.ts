import { lengthUnit } from '@dogleg/core/quantity'
import { hiddenOf, simulatedAction } from '@dogleg/core/simulated'
import type { FastifyPluginAsync, FastifyReply } from 'fastify'
import { z } from 'zod'
import { parse } from '../parse.ts'
import {
  currentDocument,
  devicesDocument,
  type ErrorCode,
  errorDocument,
  rangeOf,
  sampleDocument,
} from './mtconnect.ts'
import { type Session, type SimulatedMachines, seenOf } from './sessions.ts'

const seed = z.int('A piece has a whole number.').min(1).max(999_999).optional()
const begins = z.union([
  z.object({ machine: z.string().min(1).max(40), seed }),
  z.object({ exercise: z.string().min(1).max(40), unit: lengthUnit, seed }),
])
const actions = z.object({ actions: z.array(simulatedAction).min(1).max(200) })
const identifier = z
  .string()
  .regex(/^[\w-]{1,60}$/, 'A simulated machine has a name of letters, digits and dashes.')

/** Simulated machines: switched on, worked at, looked at; and what they publish as an MTConnect agent does. */
export const simulatedRoutes: FastifyPluginAsync<{
  machines: SimulatedMachines
  clock: () => number
}> = async (app, { machines, clock }) => {
  type One = { Params: { id: string } }

  app.put<One>('/api/simulated/:id', async (request) => {
    const from = parse(begins, request.body)
    const session = await machines.begin(parse(identifier, request.params.id), { ...from, seed: from.seed })
    return seenOf(session)
  })

  app.get<One>('/api/simulated/:id', async ({ params }) => seenOf(await machines.wanted(params.id)))

  app.post<One>('/api/simulated/:id/actions', async ({ params, body }) => {
    const asked = parse(actions, body)
    return seenOf(await machines.carryOut(params.id, asked.actions))
  })

  /** The text of the program that is loaded; empty where none is. */
  app.get<One>('/api/simulated/:id/program', async ({ params }) => ({
    text: (await machines.wanted(params.id)).simulated.plan?.text ?? '',
  }))

  app.get<One>('/api/simulated/:id/hidden', async ({ params }) =>
    hiddenOf((await machines.wanted(params.id)).simulated),
  )

  const xml = (reply: FastifyReply, text: string, status = 200) =>
    reply.code(status).type('text/xml; charset=utf-8').header('cache-control', 'no-store').send(text)
  const refuse = (reply: FastifyReply, status: number, code: ErrorCode, says: string, session?: Session) =>
    xml(reply, errorDocument(code, says, clock(), session?.instance), status)
  const OFF = 'No such machine is switched on.'

  app.get<One>('/simulated/:id/probe', async ({ params }, reply) => {
    const session = await machines.find(params.id)
    return session ? xml(reply, devicesDocument(session, clock())) : refuse(reply, 404, 'NO_DEVICE', OFF)
  })

  app.get<One>('/simulated/:id/current', async ({ params }, reply) => {
    const session = await machines.find(params.id)
    return session ? xml(reply, currentDocument(session, clock())) : refuse(reply, 404, 'NO_DEVICE', OFF)
  })

  type Sample = One & { Querystring: { from?: string; count?: string; interval?: string } }
  app.get<Sample>('/simulated/:id/sample', async ({ params, query }, reply) => {
    const session = await machines.find(params.id)
    if (!session) return refuse(reply, 404, 'NO_DEVICE', OFF)
    if (query.interval !== undefined)
      return refuse(
        reply,
        400,
        'UNSUPPORTED',
        'Streaming with an interval is not supported: ask again.',
        session,
      )
    const { least, most } = rangeOf(session)
    const [from, count] = [Number(query.from ?? least), Number(query.count ?? 100)]
    if (!Number.isInteger(from) || !Number.isInteger(count) || count < 1 || count > 1000)
      return refuse(
        reply,
        400,
        'INVALID_REQUEST',
        "'from' and 'count' are whole numbers, count up to 1000.",
        session,
      )
    if (from < least || from > most)
      return refuse(reply, 400, 'OUT_OF_RANGE', `'from' must be between ${least} and ${most}.`, session)
    return xml(reply, sampleDocument(session, clock(), from, count))
  })
}
