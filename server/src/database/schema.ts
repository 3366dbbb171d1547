import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core'

/** The log. `seq` is the order of arrival; nothing updates or deletes a row. */
export const entries = sqliteTable(
  'entries',
  {
    seq: integer('seq').primaryKey({ autoIncrement: true }),
    id: text('id').notNull().unique(),
    setup: text('setup').notNull(),
    body: text('body').notNull(),
  },
  (table) => [index('entries_setup').on(table.setup, table.seq)],
)

/** Machines, profiles, vises, collets and tools: every version of each row is kept. */
export const reference = sqliteTable(
  'reference',
  {
    noun: text('noun', {
      enum: ['machines', 'profiles', 'vises', 'collets', 'tools', 'materials'],
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
