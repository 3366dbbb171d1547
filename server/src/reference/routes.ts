import type { FastifyInstance } from 'fastify'
import type { Database } from '../database/open.ts'
import { parse } from '../parse.ts'
import { Problem } from '../problem.ts'
import { addRow, type Noun, type ReferenceStore, ROW_SCHEMAS, type Row, referenceStore } from './store.ts'

const ONE: Record<Noun, string> = {
  machines: 'machine',
  profiles: 'profile',
  vises: 'vise',
  collets: 'collet',
  tools: 'tool',
  materials: 'material',
}

/**
 * Routes of one noun of reference data: list, add, and edit. An edit names the version that it was made from
 * and becomes the next one; when somebody else was quicker, it is refused with the row as it stands now.
 */
export function referenceRoutes<N extends Noun>(
  app: FastifyInstance,
  noun: N,
  { write }: Database,
  store: ReferenceStore,
) {
  /** The row that was sent, and those that stand as the transaction sees them. */
  const read = async (body: unknown, standing: ReferenceStore): Promise<Row<N>> => {
    const row = parse(ROW_SCHEMAS[noun], body) as Row<N>
    if ('profileId' in row && !(await standing.newest('profiles', row.profileId)))
      throw new Problem(
        422,
        'profile-unknown',
        `There is no profile "${row.profileId}". Choose one of the list.`,
      )
    return row
  }

  /** Two tools of one number on a machine would be one to every program: the second is refused, with the name of the first. */
  const refuseTwin = async (row: Row<N>, before: Row<N> | undefined, standing: ReferenceStore) => {
    if (!('number' in row && 'machineId' in row)) return
    const same = (other: Row<N> | undefined) =>
      other !== undefined &&
      'number' in other &&
      'machineId' in other &&
      other.number === row.number &&
      other.machineId === row.machineId
    // One that was let in before keeps its number until it is given another.
    if (same(before)) return
    const { rows } = await standing.all(noun)
    const twin = rows.find((other) => other.id !== row.id && same(other))
    if (twin)
      throw new Problem(
        409,
        'number-taken',
        `T${row.number} of this machine is ${twin.name} already. Give this tool another number, or correct that one.`,
      )
  }

  // The stamp first: a version that is added between the two is then asked for again, and not missed.
  app.get(`/api/${noun}`, async () => {
    const stamp = await store.stamp()
    const { rows, damaged } = await store.all(noun)
    return { [noun]: rows, damaged, stamp }
  })

  app.post(`/api/${noun}`, async (request, reply) => {
    const added = await write(async (tx) => {
      const rows = referenceStore(tx)
      const row = { ...(await read(request.body, rows)), version: 1 }
      const standing = await rows.newest(noun, row.id)
      if (standing && JSON.stringify(standing) !== JSON.stringify(row))
        throw new Problem(
          409,
          'id-taken',
          `There is a ${ONE[noun]} with this id already. Reload and try again.`,
          standing,
        )
      if (!standing) {
        await refuseTwin(row, undefined, rows)
        await addRow(tx, noun, row)
      }
      return row
    })
    return reply.code(201).send(added)
  })

  app.put<{ Params: { id: string } }>(`/api/${noun}/:id`, async (request) =>
    write(async (tx) => {
      const rows = referenceStore(tx)
      const row = await read(request.body, rows)
      const standing = await rows.newest(noun, request.params.id)
      if (!standing || row.id !== request.params.id)
        throw new Problem(404, 'not-found', `There is no ${ONE[noun]} "${request.params.id}" here.`)
      const next = { ...row, version: row.version + 1 }
      if (JSON.stringify(standing) === JSON.stringify(next)) return standing // the same edit, sent twice
      if (standing.version !== row.version)
        throw new Problem(
          409,
          'edited-meanwhile',
          `Somebody else saved this ${ONE[noun]} after you opened it (version ${standing.version}). Look at theirs, then enter your change again.`,
          standing,
        )
      await refuseTwin(next, standing, rows)
      await addRow(tx, noun, next)
      return next
    }),
  )
}

/** Whether any row has changed since a list was read: one number, which costs one look at the end of the table. */
export const referenceStampRoute = (app: FastifyInstance, store: ReferenceStore) =>
  app.get('/api/reference-stamp', async () => ({ stamp: await store.stamp() }))
