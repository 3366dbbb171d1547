import { z } from 'zod'
import { clockStamp, type LogEntry, type UnreadEntry } from '../log/index.ts'
import { PROBLEM_CODES } from '../problem/index.ts'
import { KINDS, type Noun, type Row, rowKind } from '../setup/index.ts'

// What questions and answers are made of, more than one of them.

/** All that there is to say of one question: what is asked, and what is answered. */
export interface Contract {
  /** What it is for, in a sentence. */
  says: string
  params?: z.ZodObject
  query?: z.ZodObject
  body?: z.ZodType
  /** The body comes through a door of its own, which reads older shapes too: the schema says what is wanted today. */
  door?: true
  answer: z.ZodType
  /** What it is answered with where it made something. */
  status?: 201
  /** The answer comes again and again, as server-sent events. */
  stream?: true
  /** What is answered never changes: whoever has it need not ask again. */
  immutable?: true
  /** Little is sent with it: more than a few kB is refused before it is read. */
  small?: true
}

/** A refusal with a sentence for the person at the tablet. Every error has this one shape. */
export const problemBody = z.object({
  error: z.object({
    code: z.enum(PROBLEM_CODES),
    says: z.string().describe('what is wrong and what to do'),
    detail: z
      .unknown()
      .optional()
      .describe('what the page needs to go on: the row as it stands now, the fields that were refused'),
  }),
})
export type ProblemBody = z.infer<typeof problemBody>

/** What cannot be read as an entry, in its place. */
export const unreadEntry: z.ZodType<UnreadEntry> = z.object({
  id: z.string(),
  setup: z.string(),
  at: z.string(),
  by: z.string(),
  clock: clockStamp.optional(),
  received: z.string().optional(),
  latest: z.string().optional(),
  tablet: z.string().optional(),
  kind: z.literal('unread'),
  why: z.enum(['newer', 'damaged']),
  says: z.string(),
  raw: z.string().describe('what stands there, word for word'),
  said: z.string().exactOptional(),
  seq: z.int().exactOptional(),
})

/** One entry of the log, of any kind. */
export const entry: z.ZodType<LogEntry> = z.union(KINDS.map(({ schema }) => schema))

/** Whatever stands in a log: an entry, or what cannot be read as one. */
export const logged: z.ZodType<LogEntry> = z.union([entry, unreadEntry])

/** The same, where long texts may be named instead of standing in it. */
export const loggedNamed: z.ZodType<LogEntry> = z.union([
  logged,
  z.looseObject({ id: z.string(), setup: z.string(), at: z.string(), by: z.string(), kind: z.string() }),
])

/** Which logbook, and the place of its last entry. */
const place = z.object({ logbook: z.string(), seq: z.int().min(0) })
export type Place = z.infer<typeof place>

/** With every answer from the log: how far it goes, and the server's time. */
export const told = { place, time: z.iso.datetime({ precision: 3 }) }

/** A row of reference data that cannot be read: it was damaged, or written by a newer Dogleg. It stays as it is. */
const damagedRow = z.object({
  id: z.string(),
  version: z.int(),
  unread: z.enum(['newer', 'damaged']),
  says: z.string(),
})
export type DamagedRow = z.infer<typeof damagedRow>

/** A row that is retired. */
const retirement = z.object({
  id: z.string(),
  by: z.string().exactOptional().describe('who retired it, by initials; left out where nobody was signed in'),
  at: z.string().describe('when, ISO 8601'),
})
export type Retirement = z.infer<typeof retirement>

/** What goes with a list of rows: those that cannot be read, those that are retired, and a number that grows with every change. */
interface BesideRows {
  damaged: DamagedRow[]
  retired: Retirement[]
  stamp: number
}

/** A list of reference data, under its noun. */
export type RowList<Name extends Noun> = { [In in Name]: Row<Name>[] } & BesideRows

/** Puts a list together. */
export const listOfRows = <Name extends Noun>(name: Name, rows: Row<Name>[], beside: BesideRows) =>
  ({ [name]: rows, ...beside }) as RowList<Name>

export const rowOf = <Name extends Noun>(name: Name): z.ZodType<Row<Name>> => rowKind(name).schema

export const rowList = (name: Noun) =>
  z.object({
    [name]: z.array(rowOf(name)),
    damaged: z.array(damagedRow),
    retired: z.array(retirement).describe('those of the rows that are not used any more'),
    stamp: z.int().min(0),
  })

/** A version of a row as it was saved: the row itself in the shape of today, or why it cannot be read. */
export interface RowVersion<Name extends Noun> {
  version: number
  /** Who saved it, by initials; left out where nobody was signed in, and in old ones. */
  by?: string
  /** When, ISO 8601; left out in old ones. */
  at?: string
  row?: Row<Name>
  unread?: string
}

export const rowVersions = <Name extends Noun>(noun: Name) =>
  z.object({
    versions: z.array(
      z.object({
        version: z.int(),
        by: z.string().exactOptional(),
        at: z.string().exactOptional(),
        row: rowOf(noun).exactOptional(),
        unread: z.string().exactOptional(),
      }),
    ),
  })
