import { type Entry, setupFile } from '@dogleg/core/setup'
import type { FastifyInstance } from 'fastify'
import type { Database, Writer } from '../database/open.ts'
import { appendEntries } from '../entries/append.ts'
import { parse } from '../parse.ts'
import { Problem } from '../problem.ts'
import { addRow, NOUNS, type Noun, type Row, referenceStore } from '../reference/store.ts'

const LARGEST_FILE = 64 * 1024 * 1024

/** A row that was here already, and counts as it is here. */
interface KeptRow {
  noun: Noun
  name: string
}

/**
 * Takes a setup in from its file: the rows of reference data that are not here come with their versions, those that are stay as
 * they are, and the log is added to the last entry. In one transaction: all of it or nothing; sent twice, it is added once.
 */
export function importRoutes(app: FastifyInstance, { write }: Database, clock: () => number) {
  const takeRow = async <N extends Noun>(tx: Writer, noun: N, row: Row<N>): Promise<KeptRow | undefined> => {
    const standing = await referenceStore(tx).newest(noun, row.id)
    if (!standing) {
      await addRow(tx, noun, row)
      return undefined
    }
    return JSON.stringify(standing) === JSON.stringify(row) ? undefined : { noun, name: standing.name }
  }

  app.post('/api/setup-files', { bodyLimit: LARGEST_FILE }, async (request, reply) => {
    const file = parse(setupFile, request.body)
    const [machine] = file.reference.machines
    const profiles = file.reference.profiles.map(({ id }) => id)
    if (machine && !profiles.includes(machine.profileId))
      throw new Problem(422, 'profile-unknown', 'The profile of the machine is not in this file.')
    const opened = file.entries.find((entry): entry is Entry & { kind: 'opened' } => entry.kind === 'opened')
    if (!opened || opened.machine.id !== machine?.id)
      throw new Problem(422, 'machine-unknown', 'The machine of the setup is not in this file.')
    const taken = await write(async (tx) => {
      const kept: KeptRow[] = []
      for (const noun of NOUNS)
        for (const row of file.reference[noun]) {
          const standing = await takeRow(tx, noun, row)
          if (standing) kept.push(standing)
        }
      return {
        setup: opened.id,
        kept,
        ...(await appendEntries(tx, file.entries, { by: 'file', now: clock() })),
      }
    })
    return reply.code(201).send(taken)
  })
}
