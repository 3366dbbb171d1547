import type { Asked } from '@dogleg/core/api'
import { type Entry, readEntry } from '@dogleg/core/setup'
import type { FastifyPluginAsync } from 'fastify'
import { answers } from '../answer.ts'
import type { BackupKeeper } from '../backup/keeper.ts'
import type { ChangeFeed } from '../changes/feed.ts'
import type { Database } from '../database/open.ts'
import { signaturesOf } from '../people/signed.ts'
import type { PeopleStore } from '../people/store.ts'
import type { Who } from '../people/who.ts'
import { Problem } from '../problem.ts'
import type { ReferenceStore } from '../reference/store.ts'
import type { Logbook } from '../threads/record-jobs.ts'
import type { Threads } from '../threads/threads.ts'
import { appendEntries } from './append.ts'
import type { EntryStore } from './store.ts'

/** A board in which nothing was entered holds so long, in ms: a machine that stands is due to be walked round again. */
const BOARD_HOLDS_MS = 600_000

/** Entries that a tablet sends, through the one door. What cannot be read stays on the tablet: it is told why. */
const readSent = (sent: readonly unknown[]): Entry[] =>
  sent.map((data, n) => {
    const entry = readEntry(data)
    if (entry.kind !== 'unread') return entry
    if (entry.why === 'newer')
      throw new Problem(
        422,
        'written-by-newer',
        `This was written by a newer Dogleg than the server is, and stays on this tablet. Bring the server up to date, and send it again. ${entry.says}`,
        entry.id,
      )
    throw new Problem(422, 'not-valid', entry.says, [{ path: `entries.${n}`, says: entry.says }])
  })

/**
 * Routes of the log: add entries, read one setup's, and list the setups that they make. What is read is read in a thread of its own,
 * so that a long log holds up nobody who enters something.
 */
export const entryRoutes: FastifyPluginAsync<{
  database: Database
  store: EntryStore
  people: PeopleStore
  reference: ReferenceStore
  threads: Threads
  of: Logbook
  feed: ChangeFeed
  backups: BackupKeeper
  clock: () => number
}> = async (
  app,
  { database: { write, logbook, alarm }, store, people, reference, feed, backups, threads, of, clock },
) => {
  /** With every answer: which logbook this is, and the time. */
  const told = () => ({ logbook, time: new Date(clock()).toISOString() })

  /** How entries came: where people sign in, each is signed, or a lead gives back what the server had. */
  const arrivalOf = async (entries: readonly Entry[], body: Asked<'addEntries'>['body'], who: Who) => {
    const { held, sittings, givenBack } = body
    const lain = new Map(entries.map(({ id }, n) => [id, held?.[n] ?? 0]))
    const arrival = { by: 'tablet' as const, now: clock(), held: lain }
    if (!app.signing.signs) return arrival
    if (!givenBack)
      return {
        ...arrival,
        signed: await signaturesOf(who, entries, sittings, { store: people, now: clock() }),
      }
    if (who.stands !== 'lead')
      throw new Problem(403, 'not-allowed', 'A lead gives entries back: they may be anybody’s.')
    return { ...arrival, givenBack }
  }

  answers(app, 'addEntries', async ({ body }, { who }) => {
    const entries = readSent(body.entries)
    const arrival = await arrivalOf(entries, body, who)
    const { touched, last, ...done } = await write((tx) => appendEntries(tx, entries, arrival))
    if (touched.length > 0) feed.changed(touched, last)
    const { time } = told()
    return { ...done, place: { logbook, ...(await store.last()) }, time }
  })

  answers(app, 'setupLog', async ({ params: { id: setup }, query: { after, texts } }) =>
    threads.record('setupLog', { of, told: told(), setup, after, texts }),
  )

  answers(app, 'longText', async ({ params: { hash } }) => threads.record('longText', { of, hash }))

  answers(app, 'earlierRuns', async ({ params: { id: setup } }) =>
    threads.record('earlierRuns', { of, told: told(), setup }),
  )

  answers(app, 'machineLog', async ({ params: { id: machine }, query: { after } }) =>
    threads.record('machineLog', { of, told: told(), machine, after }),
  )

  answers(app, 'machinePrograms', async ({ params: { id: machine } }) =>
    threads.record('machinePrograms', { of, told: told(), machine }),
  )

  answers(app, 'machineTimes', async ({ params: { id: machine } }) =>
    threads.record('machineTimes', { of, told: told(), machine }),
  )

  answers(app, 'numbersLog', async ({ query: { series } }) =>
    threads.record('numbersLog', { of, told: told(), series }),
  )

  answers(app, 'board', async ({ query: { by, mark: known } }) => {
    const now = told()
    const { seq } = await store.last()
    const holds = [
      await reference.stamp(),
      Math.floor(Date.parse(now.time) / BOARD_HOLDS_MS),
      logbook,
      by ?? '',
    ].join('.')
    const mark = `${seq}.${holds}`
    const [saysNow, warnings] = [await alarm(), await backups.warnings()]
    const beside = {
      ...(saysNow === undefined ? {} : { alarm: saysNow }),
      ...(warnings.length === 0 ? {} : { warnings }),
    }
    // What is known up to a place, and else under the same circumstances, is not told again.
    const [place, ...rest] = known?.split('.') ?? []
    const since = rest.join('.') === holds && /^\d+$/.test(place ?? '') ? Number(place) : 0
    if (mark !== known) return threads.record('board', { of, told: now, beside, mark, since, by })
    const { time } = now
    return {
      mark,
      ...beside,
      place: { logbook, ...(await store.last()) },
      time,
    }
  })

  answers(app, 'search', async ({ query: { text, before } }) =>
    threads.record('search', { of, told: told(), typed: text, before }),
  )

  answers(app, 'jobSetups', async ({ params: { job }, query: { before } }) =>
    threads.record('jobSetups', { of, told: told(), job, before }),
  )

  answers(app, 'olderSetups', async ({ params: { id: machine }, query: { before, by } }) =>
    threads.record('olderSetups', { of, told: told(), machine, before, by }),
  )
}
