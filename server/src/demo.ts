import { USUAL_MATERIALS } from '@dogleg/core/cutting'
import { demoEntries, demoReference } from '@dogleg/core/demo'
import { SAMPLE_VISES, USUAL_COLLETS } from '@dogleg/core/hold'
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
    fillLibrary(database)
    for (const machine of demoReference.machines) reference.add('machines', machine)
    for (const tool of demoReference.tools) reference.add('tools', tool)
    entries.append(demoEntries(now, Math.random), now)
  })
  return true
}

/** Puts the usual collets and materials and a vise to start from into a library that has none: a logbook from before there were any. */
export function fillLibrary(database: Database) {
  if (database.readOnly) return
  const reference = referenceStore(database)
  if (reference.all('collets').length === 0)
    for (const collet of USUAL_COLLETS) reference.add('collets', collet)
  if (reference.all('vises').length === 0) for (const vise of SAMPLE_VISES) reference.add('vises', vise)
  if (reference.all('materials').length === 0)
    for (const material of USUAL_MATERIALS) reference.add('materials', material)
}
