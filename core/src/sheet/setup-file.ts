import { z } from 'zod'
import { profile } from '../control/index.ts'
import { material } from '../cutting/index.ts'
import { collet, vise } from '../hold/index.ts'
import { initials, isUnread, plainly } from '../log/index.ts'
import { machine, toolShape } from '../machine/index.ts'
import { type Logged, type Reference, readEntry, readEntryText, type Setup } from '../setup/index.ts'
import type { SetupSheet } from './sheet.ts'

const MOST_ENTRIES = 20_000

/** Something of the log that could not be read where the file was made: it goes along as it stands. */
const unreadText = z.object({
  id: z.string().min(1).max(40),
  at: z.iso.datetime({ precision: 3 }),
  raw: z.string(),
})

/**
 * A setup as a file: its log to the last entry, the rows of reference data that it was derived with, and its sheet in words for
 * whoever reads it without Dogleg. What could not be read where it was made goes along, and makes it a file of version 2, which an
 * earlier Dogleg refuses instead of leaving it out. Read back, the log gives the same setup.
 */
const written = z.object({
  format: z.literal('dogleg-setup', { error: 'This is no file of a setup.' }),
  version: z.union([z.literal(1), z.literal(2)], {
    error: 'This file was written by a later version: bring this one up to date.',
  }),
  made: z.iso.datetime({ precision: 3 }),
  by: initials,
  sheet: z.looseObject({}).describe('the same in words; not read back'),
  entries: z.array(z.unknown()).min(1, 'The log in this file is empty.').max(MOST_ENTRIES),
  unread: z.array(unreadText).max(MOST_ENTRIES).optional(),
  reference: z.object({
    machines: z.array(machine).length(1, 'The machine of the setup is not in this file.'),
    profiles: z.array(profile).length(1, 'The profile of the machine is not in this file.'),
    vises: z.array(vise).max(100),
    collets: z.array(collet).max(200),
    tools: z.array(toolShape).max(1000),
    materials: z.array(material).max(200),
  }),
})
export type WrittenFile = z.input<typeof written>

/** The log of a file, through the one door. A newer Dogleg's entries are taken along unread; one that is damaged is refused. */
function logOf({ entries, unread = [] }: z.output<typeof written>, told: z.RefinementCtx): Logged[] {
  const log = entries.map((data, n): Logged => {
    const read = readEntry(data)
    if (read.kind === 'unread' && read.why === 'damaged')
      told.addIssue({ code: 'custom', message: read.says, path: ['entries', n] })
    return read
  })
  const opened = log.filter(({ kind }) => kind === 'opened')
  const setup = opened[0]?.id
  if (opened.length !== 1 || log.some((entry) => entry.setup !== setup))
    told.addIssue({
      code: 'custom',
      message: 'The file must hold the log of one setup, with the entry that opened it.',
      path: ['entries'],
    })
  return [...log, ...unread.map(({ id, at, raw }) => readEntryText(raw, { id, at, setup: setup ?? '' }))]
}

export const setupFile = written.transform((file, told) => ({ ...file, entries: logOf(file, told) }))
export type SetupFile = z.output<typeof setupFile>

/** Ids of rows that entries name anywhere. */
function namedIn(entries: readonly Logged[]): Set<string> {
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
  entries: readonly Logged[],
  reference: Reference,
  sheet: SetupSheet,
  by: string,
): WrittenFile {
  const named = namedIn(entries)
  const materials = new Set(entries.flatMap((each) => (each.kind === 'coded' ? [each.sheet.material] : [])))
  const unread = entries.filter(isUnread)
  return {
    format: 'dogleg-setup',
    version: unread.length > 0 ? 2 : 1,
    made: sheet.made,
    by,
    sheet: { ...sheet },
    entries: entries.filter((each) => !isUnread(each)),
    ...(unread.length > 0 ? { unread: unread.map(({ id, at, raw }) => ({ id, at, raw })) } : {}),
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

/** Reads the text of a file, `data` as it stands there; or the first thing that is wrong with it in a sentence. */
export function readSetupFile(
  text: string,
): { ok: true; file: SetupFile; data: unknown } | { ok: false; says: string } {
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch {
    return { ok: false, says: 'This is no JSON: choose the file that was saved from a setup sheet.' }
  }
  const read = setupFile.safeParse(data, { error: plainly })
  if (read.success) return { ok: true, file: read.data, data }
  const [issue] = read.error.issues
  const where = issue?.path.join('.') ?? ''
  return { ok: false, says: `${issue?.message ?? 'Not understood.'}${where ? ` (${where})` : ''}` }
}
