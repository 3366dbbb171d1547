import { problemBody } from '@dogleg/core/api'
import { expect } from 'vitest'
import { everyRoute } from '../description/describe.ts'

const ROUTES = [...everyRoute()].map(({ address: [method, path], ...rest }) => ({
  method,
  // What is named in a path is named by anything but a slash; a path without names comes before one with.
  named: path.includes(':'),
  fits: new RegExp(`^${path.replaceAll('.', '\\.').replace(/:\w+/g, '[^/]+')}(\\?|$)`),
  ...rest,
}))
const BY_NAMES = ROUTES.toSorted((a, b) => Number(a.named) - Number(b.named))

/** The route of the contract that a question is asked of; undefined where there is none. */
export const routeOf = (method: string, url: string) =>
  BY_NAMES.find((route) => route.method === method && route.fits.test(url))

/** Holds an answer against the contract: its status, all that it has to say, and nothing that the contract does not know of. */
export function holdToContract(method: string, url: string, status: number, body: unknown) {
  const route = routeOf(method, url)
  if (status >= 400) expect(problemBody.parse(body), `${method} ${url}`).toEqual(body)
  else {
    expect(route, `${method} ${url} stands in no contract`).toBeDefined()
    expect(status, `${method} ${url}`).toBe(route?.contract.status ?? 200)
    expect(route?.contract.answer.parse(body), `${method} ${url}`).toEqual(body)
  }
}
