import { existsSync } from 'node:fs'
import { join } from 'node:path'
import fastifyStatic from '@fastify/static'
import type { FastifyInstance } from 'fastify'
import { Problem } from './problem.ts'

/** Serves the built page. Every address that is not of the API or a file is a view of the page. */
export async function pages(app: FastifyInstance, folder: string) {
  app.setNotFoundHandler((_request, reply) => {
    const problem = new Problem(404, 'not-found', 'There is nothing at this address.')
    return reply.code(problem.status).send(problem.body())
  })
  if (!existsSync(join(folder, 'index.html'))) return
  await app.register(fastifyStatic, {
    root: folder,
    // One route for all files, below: one for each of them takes a quarter of a second at every start.
    serve: false,
    preCompressed: true,
    cacheControl: false,
    setHeaders: (response, path) => {
      const forever = path.includes(join(folder, 'assets'))
      response.setHeader('cache-control', forever ? 'public, max-age=31536000, immutable' : 'no-cache')
    },
  })
  app.get<{ Params: { '*': string } }>('/*', (request, reply) => {
    const path = request.params['*']
    if (path === 'api' || path.startsWith('api/')) return reply.callNotFound()
    return reply.sendFile(/\.\w+$/.test(path) ? path : 'index.html')
  })
}
