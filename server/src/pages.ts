import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { PAGE_HEADER } from '@dogleg/core/api'
import fastifyStatic from '@fastify/static'
import type { FastifyInstance } from 'fastify'
import { Problem } from './problem.ts'

/** The script that a page begins with: its name has a hash of all that is in it. None where it was not built. */
function scriptOf(folder: string): string | undefined {
  const index = join(folder, 'index.html')
  if (!existsSync(index)) return undefined
  return /<script type="module"[^>]* src="([^"]+)"/.exec(readFileSync(index, 'utf8'))?.[1]
}

/**
 * Says with every answer which page this server has: one that has stood open since before the server was changed knows itself by it,
 * and says so. What it does not know of today's answers it would pass over in silence.
 */
export function tellPage(app: FastifyInstance, folder: string) {
  const script = scriptOf(folder)
  if (script === undefined) return
  app.addHook('onSend', async (request, reply) => {
    if (request.url.startsWith('/api/')) reply.header(PAGE_HEADER, script)
  })
}

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
  app.get<{ Params: { '*': string } }>('/*', { config: { open: true } }, (request, reply) => {
    const path = request.params['*']
    if (path === 'api' || path.startsWith('api/')) return reply.callNotFound()
    return reply.sendFile(/\.\w+$/.test(path) ? path : 'index.html')
  })
}
