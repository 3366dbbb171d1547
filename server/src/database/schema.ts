import { MAY } from '@dogleg/core/people'
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
    /** What the tablet was called that sent it; nothing where nobody signs in, and from before that was kept. */
    tablet: text('tablet'),
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

/** People of the shop: every version of each is kept, and the last counts. Initials are one person's for ever: the log names by them. */
export const people = sqliteTable(
  'people',
  {
    seq: integer('seq').primaryKey({ autoIncrement: true }),
    id: text('id').notNull(),
    initials: text('initials').notNull(),
    name: text('name').notNull(),
    may: text('may', { enum: MAY }).notNull(),
    gone: integer('gone', { mode: 'boolean' }).notNull(),
    by: text('by'),
    at: integer('at').notNull(),
  },
  (table) => [index('people_id').on(table.id, table.seq)],
)

/** The PIN of each, as argon2id has it. Of one that was changed nothing is left. */
export const pins = sqliteTable('pins', {
  person: text('person').primaryKey(),
  hash: text('hash').notNull(),
})

/** Tablets that were let in: every version of each is kept, and the last counts. */
export const tablets = sqliteTable(
  'tablets',
  {
    seq: integer('seq').primaryKey({ autoIncrement: true }),
    id: text('id').notNull(),
    name: text('name').notNull(),
    machine: text('machine'),
    /** Minutes without a touch; 0 for never. */
    locksAfter: integer('locks_after').notNull(),
    out: integer('out', { mode: 'boolean' }).notNull(),
    by: text('by'),
    at: integer('at').notNull(),
  },
  (table) => [index('tablets_id').on(table.id, table.seq)],
)

/** The keys of tablets, by the SHA-256 of each: the key itself is on the tablet only. */
export const tabletKeys = sqliteTable('tablet_keys', {
  hash: text('hash').primaryKey(),
  tablet: text('tablet').notNull(),
})

/** Codes by which a tablet is let in, by the SHA-256 of each. */
export const codes = sqliteTable('codes', {
  hash: text('hash').primaryKey(),
  /** Good until then, in ms since 1970; 0 once it was used, or tried too often. */
  until: integer('until').notNull(),
  by: text('by'),
})

/** Who was at which tablet from when to when, in ms since 1970; what was recorded there is signed by it. */
export const sittings = sqliteTable(
  'sittings',
  {
    id: text('id').primaryKey(),
    tablet: text('tablet').notNull(),
    person: text('person').notNull(),
    initials: text('initials').notNull(),
    /** What they might do then. */
    may: text('may', { enum: MAY }).notNull(),
    began: integer('began').notNull(),
    ended: integer('ended'),
  },
  (table) => [
    index('sittings_tablet').on(table.tablet, table.ended),
    // Those that are open are few, however many there ever were.
    index('sittings_open').on(table.tablet).where(sql`ended is null`),
  ],
)
