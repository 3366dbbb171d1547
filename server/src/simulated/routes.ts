import { hiddenOf } from '@dogleg/core/simulated'
import type { FastifyPluginAsync, FastifyReply } from 'fastify'
import { answers } from '../answer.ts'
import {
  currentDocument,
  devicesDocument,
  type ErrorCode,
  errorDocument,
  rangeOf,
  sampleDocument,
} from './mtconnect.ts'
import { type Session, type SimulatedMachines, seenOf } from './sessions.ts'

/** Simulated machines: switched on, worked at, looked at; and what they publish as an MTConnect agent does. */
export const simulatedRoutes: FastifyPluginAsync<{
  machines: SimulatedMachines
  clock: () => number
}> = async (app, { machines, clock }) => {
  answers(app, 'switchOn', async ({ params: { id }, body: from }) => seenOf(await machines.begin(id, from)))

  answers(app, 'simulated', async ({ params: { id } }) => seenOf(await machines.wanted(id)))

  answers(app, 'workAt', async ({ params: { id }, body: { actions } }) =>
    seenOf(await machines.carryOut(id, actions)),
  )

  answers(app, 'simulatedProgram', async ({ params: { id } }) => ({
    text: (await machines.wanted(id)).simulated.plan?.text ?? '',
  }))

  answers(app, 'hidden', async ({ params: { id } }) => hiddenOf((await machines.wanted(id)).simulated))

  // What an agent publishes, by its own standard.
  const published = { config: { least: 'looker' as const } }
  type One = { Params: { id: string } }
  const xml = (reply: FastifyReply, text: string, status = 200) =>
    reply.code(status).type('text/xml; charset=utf-8').header('cache-control', 'no-store').send(text)
  const refuse = (reply: FastifyReply, status: number, code: ErrorCode, says: string, session?: Session) =>
    xml(reply, errorDocument(code, says, clock(), session?.instance), status)
  const OFF = 'No such machine is switched on.'

  app.get<One>('/simulated/:id/probe', published, async ({ params }, reply) => {
    const session = await machines.find(params.id)
    return session ? xml(reply, devicesDocument(session, clock())) : refuse(reply, 404, 'NO_DEVICE', OFF)
  })

  app.get<One>('/simulated/:id/current', published, async ({ params }, reply) => {
    const session = await machines.find(params.id)
    return session ? xml(reply, currentDocument(session, clock())) : refuse(reply, 404, 'NO_DEVICE', OFF)
  })

  type Sample = One & { Querystring: { from?: string; count?: string; interval?: string } }
  app.get<Sample>('/simulated/:id/sample', published, async ({ params, query }, reply) => {
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
