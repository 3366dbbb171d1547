import type { Answer } from '@dogleg/core/api'
import { deriveSetup, isUnreadable, jobOf, type Reference } from '@dogleg/core/setup'
import { wentOf } from '@dogleg/core/traveler'
import type { EntryStore } from '../entries/store.ts'
import { type KeptFile, prepared } from './open.ts'

/** Setups that are told at a time: each is worked out of its whole log. */
const A_PAGE = 10

/** The setups of a job, the one that was worked on last first, and how each went. */
export async function jobSetups(
  db: KeptFile,
  store: EntryStore,
  reference: Reference,
  { job, before }: { job: string; before: number },
): Promise<Pick<Answer<'jobSetups'>, 'setups' | 'unreadable' | 'next'>> {
  const rows = prepared(
    db,
    'select setup, last from setups where job = ? and last < ? order by last desc limit ?',
  ).all(jobOf(job), before, A_PAGE + 1) as { setup: string; last: number }[]
  const page = rows.slice(0, A_PAGE)
  const found: Pick<Answer<'jobSetups'>, 'setups' | 'unreadable'> = { setups: [], unreadable: [] }
  for (const { setup } of page) {
    const derived = deriveSetup((await store.since(setup, 0)).entries, reference)
    if (isUnreadable(derived)) found.unreadable.push({ id: setup, says: derived.unreadable })
    else found.setups.push(wentOf(derived, reference))
  }
  const next = rows.length > A_PAGE ? page.at(-1)?.last : undefined
  return { ...found, ...(next === undefined ? {} : { next }) }
}
