import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { note, type SigningApp, send, sessionOf, setupIn, signingApp } from '../testing/people.ts'

let shop: SigningApp
beforeEach(async () => {
  shop = await signingApp()
})
afterEach(() => shop.close())

describe('an entry', () => {
  it('is signed by whoever was at its tablet when it was made, and says which tablet', async () => {
    const tablet = await shop.tablet()
    const sitting = await tablet.signIn('KM')
    const setup = await setupIn(tablet)
    const [own, forged, bare] = [note(setup, 'KM'), note(setup, 'RT'), note(setup, 'KM')]
    expect(await send(tablet, sitting, own)).toEqual([201, undefined])
    expect(await send(tablet, sitting, forged)).toEqual([403, 'not-theirs'])
    expect(await send(tablet, '', bare)).toEqual([401, 'not-signed'])
    expect((await tablet.ask('POST', '/api/entries', { entries: [bare] })).status).toBe(401)
    expect(await send(await shop.tablet('KM'), sitting, bare)).toEqual([401, 'not-signed'])
    const wall = await shop.tablet()
    expect(await send(wall, await wall.signIn('WALL'), note(setup, 'WALL'))).toEqual([403, 'not-allowed'])
    const { entries } = (await tablet.ask('GET', `/api/setups/${setup}/entries`)).body as {
      entries: { id: string; tablet?: string }[]
    }
    expect(entries.find(({ id }) => id === own.id)?.tablet).toBe('Tablet 1')
    expect(entries.some(({ id }) => id === forged.id || id === bare.id)).toBe(false)
  })

  it('goes out under whoever made it after somebody else has come, and not as made after they left', async () => {
    const tablet = await shop.tablet()
    const first = await tablet.signIn('KM')
    const setup = await setupIn(tablet)
    const made = note(setup, 'KM')
    shop.pass(3600)
    const second = await tablet.signIn('RT')
    shop.pass(3600)
    expect(await send(tablet, first, made)).toEqual([201, undefined])
    const late = note(setup, 'KM', Date.now() + 7200_000)
    expect(await send(tablet, first, late)).toEqual([401, 'not-signed'])
    expect(await send(tablet, second, note(setup, 'RT', Date.now() + 7200_000))).toEqual([201, undefined])
    // With nobody at it any more, what is signed still goes out.
    await tablet.ask('POST', '/api/session/end', {})
    expect(await send(tablet, first, note(setup, 'KM', Date.now() + 60_000))).toEqual([201, undefined])
  })

  it('made while the server was away is signed afterwards, by its own person only', async () => {
    const tablet = await shop.tablet('RT')
    const setup = await setupIn(tablet)
    const away = Date.now() + 60_000
    shop.pass(7200)
    const made = note(setup, 'KM', away)
    const since = { since: new Date(away).toISOString(), over: true }
    const signed = await tablet.signIn('KM', since)
    // They were there then; who is there now stays.
    expect(await sessionOf(tablet)).toMatchObject({ person: { initials: 'RT' } })
    expect(await send(tablet, signed, made)).toEqual([201, undefined])
    const long = { by: 'KM', pin: '1973', since: '2019-01-01T00:00:00.000Z' }
    expect((await tablet.ask('POST', '/api/session/person', long)).status).toBe(422)
  })

  it('is struck out by whoever made it or by a lead, and by nobody else', async () => {
    const [operator, lead] = [await shop.tablet(), await shop.tablet()]
    const [km, rt] = [await operator.signIn('KM'), await lead.signIn('RT')]
    const setup = await setupIn(operator)
    const [own, theirs] = [note(setup, 'KM'), note(setup, 'RT')]
    await send(operator, km, own)
    await send(lead, rt, theirs)
    const strike = (target: string, by: string) => ({
      ...note(setup, by),
      kind: 'struck',
      target,
      reason: 'Slip.',
    })
    expect(await send(operator, km, strike(theirs.id, 'KM'))).toEqual([403, 'not-allowed'])
    expect(await send(operator, km, strike(own.id, 'KM'))).toEqual([201, undefined])
    expect(await send(lead, rt, strike(own.id, 'RT'))).toEqual([201, undefined])
  })

  it('that the server had is given back by a lead only, whoever made it', async () => {
    const [operator, lead] = [await shop.tablet('KM'), await shop.tablet('RT')]
    const setup = await setupIn(lead)
    const body = { entries: [{ ...note(setup, 'XY'), tablet: 'Mill 9' }], givenBack: true }
    expect((await operator.ask('POST', '/api/entries', body)).status).toBe(403)
    expect((await lead.ask('POST', '/api/entries', body)).body).toMatchObject({ added: 1 })
    const { entries } = (await lead.ask('GET', `/api/setups/${setup}/entries`)).body as {
      entries: { by: string; tablet?: string }[]
    }
    expect(entries.find(({ by }) => by === 'XY')?.tablet).toBe('Mill 9')
  })
})

describe('what is saved', () => {
  it('is by whoever is signed in, whatever the page says', async () => {
    const lead = await shop.tablet('RT')
    const { vises } = (await lead.ask('GET', '/api/vises')).body as { vises: { id: string; name: string }[] }
    const [vise] = vises
    await lead.ask('PUT', `/api/vises/${vise?.id}?by=KM`, { ...vise, name: 'Other' })
    const { versions } = (await lead.ask('GET', `/api/vises/${vise?.id}/versions`)).body as {
      versions: { by?: string }[]
    }
    expect(versions[0]?.by).toBe('RT')
  })
})
