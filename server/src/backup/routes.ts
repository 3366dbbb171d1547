import { statSync } from 'node:fs'
import type { FastifyPluginAsync } from 'fastify'
import { answers } from '../answer.ts'
import type { Database } from '../database/open.ts'
import type { EntryStore } from '../entries/store.ts'
import type { BackupKeeper } from './keeper.ts'

const sizeOf = (path: string) => statSync(path, { throwIfNoEntry: false })?.size ?? 0

/** What there is to say of the shop's logbook as a whole, and its backups. */
export const shopRoutes: FastifyPluginAsync<{
  database: Database
  store: EntryStore
  backups: BackupKeeper
  /** Whether an own shop can be set up. */
  begins: boolean
}> = async (app, { database: { file, logbook, alarm }, store, backups, begins }) => {
  const shop = async () => {
    const [saysNow, free] = [await alarm(), await backups.free()]
    return {
      logbook,
      file,
      bytes: sizeOf(file) + sizeOf(`${file}-wal`),
      entries: (await store.last()).seq,
      ...(begins ? { begins: true as const } : {}),
      ...(free === undefined ? {} : { free }),
      ...(saysNow === undefined ? {} : { alarm: saysNow }),
      warnings: await backups.warnings(),
      backups: await backups.state(),
    }
  }
  answers(app, 'shop', shop)
  answers(app, 'makeBackup', async () => {
    await backups.begin()
    return shop()
  })
  answers(app, 'stopBackup', async () => {
    backups.stop()
    return shop()
  })
}
