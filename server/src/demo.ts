import { demoEntries, demoReference } from '@dogleg/core/demo'
import type { Database } from './database/open.ts'
import { entryStore } from './entries/store.ts'
import { referenceStore } from './reference/store.ts'

/** Fills an empty logbook with the made-up shop. Does nothing where there is anything already. */
export function fillDemo(database: Database, now: number): boolean {
  const reference = referenceStore(database)
  const entries = entryStore(database)
  if (database.readOnly || !entries.isEmpty() || reference.all('machines').length > 0) return false
  database.db.transaction(() => {
    for (const profile of demoReference.profiles) reference.add('profiles', profile)
    for (const machine of demoReference.machines) reference.add('machines', machine)
    entries.append(demoEntries(now, Math.random), now)
  })
  return true
}
