import type { Answer, Asked } from '@dogleg/core/api'
import { mayAlso, sameInitials, type Tablet, USUAL_LOCK_MIN } from '@dogleg/core/people'
import type { FastifyPluginAsync } from 'fastify'
import { ulid } from 'ulid'
import { answers } from '../answer.ts'
import type { Writer } from '../database/connect.ts'
import { isUnwritable } from '../database/errors.ts'
import type { Database } from '../database/open.ts'
import { LogbookDamaged } from '../database/watch.ts'
import { nameIn } from '../guard.ts'
import { Problem } from '../problem.ts'
import type { Leaving } from './leaving.ts'
import { CODE_LASTS_MS, hashOfPin, isPin, newCode, newKey } from './secrets.ts'
import { LEEWAY_MS } from './signed.ts'
import type { SlowDown } from './slow.ts'
import {
  endSittings,
  giveKey,
  type PeopleStore,
  type PersonNow,
  peopleStore,
  saveCode,
  savePerson,
  savePin,
  saveSitting,
  saveTablet,
} from './store.ts'
import { setKey, type Who, whoHas } from './who.ts'

/** Nothing waits on a tablet for so long, in ms. */
const OLDEST_MS = 366 * 24 * 3_600_000

interface PeopleOptions {
  database: Database
  store: PeopleStore
  slow: SlowDown
  leaving: Leaving
  heard: ReadonlyMap<string, number>
  clock: () => number
}

const WRONG_PIN = 'These initials and this PIN do not belong together. Type both again.'
const WRONG_CODE =
  'This code is not good: it was used, is older than ten minutes, or was mistyped. A lead makes a new one on the page People.'

const NO_TABLETS =
  'Dogleg listens to this PC only, and no tablet reaches it. See docs/running.md for how to let tablets in.'

/** Leads who could sign in if `changed` were so. */
async function refuseLastLead(tx: Writer, changed: PersonNow, hasPin: boolean) {
  const others = (await peopleStore(tx).leads()).filter(({ id }) => id !== changed.id)
  if (others.length > 0 || (changed.may === 'lead' && !changed.gone && hasPin)) return
  throw new Problem(
    409,
    'last-lead',
    'Nobody else leads this shop: name another lead first, with a PIN, or nobody could let a tablet in.',
  )
}

/** Who is at a tablet, the people of the shop, and its tablets. */
export const peopleRoutes: FastifyPluginAsync<PeopleOptions> = async (app, options) => {
  sessionRoutes(app, options)
  leadRoutes(app, options)
}

type App = Parameters<typeof peopleRoutes>[0]

