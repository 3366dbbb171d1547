import type { FastifyPluginAsync } from 'fastify'
import { answers } from '../answer.ts'
import { Problem } from '../problem.ts'
import { type FirstRows, makeOwnShop } from './own-shop.ts'

/** An own shop that can be set up while the demo is shown. */
export interface OwnShop {
  file: string
  migrations: string
  /** Goes on with it once the answer is out. */
  goOn: () => void
}

/** The route by which an own shop is set up. */
export const beginRoutes: FastifyPluginAsync<{ own: OwnShop | undefined; clock: () => number }> = async (
  app,
  { own, clock },
) => {
  let making = false
  answers(app, 'setUpShop', async ({ body: { by, ...rows } }) => {
    if (!own || making)
      throw new Problem(409, 'own-shop-there', 'An own shop was set up here already. Load this page again.')
    making = true
    try {
      await makeOwnShop(own.file, own.migrations, rows as FirstRows, { by, at: clock() })
    } catch (error) {
      making = false
      throw error
    }
    // The answer first: whoever asked must hear of it.
    setTimeout(own.goOn, GO_ON_MS).unref()
    return { file: own.file }
  })
}

const GO_ON_MS = 200
