import type { Answer } from '@dogleg/core/api'
import type { FastifyPluginAsync } from 'fastify'
import { answers } from '../answer.ts'
import type { TextOf } from '../threads/text.ts'
import type { Threads } from '../threads/threads.ts'

/**
 * What this server is asked and what it answers, for whoever wants to connect something to it. It is put together once, at the first
 * question: it does not change while the server runs.
 */
export const descriptionRoutes: FastifyPluginAsync<{ threads: Threads }> = async (app, { threads }) => {
  let made: Promise<TextOf<Answer<'description'>>> | undefined
  answers(app, 'description', () => {
    made ??= threads.record('description', undefined).catch((error: unknown) => {
      made = undefined
      throw error
    })
    return made
  })
}
