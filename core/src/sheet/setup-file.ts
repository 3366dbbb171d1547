import { z } from 'zod'
import { initials, isUnread, plainly } from '../log/index.ts'
import { type AnyRow, isUnreadRow } from '../rows/index.ts'
import {
  type Logged,
  NOUNS,
  type Noun,
  type Reference,
  type Row,
  readEntry,
  readEntryText,
  readRow,
  rowKind,
  type Setup,
} from '../setup/index.ts'
import type { SetupSheet } from './sheet.ts'

const MOST_ENTRIES = 20_000

type RowSchemas = { [Name in Noun]: z.ZodDefault<z.ZodArray<z.ZodUnknown>> }

/** Rows of a noun, not read yet; one that there was not when the file was made has none. */
const rowsOf = (noun: Noun) => z.array(z.unknown()).max(rowKind(noun).inFile.most).default([])

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
  reference: z.object(Object.fromEntries(NOUNS.map((noun) => [noun, rowsOf(noun)])) as RowSchemas),
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

/** The rows of a file, through their door. One that cannot be read is refused: nothing could be derived with it. */
function referenceOf({ reference }: z.output<typeof written>, told: z.RefinementCtx): Reference {
  const refuse = (message: string, ...path: (string | number)[]) =>
    told.addIssue({ code: 'custom', message, path: ['reference', ...path] })
  const read = <Name extends Noun>(noun: Name): Row<Name>[] =>
    reference[noun].flatMap((data, n) => {
      const row = readRow(noun, data)
      if (!isUnreadRow(row)) return [row as Row<Name>]
      refuse(
        row.unread === 'newer' ? `A newer Dogleg wrote this ${rowKind(noun).one}. ${row.says}` : row.says,
        noun,
        n,
      )
      return []
    })
  const rows = Object.fromEntries(NOUNS.map((noun) => [noun, read(noun)])) as unknown as Reference
  if (reference.machines.length !== 1) refuse('The machine of the setup is not in this file.', 'machines')
  if (reference.profiles.length !== 1) refuse('The profile of the machine is not in this file.', 'profiles')
  return rows
}

export const setupFile = written.transform((file, told) => ({
  ...file,
  entries: logOf(file, told),
  reference: referenceOf(file, told),
}))
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

/** The rows of each noun that are asked for. */
const rowsFor = (reference: Reference, wanted: (noun: Noun, row: AnyRow) => boolean) =>
  Object.fromEntries(
    NOUNS.map((noun) => [noun, (reference[noun] as readonly AnyRow[]).filter((row) => wanted(noun, row))]),
  ) as Record<Noun, AnyRow[]>

/** A setup's file, with just the rows that its log names: its machine, profile and the machine's tools, and what else it used. */
export function makeSetupFile(
  { machine: own, profile: spoken }: Pick<Setup, 'machine' | 'profile'>,
  entries: readonly Logged[],
  reference: Reference,
  sheet: SetupSheet,
  by: string,
): WrittenFile {
  const named = namedIn(entries)
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
      ...rowsFor(reference, (noun, row) =>
        rowKind(noun).inFile.which === 'named'
          ? named.has(row.id)
          : 'machineId' in row && row.machineId === own.id,
      ),
      machines: [own],
      profiles: [spoken],
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