function sessionRoutes(app: App, { database: { write }, store, slow, leaving, clock }: PeopleOptions) {
  const { signs } = app.signing
  const sessionOf = ({ tablet, person, sitting }: Who): Answer<'session'> => ({
    signs,
    ...(tablet
      ? {
          tablet: {
            id: tablet.id,
            name: tablet.name,
            ...(tablet.machine === null ? {} : { machine: tablet.machine }),
            locksAfter: tablet.locksAfter,
          },
        }
      : {}),
    ...(person ? { person: { initials: person.initials, name: person.name, may: person.may } } : {}),
    ...(sitting === undefined ? {} : { sitting }),
  })
  const tabletOf = ({ tablet }: Who) => {
    if (tablet) return tablet
    throw new Problem(409, 'not-found', 'Nobody signs in here: everybody at this PC may do everything.')
  }
  const now = async (who: Who) => {
    const tablet = tabletOf(who)
    const open = await store.openAt(tablet.id)
    const person = open && (await store.personById(open.person))
    return sessionOf({ ...who, tablet, ...(open && person ? { person, sitting: open.id } : {}) })
  }

  answers(app, 'session', async (_asked, { who }) => sessionOf(who))

  answers(app, 'letIn', async ({ body: { code, name } }, { reply, ip }) => {
    if (!signs) throw new Problem(409, 'not-found', NO_TABLETS)
    slow.take([`let-in ${ip}`])
    const [id, key] = [ulid(), newKey()]
    await write(async (tx) => {
      const stands = await peopleStore(tx).codeStands(code)
      if (!stands || stands.until < clock()) throw new Problem(401, 'wrong-code', WRONG_CODE)
      await saveCode(tx, code, 0, undefined)
      const saved = { by: stands.by ?? undefined, at: clock() }
      await saveTablet(tx, { id, name, machine: null, locksAfter: USUAL_LOCK_MIN, out: false }, saved)
      await giveKey(tx, id, key)
    })
    slow.right([`let-in ${ip}`])
    setKey(reply, key)
    return sessionOf(await whoHas(store, key, clock()))
  })

  /** Holds a PIN against whoever it is said to be; what is wrong with it is not told. */
  const known = async (tablet: string, by: string, pin: string) => {
    const names = [`tablet ${tablet}`, `person ${by.toUpperCase()}`]
    slow.take(names)
    const person = await store.byInitials(by)
    // Whether there is anybody makes no difference to how long it takes.
    const right = await isPin(await store.pinOf(person?.id ?? ''), pin)
    if (!person || !right || person.gone) throw new Problem(401, 'wrong-pin', WRONG_PIN)
    slow.right(names)
    return person
  }

  answers(app, 'signIn', async ({ body: { by, pin, since, over } }, { who }) => {
    const tablet = tabletOf(who)
    const person = await known(tablet.id, by, pin)
    const at = clock()
    const began = since === undefined ? at : Date.parse(since)
    if (began > at + LEEWAY_MS || began < at - OLDEST_MS)
      throw new Problem(422, 'not-valid', 'Nobody has been at this tablet since then. Set its clock.')
    const signed = ulid()
    const sitting = {
      id: signed,
      tablet: tablet.id,
      person: person.id,
      initials: person.initials,
      may: person.may,
      began: Math.min(began, at),
      ended: over ? at : null,
    }
    store.spare.delete(tablet.id)
    try {
      await write(async (tx) => {
        if (!over) await endSittings(tx, { tablet: tablet.id }, at)
        await saveSitting(tx, sitting)
      })
    } catch (error) {
      // A file that takes nothing can be looked at all the same, and somebody must.
      if (!(error instanceof LogbookDamaged || isUnwritable(error))) throw error
      if (!over) store.spare.set(tablet.id, sitting)
    }
    return { ...(await now(who)), signed }
  })

  answers(app, 'signOut', async ({ body: { sitting } }, { who }) => {
    const { id } = tabletOf(who)
    if (sitting === undefined || store.spare.get(id)?.id === sitting) store.spare.delete(id)
    await write((tx) => endSittings(tx, { tablet: id, sitting }, clock()))
    if (!(await store.openAt(id))) leaving.left(id)
    const { person: _person, sitting: _sitting, ...left } = who
    return now(left)
  })

  answers(app, 'changePin', async ({ body: { pin, next } }, { who }) => {
    const tablet = tabletOf(who)
    if (!who.person) throw new Problem(409, 'not-found', 'Nobody is signed in here.')
    const { id } = await known(tablet.id, who.person.initials, pin)
    const hash = await hashOfPin(next)
    const left = await write(async (tx) => {
      await savePin(tx, id, hash)
      // Whoever is at another tablet under the PIN of before leaves it.
      return endSittings(tx, { person: id }, clock(), who.sitting)
    })
    for (const each of left) leaving.left(each)
    return { changed: true as const }
  })
}

