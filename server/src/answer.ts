import {
  type Address,
  type Answer,
  type Asked,
  CONTRACT,
  type Contract,
  ROUTES,
  ROW_ROUTES,
  type RouteName,
  type RowAnswers,
  type RowRouteName,
  rowContract,
} from '@dogleg/core/api'
import type { Noun } from '@dogleg/core/setup'
import type { FastifyInstance } from 'fastify'
import type { z } from 'zod'
import { parse } from './parse.ts'
import type { TextOf } from './threads/text.ts'

type Answering<Answered> = Promise<Answered | TextOf<Answered>>

const read = (schema: z.ZodType | undefined, data: unknown) => schema && parse(schema, data)

/** A route by its contract: what is asked is read before `answer` has it. */
function route<Question>(
  app: FastifyInstance,
  [method, url]: Address,
  { params, query, body, door, status, immutable }: Contract,
  answer: (asked: Question) => Promise<unknown>,
) {
  app.route({
    method,
    url,
    handler: async (request, reply) => {
      const asked = {
        params: read(params, request.params),
        query: read(query, request.query),
        body: door ? request.body : read(body, request.body),
      }
      const answered = await answer(asked as Question)
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
  answer: (asked: Asked<Name>) => Answering<Answer<Name>>,
) => route(app, ROUTES[name], CONTRACT[name], answer)

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
  answer: (asked: AskedRows) => Promise<RowAnswers<Of>[Name]>,
) {
  const [method, path] = ROW_ROUTES[name]
  route(app, [method, path.replace(':noun', noun)], rowContract(noun)[name], answer)
}
