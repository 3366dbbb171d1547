import { existsSync } from 'node:fs'
import { join } from 'node:path'
import fastifyStatic from '@fastify/static'
import type { FastifyInstance } from 'fastify'
import { Problem } from './problem.ts'

/** Serves the built page. Every address that is not of the API or a file is a view of the page. */
export async function pages(app: FastifyInstance, folder: string) {
  if (existsSync(join(folder, 'index.html')))
    await app.register(fastifyStatic, {
      root: folder,
      preCompressed: true,
      index: false,
      cacheControl: false,
      setHeaders: (response, path) => {
        const forever = path.includes(join(folder, 'assets'))
        response.setHeader('cache-control', forever ? 'public, max-age=31536000, immutable' : 'no-cache')
      },
    })
  app.setNotFoundHandler((request, reply) => {
    const isView =
      request.method === 'GET' &&
      !request.url.startsWith('/api/') &&
      !/\.\w+$/.test(request.url.split('?')[0] ?? '')
    if (isView && existsSync(join(folder, 'index.html'))) return reply.sendFile('index.html')
    const problem = new Problem(404, 'not-found', 'There is nothing at this address.')
    return reply.code(problem.status).send(problem.body())
  })
}