function leadRoutes(app: App, { database: { write }, store, leaving, heard, clock }: PeopleOptions) {
  const byOf = ({ person }: Who) => ({ by: person?.initials, at: clock() })

  const people = async () => ({ people: await store.told() })
  answers(app, 'people', people)

  answers(app, 'addPerson', async ({ body: { pin, ...person } }, { who }) => {
    const hash = await hashOfPin(pin)
    await write(async (tx) => {
      const rows = peopleStore(tx)
      if (await rows.personById(person.id)) return // sent twice
      const other = await rows.byInitials(person.initials)
      if (other)
        throw new Problem(
          409,
          'person-there',
          `${other.initials} is ${other.name}${other.gone ? ', who has left' : ''}. The logbook names people by their initials: choose others.`,
        )
      await savePerson(tx, { ...person, gone: false }, byOf(who))
      await savePin(tx, person.id, hash)
    })
    return people()
  })

  answers(app, 'savePerson', async ({ params: { id }, body: { pin, ...next } }, { who }) => {
    const hash = pin === undefined ? undefined : await hashOfPin(pin)
    const left = await write(async (tx) => {
      const rows = peopleStore(tx)
      const before = await rows.personById(id)
      if (!before) throw new Problem(404, 'not-found', 'There is nobody of that name here.')
      const person = { id, initials: before.initials, ...next }
      if (before.may === 'lead')
        await refuseLastLead(tx, person, hash !== undefined || (await rows.pinOf(id)) !== undefined)
      await savePerson(tx, person, byOf(who))
      if (hash !== undefined) await savePin(tx, id, hash)
      // Gone, or with less that they may, they leave every tablet; with another PIN every other one.
      const lessened = person.gone || !mayAlso(person.may, before.may)
      if (!lessened && hash === undefined) return []
      return endSittings(tx, { person: id }, clock(), lessened ? undefined : who.sitting)
    })
    for (const each of left) leaving.left(each)
    return people()
  })

  const tablets = async () => {
    const at = new Map<string, string>()
    for (const { tablet, initials } of await store.allOpen()) at.set(tablet, initials)
    const told = (await store.allTablets()).map(({ id, name, machine, locksAfter, out }): Tablet => {
      const [person, last] = [at.get(id), heard.get(id)]
      return {
        id,
        name,
        ...(machine === null ? {} : { machine }),
        locksAfter,
        ...(out ? { out: true as const } : {}),
        ...(person === undefined || out ? {} : { person }),
        ...(last === undefined ? {} : { heard: new Date(last).toISOString() }),
      }
    })
    return { tablets: told.sort((a, b) => a.name.localeCompare(b.name)) }
  }
  answers(app, 'tablets', tablets)

  answers(app, 'newCode', async (_asked, { who, reply }) => {
    const { host = '' } = reply.request.headers
    if (!app.signing.signs) throw new Problem(409, 'not-found', NO_TABLETS)
    const code = newCode()
    const until = clock() + CODE_LASTS_MS
    await write((tx) => saveCode(tx, code, until, who.person?.initials))
    const bound = app.server.address()
    const port = typeof bound === 'object' ? bound?.port : undefined
    const { secure, names, plainPort } = app.signing
    const addresses = names.map((name) => `${secure ? 'https' : 'http'}://${name}:${port}`)
    const trust = plainPort?.()
    const [first] = [...names, nameIn(host)]
    return {
      code,
      until: new Date(until).toISOString(),
      addresses,
      ...(trust === undefined ? {} : { plain: `http://${first}:${trust}` }),
    }
  })

  answers(app, 'saveTablet', async ({ params: { id }, body }, { who }) => {
    await write(async (tx) => saveOne(tx, id, body, who))
    if (body.out) leaving.left(id)
    return tablets()
  })

  const saveOne = async (tx: Writer, id: string, body: Asked<'saveTablet'>['body'], who: Who) => {
    const rows = peopleStore(tx)
    if (!(await rows.tabletById(id)))
      throw new Problem(404, 'not-found', 'There is no such tablet here. Load this page again.')
    const { machine = null, ...next } = body
    if (!next.out)
      for (const other of await rows.allTablets())
        if (other.id !== id && !other.out && sameInitials(other.name, next.name))
          throw new Problem(409, 'id-taken', `Another tablet is called ${other.name}. Choose another name.`)
    await saveTablet(tx, { id, machine, ...next }, byOf(who))
    if (next.out) await endSittings(tx, { tablet: id }, clock())
  }
}
