import { RIGHTS, ROW_RIGHTS, STANDINGS, type Standing, standsFor } from '@dogleg/core/api'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { everyRoute } from '../description/describe.ts'
import { type SigningApp, signingApp, type TestTablet } from '../testing/people.ts'

// The table of rights, walked: every route, asked by every kind of person, by a tablet with nobody at it, and by a foreign one.

let shop: SigningApp
const askers = {} as Record<Standing, TestTablet>
beforeAll(async () => {
  shop = await signingApp()
  askers.anyone = shop.foreign()
  askers.tablet = await shop.tablet()
  askers.looker = await shop.tablet('WALL')
  askers.operator = await shop.tablet('KM')
  askers.lead = await shop.tablet('RT')
})
afterAll(() => shop.close())

const leastFor = (name: string): Standing => {
  const [route, noun] = name.split('-')
  return noun === undefined
    ? RIGHTS[route as keyof typeof RIGHTS]
    : ROW_RIGHTS[route as keyof typeof ROW_RIGHTS]
}
const REFUSED: Record<Exclude<Standing, 'lead'>, [number, string]> = {
  anyone: [401, 'tablet-unknown'],
  tablet: [401, 'signed-out'],
  looker: [403, 'not-allowed'],
  operator: [403, 'not-allowed'],
}

/** The path with something in the place of what is named, that harms nothing where it is let through. */
const somewhere = (path: string) => path.replace(/:(\w+)/g, 'none')
/** What would leave the tablet, or never end: that it is let through is tested where it belongs. */
const LEAVES = ['signOut', 'changes']

describe('the table of rights', () => {
  const walked = STANDINGS.flatMap((stands) =>
    [...everyRoute()].map((route) => [stands, route.name, route] as const),
  )
  it.each(walked)('%s asks %s', async (stands, name, { address: [method, path] }) => {
    const allowed = standsFor(stands, leastFor(name))
    if (allowed && LEAVES.includes(name)) return
    const { status, body } = (await askers[stands].ask(
      method,
      somewhere(path),
      method === 'GET' ? undefined : {},
    )) as { status: number; body: { error?: { code: string; says: string } } }
    if (allowed || stands === 'lead') {
      expect([401, 403, 500]).not.toContain(status)
      return
    }
    expect([status, body.error?.code]).toEqual(REFUSED[stands])
    expect(body.error?.says).toMatch(/^[A-Z].*\.$/)
  })

  it('knows every route there is', () => {
    for (const { name } of everyRoute()) expect(STANDINGS).toContain(leastFor(name))
  })

  it('is closed for what stands outside of it: another address of the server, the simulated agent', async () => {
    for (const stands of ['anyone', 'tablet'] as const)
      for (const path of ['probe', 'current', 'sample'])
        expect((await askers[stands].ask('GET', `/simulated/mill-1/${path}`)).status).toBe(401)
    expect((await askers.looker.ask('GET', '/simulated/mill-1/current')).status).toBe(404)
    expect((await askers.anyone.ask('GET', '/api/nothing-here')).status).toBe(404)
  })

  it('lets through whoever has it by the path of the standing, and nobody else', async () => {
    const lead = await shop.foreign().ask('GET', '/api/people')
    expect(lead.status).toBe(401)
    for (const key of ['dogleg=', 'dogleg=x', 'dogleg=%00', `dogleg=${'a'.repeat(5000)}`, 'other=1'])
      expect((await shop.ask('GET', '/api/people', undefined, key)).status).toBe(401)
    expect((await shop.ask('GET', '/api/people', undefined, askers.lead.cookie())).status).toBe(200)
  })
})
