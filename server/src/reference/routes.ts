import { listOfRows } from '@dogleg/core/api'
import { isUnreadRow } from '@dogleg/core/rows'
import { NOUNS, type Noun, type Row, readRow, rowKind } from '@dogleg/core/setup'
import type { FastifyInstance, FastifyPluginAsync } from 'fastify'
import { answers, answersRows } from '../answer.ts'
import type { ChangeFeed } from '../changes/feed.ts'
import type { Writer } from '../database/connect.ts'
import type { Database } from '../database/open.ts'
import type { Who } from '../people/who.ts'
import { Problem } from '../problem.ts'
import { addRow, type ReferenceStore, referenceStore, retireRow } from './store.ts'

interface ReferenceOptions {
  database: Database
  feed: ChangeFeed
  store: ReferenceStore
  clock: () => number
}

/**
 * Routes of one noun of reference data: list, add, and edit. An edit names the version that it was made from
 * and becomes the next one; when somebody else was quicker, it is refused with the row as it stands now.
 */
function nounRoutes<N extends Noun>(
  app: FastifyInstance,
  noun: N,
  { database, feed, store, clock }: ReferenceOptions,
) {
  const { one, needs, clashes, follows } = rowKind(noun)
  /** Who saves it: whoever is signed in, and where nobody signs in whoever the page says. */
  const savedBy = ({ person }: Who, { by }: { by?: string | undefined }) => ({
    by: person?.initials ?? by,
    at: clock(),
  })
  /** The row as it is kept. */
  const kept = (row: Row<N>, before: Row<N> | undefined, { by }: { by?: string | undefined }): Row<N> =>
    follows ? follows(row, before, by) : row
  const write = async <T>(work: (tx: Writer) => Promise<T>): Promise<T> => {
    const done = await database.write(work)
    feed.rowChanged()
    return done
  }

  /** The row that was sent, with all that it needs as the transaction sees it. */
  const read = async (body: unknown, standing: ReferenceStore): Promise<Row<N>> => {
    const row = readRow(noun, body)
    if (isUnreadRow(row))
      throw row.unread === 'newer'
        ? new Problem(
            422,
            'written-by-newer',
            `This page is newer than the server: load it again. ${row.says}`,
          )
        : new Problem(422, 'not-valid', row.says)
    for (const { noun: of, id, code, says } of needs?.(row) ?? [])
      if (!(await standing.newest(of as Noun, id))) throw new Problem(422, code, says)
    return row as Row<N>
  }

  /** A row that cannot stand beside another is refused, with what that one is. */
  const refuseTwin = async (row: Row<N>, before: Row<N> | undefined, standing: ReferenceStore) => {
    if (!clashes) return
    // One that was let in before keeps what it has until it is given something else.
    if (before && clashes(row, before) !== undefined) return
    const { rows } = await standing.all(noun)
    const retired = new Set((await standing.retired(noun)).map(({ id }) => id))
    for (const other of rows) {
      if (retired.has(other.id)) continue
      const says = other.id === row.id ? undefined : clashes(row, other)
      if (says !== undefined) throw new Problem(409, 'number-taken', says)
    }
  }

  // The stamp first: a version that is added between the two is then asked for again, and not missed.
  answersRows(app, 'rows', noun, async () => {
    const stamp = await store.stamp()
    const { rows, damaged } = await store.all(noun)
    const retired = (await store.retired(noun)).map(({ noun: _, ...each }) => each)
    return listOfRows(noun, rows, { damaged, retired, stamp })
  })

  answersRows(app, 'addRow', noun, async ({ body, query }, { who }) =>
    write(async (tx) => {
      const rows = referenceStore(tx)
      const row = kept({ ...(await read(body, rows)), version: 1 }, undefined, savedBy(who, query))
      const standing = await rows.newest(noun, row.id)
      if (standing && JSON.stringify(standing) !== JSON.stringify(row))
        throw new Problem(
          409,
          'id-taken',
          `There is a ${one} with this id already. Reload and try again.`,
          standing,
        )
      if (!standing) {
        await refuseTwin(row, undefined, rows)
        await addRow(tx, noun, row, savedBy(who, query))
      }
      return row
    }),
  )

  answersRows(app, 'saveRow', noun, async ({ params: { id }, query, body }, { who }) =>
    write(async (tx) => {
      const rows = referenceStore(tx)
      const row = await read(body, rows)
      const standing = await rows.newest(noun, id)
      if (!standing || row.id !== id) throw new Problem(404, 'not-found', `There is no ${one} "${id}" here.`)
      const next = kept({ ...row, version: row.version + 1 }, standing, savedBy(who, query))
      if (JSON.stringify(standing) === JSON.stringify(next)) return standing // the same edit, sent twice
      if (standing.version !== row.version)
        throw new Problem(
          409,
          'edited-meanwhile',
          `Somebody else saved this ${one} after you opened it (version ${standing.version}). Look at theirs, then enter your change again.`,
          standing,
        )
      await refuseTwin(next, standing, rows)
      await addRow(tx, noun, next, savedBy(who, query))
      return next
    }),
  )

  answersRows(app, 'rowVersions', noun, async ({ params: { id } }) => {
    const versions = await store.versions(noun, id)
    if (versions.length === 0) throw new Problem(404, 'not-found', `There is no ${one} "${id}" here.`)
    return { versions }
  })

  answersRows(app, 'retireRow', noun, async ({ params: { id }, query, body }, { who }) =>
    write(async (tx) => {
      const rows = referenceStore(tx)
      const { retired } = body as { retired: boolean }
      const standing = await rows.newest(noun, id)
      if (!standing) throw new Problem(404, 'not-found', `There is no ${one} "${id}" here.`)
      const before = (await rows.retired(noun)).some((each) => each.id === id)
      if (before === retired) return { id, retired }
      // While it was away another may have come to what it had.
      if (!retired) await refuseTwin(standing, undefined, rows)
      await retireRow(tx, noun, id, retired, savedBy(who, query))
      return { id, retired }
    }),
  )
}

/** Routes of every noun, and whether any row has changed since a list was read: one number, which costs one look at the end of the table. */
export const referenceRoutes: FastifyPluginAsync<ReferenceOptions> = async (app, options) => {
  for (const noun of NOUNS) nounRoutes(app, noun, options)
  answers(app, 'referenceStamp', async () => ({ stamp: await options.store.stamp() }))
}
