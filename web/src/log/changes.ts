import type { Answer } from '@dogleg/core/api'
import { isObject } from '@dogleg/core/log'
import type { QueryClient } from '@tanstack/react-query'
import { useSyncExternalStore } from 'react'
import { noteHeard } from './api.ts'
import { listenerSet } from './listeners.ts'
import { BOARD_KEY, earlierKey, logKey, machineKeys, NUMBERS_KEY, STAMP_KEY } from './log-cache.ts'
import { flush } from './outbox.ts'
import { leastPlace, notePlace } from './place.ts'
import { sessionNow, whenSessionChanges } from './session.ts'

// The server tells of changes as they are made, over one connection that stays open while the page is looked at. Where that fails, and
// until it holds again, everything is asked for now and then instead.

type Changed = Answer<'changes'>

/** Nothing was heard for so long, not even that nothing changed: the connection is gone, whatever the browser thinks. In ms. */
const SILENT_MS = 40_000
/** How often it is looked whether the page has all that it began with. */
const WAIT_MS = 100
/** How often that is looked at. */
const LOOK_MS = 5000
/** A server that does not want to be listened to is tried again after so long. */
const AGAIN_MS = 10_000
/** The board is asked for at most so often, however much is entered in the shop. */
const BOARD_MS = 1000
/** What the server tells of by itself is asked for so seldom: it says the time, and that it is there. */
const SELDOM_MS = 300_000

let live = false
const { notify, subscribe } = listenerSet()
function setLive(now: boolean) {
  if (live === now) return
  live = now
  notify()
}

/** Whether the server tells of changes by itself. */
export const useLive = () => useSyncExternalStore(subscribe, () => live)

/** How often to ask, in ms, for what the server also tells of: `ms` while it does not, or did not answer. */
export function useAskEvery(ms: number) {
  const seldom = useLive()
  return ({ state }: { state: { error: Error | null } }) => (seldom && !state.error ? SELDOM_MS : ms)
}

/** What an event says; undefined where it is none of ours. */
function readChanged(data: unknown): Changed | undefined {
  try {
    const told: unknown = JSON.parse(String(data))
    return isObject(told) && Array.isArray(told.setups) && isObject(told.place)
      ? (told as Changed)
      : undefined
  } catch {
    return undefined
  }
}

/** Asks anew for what a change may have touched, as far as it is on the screen. */
function follow(client: QueryClient, { setups, all, stamp }: Changed, board: () => void) {
  const again = (queryKey: readonly unknown[]) => void client.invalidateQueries({ queryKey })
  if (all) for (const key of [['log'], ...machineKeys(), earlierKey(), NUMBERS_KEY]) again(key)
  for (const { id, machine, kinds } of setups) {
    again(logKey(id))
    for (const key of [...machineKeys(machine), earlierKey(machine)]) again(key)
    if (!kinds || kinds.includes('numbered') || kinds.includes('struck')) again(NUMBERS_KEY)
  }
  const before = client.getQueryData<{ stamp: number }>(STAMP_KEY)
  const rows = before !== undefined && before.stamp !== stamp
  if (rows) client.setQueryData(STAMP_KEY, { stamp })
  if (all || setups.length > 0 || rows) board()
}

/** Listens to the server while the page is looked at; returns how to end it. */
export function listenToChanges(client: QueryClient): () => void {
  if (typeof EventSource === 'undefined') return () => undefined
  let source: EventSource | undefined
  /** How far this page knows the log, as events say it. */
  let left: string | undefined
  let waiting: ReturnType<typeof setTimeout> | undefined
  let heardAt = 0
  let again: ReturnType<typeof setTimeout> | undefined
  let boardDue: ReturnType<typeof setTimeout> | undefined

  const askForBoard = () => {
    boardDue ??= setTimeout(() => {
      boardDue = undefined
      void client.invalidateQueries({ queryKey: BOARD_KEY })
    }, BOARD_MS)
  }
  const close = () => {
    clearTimeout(again)
    clearTimeout(waiting)
    source?.close()
    source = undefined
    setLive(false)
  }
  const open = () => {
    close()
    const { signs, sitting } = sessionNow()
    if (document.visibilityState === 'hidden' || (signs && sitting === undefined)) return
    // It begins where every answer is that the page began with: what came since may not stand in each of them.
    const least = left === undefined && client.isFetching() === 0 ? leastPlace() : undefined
    if (least) left = `${least.logbook}.${least.seq}`
    if (left === undefined) {
      waiting = setTimeout(open, WAIT_MS)
      return
    }
    source = new EventSource(`/api/changes?after=${encodeURIComponent(left)}`)
    heardAt = performance.now()
    source.addEventListener('changed', ({ data, lastEventId }: MessageEvent) => {
      const changed = readChanged(data)
      if (!changed) return
      heardAt = performance.now()
      left = lastEventId || left
      noteHeard()
      notePlace(changed.place, heardAt)
      const begins = !live
      setLive(true)
      follow(client, changed, askForBoard)
      if (begins) void flush()
    })
    source.addEventListener('error', () => {
      setLive(false)
      // The browser tries again by itself, unless it was refused.
      if (source?.readyState !== EventSource.CLOSED) return
      close()
      again = setTimeout(open, AGAIN_MS)
    })
  }
  const look = setInterval(() => {
    if (source && performance.now() - heardAt > SILENT_MS) open()
  }, LOOK_MS)
  const turned = () => (document.visibilityState === 'hidden' ? close() : open())
  document.addEventListener('visibilitychange', turned)
  let heardBy = sessionNow().sitting
  const noLonger = whenSessionChanges(() => {
    const { signs, sitting } = sessionNow()
    if (signs && sitting === undefined) close()
    else if (sitting !== heardBy) open()
    heardBy = sitting
  })
  open()
  return () => {
    noLonger()
    close()
    clearInterval(look)
    clearTimeout(boardDue)
    document.removeEventListener('visibilitychange', turned)
  }
}
