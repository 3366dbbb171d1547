import { existsSync, readFileSync } from 'node:fs'
import { USUAL_MATERIALS } from '@dogleg/core/cutting'
import { demoEntries, demoReference, moveLog } from '@dogleg/core/demo'
import { SAMPLE_VISES, USUAL_COLLETS } from '@dogleg/core/hold'
import type { Entry, Noun, Row } from '@dogleg/core/setup'
import { ulid } from 'ulid'
import type { Writer } from './database/connect.ts'
import type { Database } from './database/open.ts'
import { appendEntries } from './entries/append.ts'
import { entryStore } from './entries/store.ts'
import { addRow, referenceStore } from './reference/store.ts'

/** The demo's logs as they were made when the server was built, and the time that they are computed back from. */
export interface MadeDemo {
  now: number
  entries: Entry[]
}

/** Makes up what happened in the demo's shop. It takes about a second: the build does it, so that nobody waits for it. */
export const makeDemo = (now: number): MadeDemo => ({ now, entries: demoEntries(now, Math.random) })

/** What the build has made; undefined where nothing was built, as when the server runs from its sources. */
export const builtDemo = (file: string): MadeDemo | undefined =>
  existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as MadeDemo) : undefined

/**
 * Fills a logbook that was made just now with the made-up shop, as if `now` were the time that it is computed back from. Does nothing
 * to one that was there before, whatever is in it: an empty one may be what is left of a shop.
 */
export async function fillDemo(database: Database, now: number, made?: MadeDemo): Promise<boolean> {
  if (database.readOnly || !database.made) return false
  return database.write(async (tx) => {
    if (!(await entryStore(tx).isEmpty())) return false
    const demo = made ?? makeDemo(now)
    await addRows(tx, 'profiles', demoReference.profiles, now)
    await addRows(tx, 'vises', demoReference.vises, now)
    await addMissing(tx, now)
    await addRows(tx, 'machines', demoReference.machines, now)
    await addRows(tx, 'tools', demoReference.tools, now)
    const minutes = Math.floor((now - demo.now) / 60_000)
    await appendEntries(tx, moveLog(demo.entries, minutes, ulid().slice(-8)), { by: 'file', now })
    return true
  })
}

async function addRows<N extends Noun>(tx: Writer, noun: N, rows: readonly Row<N>[], at: number) {
  for (const row of rows) await addRow(tx, noun, row, { at })
}

/** What a library is begun with where it has none. */
const BEGINNINGS = { collets: USUAL_COLLETS, vises: SAMPLE_VISES, materials: USUAL_MATERIALS } as const

async function addMissing(tx: Writer, at: number) {
  const rows = referenceStore(tx)
  for (const noun of ['collets', 'vises', 'materials'] as const)
    if (await rows.isEmpty(noun)) await addRows(tx, noun, BEGINNINGS[noun], at)
}

/** Puts the usual collets and materials and a vise to start from into a library that has none: a logbook from before there were any. */
export async function fillLibrary(database: Database, now: number): Promise<void> {
  if (!database.readOnly) await database.write((tx) => addMissing(tx, now))
}
