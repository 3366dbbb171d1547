import type { FastifyPluginAsync } from 'fastify'
import { answers } from '../answer.ts'
import type { Threads } from '../threads/threads.ts'

/** What this server is asked and what it answers, for whoever wants to connect something to it. */
export const descriptionRoutes: FastifyPluginAsync<{ threads: Threads }> = async (app, { threads }) =>
  answers(app, 'description', async () => threads.record('description', undefined))
