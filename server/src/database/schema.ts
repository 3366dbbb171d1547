import { NOUNS } from '@dogleg/core/setup'
import { type SQL, sql } from 'drizzle-orm'
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core'

/** A part of an entry, where its row can be read at all. Written out: an index knows an expression by its text. */
const partOf = (path: string): SQL<string> =>
  sql.raw(`case when json_valid(body) then json_extract(body, '$.${path}') end`) as SQL<string>

/** The series of an entry with serial numbers, and the entry that one strikes out: both are looked up. */
export const seriesPart = partOf('series')
export const targetPart = partOf('target')

/** The log. `seq` is the order of arrival; nothing updates or deletes a row. */
export const entries = sqliteTable(
  'entries',
  {
    seq: integer('seq').primaryKey({ autoIncrement: true }),
    id: text('id').notNull().unique(),
    setup: text('setup').notNull(),
    body: text('body').notNull(),
    /** When it was received, in ms since 1970; nothing where no tablet sent it. */
    received: integer('received'),
    /** The latest moment at which it can have been made, in ms since 1970. */
    latest: integer('latest'),
  },
  (table) => [
    index('entries_setup').on(table.setup, table.seq),
    index('entries_received').on(table.received),
    index('entries_series').on(seriesPart).where(sql`${seriesPart} is not null`),
    index('entries_target').on(targetPart).where(sql`${targetPart} is not null`),
  ],
)

/** Long texts, each once, by the SHA-256 of it: the body of an entry has that in its place. Nothing updates or deletes a row. */
export const texts = sqliteTable('texts', {
  hash: text('hash').primaryKey(),
  text: text('text').notNull(),
})

/** Which logbook this is: one row, made with it. */
export const logbook = sqliteTable('logbook', { id: text('id').primaryKey() })

/** Machines, profiles, vises, collets and tools: every version of each row is kept. */
export const reference = sqliteTable(
  'reference',
  {
    noun: text('noun', {
      enum: NOUNS,
    }).notNull(),
    id: text('id').notNull(),
    version: integer('version').notNull(),
    body: text('body').notNull(),
    /** Who saved it, by initials, and when, in ms since 1970; nothing in versions from before that was kept. */
    by: text('by'),
    at: integer('at'),
  },
  (table) => [primaryKey({ columns: [table.noun, table.id, table.version] })],
)

/** Rows that were retired or brought back; of each row the last says which. Nothing updates or deletes one. */
export const retirements = sqliteTable('retirements', {
  seq: integer('seq').primaryKey({ autoIncrement: true }),
  noun: text('noun', { enum: NOUNS }).notNull(),
  id: text('id').notNull(),
  retired: integer('retired', { mode: 'boolean' }).notNull(),
  by: text('by'),
  at: integer('at').notNull(),
})

/** Results of exercises, as they were judged; nothing updates a row. */
export const practice = sqliteTable('practice', {
  id: text('id').primaryKey(),
  by: text('by').notNull(),
  body: text('body').notNull(),
})
