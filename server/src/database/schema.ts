import { NOUNS } from '@dogleg/core/setup'
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core'

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
  ],
)

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
  },
  (table) => [primaryKey({ columns: [table.noun, table.id, table.version] })],
)

/** Results of exercises, as they were judged; nothing updates a row. */
export const practice = sqliteTable('practice', {
  id: text('id').primaryKey(),
  by: text('by').notNull(),
  body: text('body').notNull(),
})
