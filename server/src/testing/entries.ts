import { asTyped } from '@dogleg/core/quantity'
import type { Entry, EntryOf, Logged } from '@dogleg/core/setup'
import { monotonicFactory } from 'ulid'
import type { Reader } from '../database/connect.ts'
import { entryStore } from '../entries/store.ts'

const nextId = monotonicFactory()
const stamp = (setup?: string) => {
  const id = nextId()
  return { id, setup: setup ?? id, at: new Date().toISOString(), by: 'RT' }
}

export const openedEntry = (): EntryOf<'opened'> => ({
  ...stamp(),
  kind: 'opened',
  title: 'Test block',
  machine: { id: 'mill-1', version: 1 },
  unit: 'inch',
  tolerance: asTyped(0.002, 'inch'),
})

export const noteEntry = (setup: string, text = 'a note'): Entry => ({ ...stamp(setup), kind: 'note', text })

export const struckEntry = (setup: string, target: string): Entry => ({
  ...stamp(setup),
  kind: 'struck',
  target,
  reason: 'slip',
})

/** Any entry, right or wrong, with its stamp. */
export const anyEntry = (setup: string, body: Record<string, unknown>) => ({ ...stamp(setup), ...body })

/** Every log of a logbook, by setup, in the order of arrival. */
export async function logsIn(db: Reader): Promise<Map<string, Logged[]>> {
  const store = entryStore(db)
  const { setups } = await store.touchedSince(0, 1e9)
  const logs = new Map<string, Logged[]>()
  for (const setup of setups) logs.set(setup, (await store.since(setup, 0)).entries)
  return logs
}
