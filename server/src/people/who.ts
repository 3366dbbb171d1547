import { type Standing, standsFor } from '@dogleg/core/api'
import type { May } from '@dogleg/core/people'
import cookie from '@fastify/cookie'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import { Problem } from '../problem.ts'
import type { PeopleStore } from './store.ts'

/** Who asks, as far as the server knows. */
export interface Who {
  stands: Standing
  /** Left out where nobody signs in, or nobody is at the tablet. */
  person?: { id: string; initials: string; name: string; may: May }
  tablet?: { id: string; name: string; machine: string | null; locksAfter: number }
  /** The stay of that person at that tablet. */
  sitting?: string
}

/** At one PC, where nobody signs in: everybody may everything. */
const EVERYBODY: Who = { stands: 'lead' }
const NOBODY: Who = { stands: 'anyone' }

/** A person leaves a tablet at the latest after so long, whatever was set: whoever reads only stays. In ms. */
const LONGEST_STAY_MS = 16 * 3_600_000
/** As long as browsers keep a cookie at most, in seconds. */
const KEY_LASTS_S = 400 * 24 * 3600

const cookieName = (secure: boolean) => (secure ? '__Host-dogleg' : 'dogleg')

/** Gives this tablet its key. */
export function setKey(reply: FastifyReply, key: string) {
  const { secure } = reply.request.server.signing
  const options = { path: '/', httpOnly: true, sameSite: 'strict' as const, secure, maxAge: KEY_LASTS_S }
  reply.setCookie(cookieName(secure), key, options)
}

/** Who is at the tablet that has a key. */
export async function whoHas(store: PeopleStore, key: string | undefined, now: number): Promise<Who> {
  const tablet = key === undefined ? undefined : await store.tabletByKey(key)
  if (!tablet) return NOBODY
  const { id, name, machine, locksAfter } = tablet
  const at: Who = { stands: 'tablet', tablet: { id, name, machine, locksAfter } }
  const open = await store.openAt(id)
  if (!open || (open.may !== 'looker' && now - open.began > LONGEST_STAY_MS)) return at
  const person = await store.personById(open.person)
  if (!person || person.gone) return at
  const { initials, name: called, may } = person
  return { ...at, stands: may, person: { id: person.id, initials, name: called, may }, sitting: open.id }
}

const SAYS: Record<Exclude<Standing, 'anyone'>, string> = {
  tablet: 'This tablet is not let in here. A lead makes a code for it on the page People.',
  looker: 'Nobody is signed in at this tablet. Sign in, and do it again.',
  operator: 'may look, not record: somebody who records does this.',
  lead: 'may not do this: a lead of the shop does it.',
}

function refuse({ stands, person }: Who, least: Standing): Problem {
  if (stands === 'anyone') return new Problem(401, 'tablet-unknown', SAYS.tablet)
  if (!person) return new Problem(401, 'signed-out', SAYS.looker)
  return new Problem(
    403,
    'not-allowed',
    `${person.initials} ${least === 'operator' ? SAYS.operator : SAYS.lead}`,
  )
}

export interface Signing {
  /** Whether people sign in. */
  signs: boolean
  /** Whether pages come over https: the key goes nowhere else then. */
  secure: boolean
  /** Over https: the port of the page that says how to trust it, once it is known. */
  plainPort?: () => number | undefined
  /** Names and addresses by which others reach this server. */
  names: readonly string[]
}

interface AskWhoOptions {
  signing: Signing
  store: PeopleStore
  /** When each tablet asked last, in ms since 1970: it is written here. */
  heard: Map<string, number>
  clock: () => number
}

/**
 * Finds out who asks, and refuses what they may not. What no right is told for nobody may: a new route is closed until the table of
 * rights has it.
 */
export async function askWho(app: FastifyInstance, { signing, store, heard, clock }: AskWhoOptions) {
  await app.register(cookie)
  app.decorate('signing', signing)
  app.decorateRequest('who')
  app.addHook('onRequest', async (request: FastifyRequest) => {
    request.who = signing.signs ? NOBODY : EVERYBODY
    const { least, open } = request.routeOptions.config
    if (!signing.signs || open || request.is404) return
    const key = request.cookies[cookieName(signing.secure)]
    if (key !== undefined || least !== 'anyone') request.who = await whoHas(store, key, clock())
    if (request.who.tablet) heard.set(request.who.tablet.id, clock())
    if (least === undefined || !standsFor(request.who.stands, least))
      throw refuse(request.who, least ?? 'lead')
  })
}

declare module 'fastify' {
  interface FastifyInstance {
    signing: Signing
  }
  interface FastifyRequest {
    who: Who
  }
  interface FastifyContextConfig {
    /** Who may ask this, at least. */
    least?: Standing
    /** Files of the page: they say nothing of the shop, and everybody gets them. */
    open?: true
  }
}
