import { type Entry, setupFile } from '@dogleg/core/setup'
import type { FastifyInstance } from 'fastify'
import type { Database } from '../database/open.ts'
import type { EntryStore } from '../entries/store.ts'
import { parse } from '../parse.ts'
import { Problem } from '../problem.ts'
import { NOUNS, type Noun, type ReferenceStore, type Row } from '../reference/store.ts'

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
export function importRoutes(
  app: FastifyInstance,
  { db }: Database,
  entries: EntryStore,
  reference: ReferenceStore,
  clock: () => number,
) {
  const addRow = <N extends Noun>(noun: N, row: Row<N>): KeptRow | undefined => {
    const standing = reference.newest(noun, row.id)
    if (!standing) {
      reference.add(noun, row)
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
    return reply.code(201).send(
      db.transaction(() => {
        const kept = NOUNS.flatMap((noun) =>
          (file.reference[noun] as Row<typeof noun>[]).flatMap((row) => addRow(noun, row) ?? []),
        )
        return { setup: opened.id, kept, ...entries.append(file.entries, clock()) }
      }),
    )
  })
}
