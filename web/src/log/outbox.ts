import type { Entry } from '@dogleg/core/setup'
import { useSyncExternalStore } from 'react'
import { api, Refused } from './api.ts'
import { listenerSet } from './listeners.ts'

/**
 * Entries on their way to the server. Each lies in the tablet's storage under its own key from the moment it is made
 * until the server has acknowledged it, so that nothing is lost on a reload, a dropped network or a power cut,
 * and two open pages never write over each other.
 */
const PREFIX = 'dogleg.outbox.'
const RETRY_MS = 3000
const MOST_AT_ONCE = 100

export interface Waiting {
  entry: Entry
  /** Why the server refused it, if it did; such an entry is kept and shown until a person decides. */
  refused?: { code: string; says: string }
}

type Delivered = (entries: Entry[]) => void

/** Entries as the tablet's storage would not take them (full, or blocked); they live only as long as the page. */
const unkept = new Map<string, Waiting>()

let waiting: readonly Waiting[] = readAll()
let trouble: string | undefined
let sending = false
let timer: ReturnType<typeof setTimeout> | undefined
const { notify, subscribe } = listenerSet()
let delivered: Delivered = () => {}

/** Whether this is an entry as far as delivering it goes: it says which, of what, of when and by whom. The server reads the rest. */
const isStamped = (entry: unknown): entry is Entry =>
  typeof entry === 'object' &&
  entry !== null &&
  ['id', 'setup', 'at', 'by', 'kind'].every((name) => typeof entry[name as keyof typeof entry] === 'string')

function readAll(): Waiting[] {
  const kept = Object.keys(localStorage)
    .filter((key) => key.startsWith(PREFIX))
    .sort()
    .flatMap((key) => {
      try {
        const kept = JSON.parse(localStorage.getItem(key) ?? '') as Waiting
        return isStamped(kept?.entry) && PREFIX + kept.entry.id === key ? [kept] : []
      } catch {
        return []
      }
    })
  const byId = new Map(kept.map((each) => [each.entry.id, each]))
  for (const [id, each] of unkept) byId.set(id, each)
  return [...byId.values()]
}

function changed() {
  waiting = readAll()
  notify()
}

function keep(kept: Waiting) {
  try {
    localStorage.setItem(PREFIX + kept.entry.id, JSON.stringify(kept))
  } catch {
    unkept.set(kept.entry.id, kept)
  }
}

function drop(entries: Entry[]) {
  for (const { id } of entries) {
    localStorage.removeItem(PREFIX + id)
    unkept.delete(id)
  }
}

/** Sends what it can; one refused entry does not hold up the others. */
async function send(entries: Entry[]): Promise<void> {
  try {
    await api.append(entries)
    delivered(entries)
    drop(entries)
  } catch (error) {
    if (!(error instanceof Refused) || error.status >= 500) throw error
    const [only, ...more] = entries
    if (only && more.length === 0) keep({ entry: only, refused: { code: error.code, says: error.message } })
    else for (const entry of entries) await send([entry])
  }
}

/** Tries to deliver everything that waits; tries again later when the server is away. */
export async function flush(): Promise<void> {
  if (sending) return
  sending = true
  clearTimeout(timer)
  try {
    for (;;) {
      const batch = readAll()
        .filter(({ refused }) => !refused)
        .slice(0, MOST_AT_ONCE)
        .map(({ entry }) => entry)
      if (batch.length === 0) break
      await send(batch)
      changed()
    }
    trouble = undefined
  } catch (error) {
    trouble = error instanceof Error ? error.message : String(error)
    timer = setTimeout(flush, RETRY_MS)
  } finally {
    sending = false
    changed()
  }
}

/** Keeps an entry on the tablet and sends it. `record.ts` reads it with its schema first. */
export function post(entry: Entry) {
  keep({ entry })
  changed()
  void flush()
}

export function tryAgain({ entry }: Waiting) {
  keep({ entry })
  changed()
  void flush()
}

export function discard({ entry }: Waiting) {
  drop([entry])
  changed()
}

/** Starts delivery: now, when the network is back, and when the page is looked at again. */
export function startOutbox(whenDelivered: Delivered) {
  delivered = whenDelivered
  window.addEventListener('online', () => void flush())
  window.addEventListener('storage', changed)
  document.addEventListener('visibilitychange', () => void flush())
  void flush()
}

/** What waits on this tablet, in order. */
export const useWaiting = () => useSyncExternalStore(subscribe, () => waiting)

/** How many entries would be lost if this page were closed now. */
export const useUnkept = () => useSyncExternalStore(subscribe, () => unkept.size)

/** Why nothing could be sent the last time, if it could not. */
export const useTrouble = () => useSyncExternalStore(subscribe, () => trouble)
