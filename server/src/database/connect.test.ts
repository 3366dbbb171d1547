import type { Client } from '@libsql/client/sqlite3'
import { expect, it } from 'vitest'
import { endsAsRolledBack } from './connect.ts'

/** A driver whose transaction is rolled back with what SQLite says then; the driver's own would have to be on a full disk. */
const driver = (says: string) =>
  endsAsRolledBack({
    transaction: async () => ({
      rollback: async () => {
        throw new Error(says)
      },
    }),
  } as unknown as Client)

it.each(['TRANSACTION_CLOSED: The transaction is closed', 'cannot rollback - no transaction is active'])(
  'a transaction that SQLite has rolled back by itself ends as one that was rolled back: %s',
  async (says) => {
    const begun = await driver(says).transaction('write')
    expect(await begun.rollback()).toBeUndefined()
  },
)

it('anything else that is wrong with rolling back is said', async () => {
  const begun = await driver('disk I/O error').transaction('write')
  await expect(begun.rollback()).rejects.toThrow('disk I/O error')
})
