import type { QueryFunction, QueryFunctionContext, QueryKey } from '@tanstack/react-query'
import { clear, createStore, delMany, entries, get, set, type UseStore } from 'idb-keyval'
import { useSyncExternalStore } from 'react'
import { Unreachable } from './api.ts'
import { now } from './clock.ts'
import { listenerSet } from './listeners.ts'
import { untilSomebodyIsIn } from './session.ts'

// What the server has told this tablet, kept on it: a page that is opened while the server is away begins with it, and says from when
// it is. Where the server answers nothing of it is shown.

/** What is kept, by the first part of its key; whose age would mislead, such as positions, is not. */
const KEPT = new Set([
  'log',
  'machine-log',
  'machine-programs',
  'machine-times',
  'earlier',
  'numbers',
  'setups',
  'machines',
  'profiles',
  'vises',
  'collets',
  'tools',
  'materials',
])
/** How many answers are kept; those that were used longest ago go first. */
const MOST = 200
/** The same answer is written again at most so often, in ms. */
const AGAIN_MS = 20_000
/** The server has so long to answer before what was known is shown, in ms. */
const PATIENCE_MS = 4000

interface Kept {
  at: number
  value: unknown
}

/** The answers, and apart from them when each was told: looking through the times reads no log. */
const stores: { answers?: UseStore; times?: UseStore } = {}
const answers = () => {
  stores.answers ??= createStore('dogleg-known', 'answers')
  return stores.answers
}
const times = () => {
  stores.times ??= createStore('dogleg-known-times', 'times')
  return stores.times
}

const { notify, subscribe } = listenerSet()
let since: number | undefined
/** How many questions are shown as they were known before. */
const shown = new Set<string>()

/** From when the oldest is of what is shown as it was known before, in ms since 1970; undefined where all of it is as the server has it. */
export const useKnownSince = () => useSyncExternalStore(subscribe, () => since)

const written = new Map<string, number>()

/** Keeps an answer when the page has a moment. What the storage does not take is not kept. */
function keep(name: string, value: unknown) {
  const last = written.get(name)
  if (last !== undefined && performance.now() - last < AGAIN_MS) return
  written.set(name, performance.now())
  const put = async () => {
    const at = now()
    await set(name, { at, value } satisfies Kept, answers())
    await set(name, at, times())
  }
  put().catch(() => undefined)
}

async function read(name: string): Promise<Kept | undefined> {
  try {
    return await get<Kept>(name, answers())
  } catch {
    return undefined
  }
}

function noteShown(name: string, at: number | undefined) {
  if (at === undefined) shown.delete(name)
  else shown.add(name)
  const next =
    shown.size === 0 ? undefined : Math.min(since ?? Number.POSITIVE_INFINITY, at ?? Number.POSITIVE_INFINITY)
  if (next === since) return
  since = next
  notify()
}

const later = (ms: number) => new Promise<'later'>((resolve) => setTimeout(resolve, ms, 'later'))

interface Asked {
  queryKey: QueryKey
  state: { data: unknown }
}

/**
 * Asks the server, and keeps what it says; where it is away and this page knows nothing yet, gives what the tablet knew before. For
 * TanStack Query, as its way to persist.
 */
export async function knownBefore<T>(
  ask: QueryFunction<T>,
  context: QueryFunctionContext,
  query: Asked,
): Promise<T> {
  const [kind] = query.queryKey
  if (!KEPT.has(String(kind))) return ask(context as never)
  const name = JSON.stringify(query.queryKey)
  const tell = async () => {
    const value = await ask(context as never)
    noteShown(name, undefined)
    keep(name, value)
    return value
  }
  if (query.state.data !== undefined) return tell()
  // On a tablet that is locked nothing is shown that somebody else was shown before.
  const somebody = untilSomebodyIsIn()
  if (somebody) await somebody
  const asked = tell()
  const before = async () => {
    const known = await read(name)
    if (known) noteShown(name, known.at)
    return known
  }
  try {
    const first = await Promise.race([asked, later(PATIENCE_MS)])
    if (first !== 'later') return first as T
  } catch (error) {
    if (!(error instanceof Unreachable)) throw error
    const known = await before()
    if (!known) throw error
    return known.value as T
  }
  const known = await before()
  if (!known) return asked
  asked.catch(() => undefined)
  return known.value as T
}

/** Lets go of the oldest, where there are too many. */
export async function tidyKnown() {
  try {
    const all = await entries<string, number>(times())
    const old = all.toSorted(([, a], [, b]) => b - a).slice(MOST)
    const names = old.map(([name]) => name)
    await delMany(names, answers())
    await delMany(names, times())
  } catch {
    // Kept until it can be read.
  }
}

/** Forgets all of it: this tablet is none of the shop's any more. */
export async function forgetKnown() {
  written.clear()
  try {
    await clear(answers())
    await clear(times())
  } catch {
    // Nothing can be read of it either.
  }
}
