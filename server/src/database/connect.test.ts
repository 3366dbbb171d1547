import { join } from 'node:path'
import { type SQL, sql } from 'drizzle-orm'
import { expect, it } from 'vitest'
import { newFolder } from '../testing/process.ts'
import { connect, type Writer } from './connect.ts'

it('tells why a transaction broke off which SQLite itself has rolled back, as it does on a full disk', async () => {
  const { client, write } = connect(join(newFolder(), 'log.sqlite'))
  await client.execute('create table one (n integer)')
  const work = async (tx: Writer) => {
    const { run } = tx as unknown as { run: (statement: SQL) => Promise<unknown> }
    await run.call(tx, sql`insert into one values (1)`)
    await run.call(tx, sql`rollback`)
    throw new Error('database or disk is full')
  }
  await expect(write(work)).rejects.toThrow('database or disk is full')
  // Nothing of it is there, and the next one is as any other.
  await write((tx) =>
    (tx as unknown as { run: (of: SQL) => Promise<void> }).run(sql`insert into one values (2)`),
  )
  expect((await client.execute('select n from one')).rows.map(({ n }) => n)).toEqual([2])
  client.close()
})
