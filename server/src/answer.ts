import {
  type Address,
  type Answer,
  type Asked,
  CONTRACT,
  type Contract,
  RIGHTS,
  ROUTES,
  ROW_RIGHTS,
  ROW_ROUTES,
  type RouteName,
  type RowAnswers,
  type RowRouteName,
  rowContract,
  type Standing,
} from '@dogleg/core/api'
import type { Noun } from '@dogleg/core/setup'
import type { FastifyInstance, FastifyReply } from 'fastify'
import type { z } from 'zod'
import { parse } from './parse.ts'
import type { Who } from './people/who.ts'
import type { TextOf } from './threads/text.ts'

type Answering<Answered> = Promise<Answered | TextOf<Answered>>

const read = (schema: z.ZodType | undefined, data: unknown) => schema && parse(schema, data)

/** What a question takes at most with which little is sent, in bytes. */
const SMALL = 16 * 1024

/** Who asks, from where, and the answer where something is set in its head. */
export interface AskedBy {
  who: Who
  ip: string
  reply: FastifyReply
}

/** A route by its contract: whoever may not ask it is refused before what is asked is read, and that before `answer` has it. */
function route<Question>(
  app: FastifyInstance,
  [method, url]: Address,
  least: Standing,
  { params, query, body, door, status, immutable, small }: Contract,
  answer: (asked: Question, by: AskedBy) => Promise<unknown>,
) {
  app.route({
    method,
    url,
    config: { least },
    ...(small ? { bodyLimit: SMALL } : {}),
    handler: async (request, reply) => {
      const asked = {
        params: read(params, request.params),
        query: read(query, request.query),
        body: door ? request.body : read(body, request.body),
      }
      const answered = await answer(asked as Question, { who: request.who, ip: request.ip, reply })
      reply.code(status ?? 200)
      if (immutable) reply.header('cache-control', 'private, max-age=31536000, immutable')
      if (!(answered instanceof Uint8Array)) return answered
      const { buffer, byteOffset, byteLength } = answered
      return reply.type('application/json; charset=utf-8').send(Buffer.from(buffer, byteOffset, byteLength))
    },
  })
}

/** Answers a question of the contract. */
export const answers = <Name extends RouteName>(
  app: FastifyInstance,
  name: Name,
  answer: (asked: Asked<Name>, by: AskedBy) => Answering<Answer<Name>>,
) => route(app, ROUTES[name], RIGHTS[name], CONTRACT[name], answer)

/** What is asked about rows. The row comes through its door. */
interface AskedRows {
  params: { id: string }
  query: { by?: string | undefined }
  body: unknown
}

/** Answers a question about the rows of a noun. */
export function answersRows<Name extends RowRouteName, Of extends Noun>(
  app: FastifyInstance,
  name: Name,
  noun: Of,
  answer: (asked: AskedRows, by: AskedBy) => Promise<RowAnswers<Of>[Name]>,
) {
  const [method, path] = ROW_ROUTES[name]
  route(app, [method, path.replace(':noun', noun)], ROW_RIGHTS[name], rowContract(noun)[name], answer)
}
