import type { LogEntry } from '@dogleg/core/log'
import { useSyncExternalStore } from 'react'
import { api, Refused } from './api.ts'
import { listenerSet } from './listeners.ts'
import { keepSent, letGoOfSent } from './sent.ts'
import { sessionNow } from './session.ts'
import { storage } from './storage.ts'

/**
 * Entries on their way to the server. Each lies in the tablet's storage under its own key from the moment it is made
 * until the server has acknowledged it, so that nothing is lost on a reload, a dropped network or a power cut,
 * and two open pages never write over each other.
 */
const PREFIX = 'dogleg.outbox.'
const RETRY_MS = 3000
const MOST_AT_ONCE = 100

export interface Waiting {
  entry: LogEntry
  /** The sitting of whoever made it, where people sign in; left out until they have signed it. */
  sitting?: string
  /** Why the server refused it, if it did; such an entry is kept and shown until a person decides. */
  refused?: { code: string; says: string }
}

/** Something in the outbox that this version cannot read as an entry, and so cannot send: it is shown as it stands. */
export interface Unreadable {
  key: string
  raw: string
}

type Delivered = (entries: LogEntry[]) => void

/** When this page had each first, by its steady clock: so long at least it has lain on the tablet. */
const since = new Map<string, number>()

let waiting: readonly Waiting[] = []
let unreadable: readonly Unreadable[] = []
let trouble: string | undefined
let sending = false
let timer: ReturnType<typeof setTimeout> | undefined
const { notify, subscribe } = listenerSet()
let delivered: Delivered = () => {}

/** Whether this is an entry as far as delivering it goes: it says which, of what, of when and by whom. The server reads the rest. */
export const isStamped = (entry: unknown): entry is LogEntry =>
  typeof entry === 'object' &&
  entry !== null &&
  ['id', 'setup', 'at', 'by', 'kind'].every((name) => typeof entry[name as keyof typeof entry] === 'string')

/** What the storage has under a key, where that is an entry of that name. */
function readOne(key: string, raw: string): Waiting | undefined {
  try {
    const kept = JSON.parse(raw) as Waiting
    return isStamped(kept?.entry) && PREFIX + kept.entry.id === key ? kept : undefined
  } catch {
    return undefined
  }
}

function readAll() {
  const readable: Waiting[] = []
  const others: Unreadable[] = []
  const now = performance.now()
  for (const key of storage.keys(PREFIX)) {
    const raw = storage.get(key)
    if (raw === null) continue
    const kept = readOne(key, raw)
    if (!kept) others.push({ key, raw })
    else {
      readable.push(kept)
      if (!since.has(kept.entry.id)) since.set(kept.entry.id, now)
    }
  }
  waiting = readable
  unreadable = others
}
readAll()

function changed() {
  readAll()
  notify()
}

function keep(kept: Waiting) {
  const key = PREFIX + kept.entry.id
  const text = JSON.stringify(kept)
  if (storage.set(key, text)) return
  // What the server has already makes room for what it has not.
  letGoOfSent()
  storage.set(key, text)
}

function drop(entries: LogEntry[]) {
  for (const { id } of entries) {
    storage.remove(PREFIX + id)
    since.delete(id)
  }
}

const heldNow = ({ id }: LogEntry) => Math.max(0, performance.now() - (since.get(id) ?? performance.now()))

/** Sends what it can; one refused entry does not hold up the others. */
async function send(due: Waiting[]): Promise<void> {
  const entries = due.map(({ entry }) => entry)
  try {
    const signed = sessionNow().signs ? due.map(({ sitting }) => sitting ?? '') : undefined
    await api.append(entries, entries.map(heldNow), signed)
    delivered(entries)
    drop(entries)
    keepSent(entries)
  } catch (error) {
    // A tablet that is not let in keeps what it has.
    if (!(error instanceof Refused) || error.passes || error.code === 'tablet-unknown') throw error
    const [only, ...more] = entries
    if (!only || more.length > 0) for (const each of due) await send([each])
    // It was not theirs to sign any more, or that was here before people signed in: it waits for them.
    else if (error.code === 'not-signed') keep({ entry: only })
    else keep({ ...due[0], entry: only, refused: { code: error.code, says: error.message } })
  }
}

/** Whether it can be sent: where people sign in, once it is signed and the tablet is let in. */
const isDue = ({ sitting, refused }: Waiting) => {
  const { signs, tablet } = sessionNow()
  return !refused && (!signs || (tablet !== undefined && sitting !== undefined))
}

/** Entries that wait until whoever made them signs in. */
export const unsigned = (): LogEntry[] =>
  sessionNow().signs
    ? waiting.filter(({ sitting, refused }) => !refused && sitting === undefined).map(({ entry }) => entry)
    : []

/** Signs what waits of somebody, by the sitting that the server has for them. */
export function sign(isTheirs: (entry: LogEntry) => boolean, sitting: string) {
  readAll()
  for (const entry of unsigned()) if (isTheirs(entry)) keep({ entry, sitting })
  changed()
  void flush()
}

/** Tries to deliver everything that waits; tries again later when the server is away. */
export async function flush(): Promise<void> {
  if (sending) return
  sending = true
  clearTimeout(timer)
  try {
    for (;;) {
      readAll()
      const batch = waiting.filter(isDue).slice(0, MOST_AT_ONCE)
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

/**
 * Keeps an entry on the tablet and sends it. `record.ts` reads it with its schema first. What others made is not signed by whoever is
 * here: where people sign in, it waits for those.
 */
export function post(entry: LogEntry, made: 'here' | 'of-others' = 'here') {
  const { sitting } = made === 'here' ? sessionNow() : {}
  keep({ entry, ...(sitting === undefined ? {} : { sitting }) })
  changed()
  void flush()
}

export function tryAgain({ entry, sitting }: Waiting) {
  keep({ entry, ...(sitting === undefined ? {} : { sitting }) })
  changed()
  void flush()
}

export function discard({ entry }: Waiting) {
  drop([entry])
  changed()
}

/** Removes what cannot be read from the tablet, once a person has said so. */
export function discardUnreadable({ key }: Unreadable) {
  storage.remove(key)
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

/** What lies in the outbox and cannot be read as an entry. */
export const useUnreadable = () => useSyncExternalStore(subscribe, () => unreadable)

/** How many entries would be lost if this page were closed now. */
export const useUnkept = () =>
  useSyncExternalStore(
    subscribe,
    () => waiting.filter(({ entry }) => storage.isHeld(PREFIX + entry.id)).length,
  )

/** Why nothing could be sent the last time, if it could not. */
export const useTrouble = () => useSyncExternalStore(subscribe, () => trouble)
