import { z } from 'zod'
import { profile } from '../control/index.ts'
import { material } from '../cutting/index.ts'
import { collet, vise } from '../hold/index.ts'
import { machine, toolShape } from '../machine/index.ts'
import { type Entry, entry, initials, type Reference, type Setup } from '../setup/index.ts'
import type { SetupSheet } from './sheet.ts'

const MOST_ENTRIES = 20_000

/**
 * A setup as a file: its log to the last entry, the rows of reference data that it was derived with, and its sheet in words for
 * whoever reads it without Dogleg. Read back, the log gives the same setup.
 */
export const setupFile = z
  .object({
    format: z.literal('dogleg-setup', { error: 'This is no file of a setup.' }),
    version: z.literal(1, { error: 'This file was written by a later version: bring this one up to date.' }),
    made: z.iso.datetime({ precision: 3 }),
    by: initials,
    sheet: z.looseObject({}).describe('the same in words; not read back'),
    entries: z.array(entry).min(1, 'The log in this file is empty.').max(MOST_ENTRIES),
    reference: z.object({
      machines: z.array(machine).length(1, 'The machine of the setup is not in this file.'),
      profiles: z.array(profile).length(1, 'The profile of the machine is not in this file.'),
      vises: z.array(vise).max(100),
      collets: z.array(collet).max(200),
      tools: z.array(toolShape).max(1000),
      materials: z.array(material).max(200),
    }),
  })
  .refine(
    ({ entries }) => {
      const opened = entries.filter(({ kind }) => kind === 'opened')
      return opened.length === 1 && entries.every(({ setup }) => setup === opened[0]?.id)
    },
    { error: 'The file must hold the log of one setup, with the entry that opened it.', path: ['entries'] },
  )
export type SetupFile = z.infer<typeof setupFile>

/** Ids of rows that entries name anywhere. */
function namedIn(entries: readonly Entry[]): Set<string> {
  const ids = new Set<string>()
  const visit = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return
    if ('id' in value && 'version' in value && typeof value.id === 'string') ids.add(value.id)
    for (const part of Object.values(value)) visit(part)
  }
  for (const each of entries) visit(each)
  return ids
}

/** A setup's file, with just the rows that its log names: its machine, profile and the machine's tools, and what else it used. */
export function makeSetupFile(
  { machine: own, profile: spoken }: Pick<Setup, 'machine' | 'profile'>,
  entries: readonly Entry[],
  reference: Reference,
  sheet: SetupSheet,
  by: string,
): SetupFile {
  const named = namedIn(entries)
  const materials = new Set(entries.flatMap((each) => (each.kind === 'coded' ? [each.sheet.material] : [])))
  return {
    format: 'dogleg-setup',
    version: 1,
    made: sheet.made,
    by,
    sheet: { ...sheet },
    entries: [...entries],
    reference: {
      machines: [own],
      profiles: [spoken],
      vises: reference.vises.filter(({ id }) => named.has(id)),
      collets: reference.collets.filter(({ id }) => named.has(id)),
      tools: reference.tools.filter(({ machineId }) => machineId === own.id),
      materials: reference.materials.filter(({ id }) => named.has(id) || materials.has(id)),
    },
  }
}

/** Reads the text of a file; the first thing that is wrong with it in a sentence. */
export function readSetupFile(text: string): { ok: true; file: SetupFile } | { ok: false; says: string } {
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch {
    return { ok: false, says: 'This is no JSON: choose the file that was saved from a setup sheet.' }
  }
  const read = setupFile.safeParse(data)
  if (read.success) return { ok: true, file: read.data }
  const [issue] = read.error.issues
  const where = issue?.path.join('.') ?? ''
  return { ok: false, says: `${issue?.message ?? 'Not understood.'}${where ? ` (${where})` : ''}` }
}
