import { isDemo, type Place } from '@dogleg/core/api'
import { useSyncExternalStore } from 'react'
import { listenerSet } from './listeners.ts'
import { storage } from './storage.ts'

/** A place as it was told or kept; undefined where it is none. */
function readPlace(told: unknown): Place | undefined {
  if (typeof told !== 'object' || told === null) return undefined
  const { logbook, seq } = told as Partial<Place>
  return typeof logbook === 'string' && logbook !== '' && Number.isSafeInteger(seq) && Number(seq) >= 0
    ? { logbook, seq: Number(seq) }
    : undefined
}

/** The server has less than this tablet has seen of it, or another logbook. */
export interface Loss {
  seen: Place
  has: Place
}

const KEY = 'dogleg.place'
const { notify, subscribe } = listenerSet()

function readSeen(): Place | undefined {
  try {
    return readPlace(JSON.parse(storage.get(KEY) ?? ''))
  } catch {
    return undefined
  }
}

let seen = readSeen()
let demo = seen !== undefined && isDemo(seen.logbook)
/** When that was told, by the page's steady clock. */
let seenAt = 0
let loss: Loss | undefined
/** The least that any answer told that this page got: what came after it may not stand in all of them. */
let least: Place | undefined

const keep = (now: Place) => {
  seen = now
  seenAt = performance.now()
  storage.set(KEY, JSON.stringify(now))
}

function setLoss(now: Loss | undefined) {
  if (loss === now || (loss && now && loss.has.seq === now.has.seq && loss.has.logbook === now.has.logbook))
    return
  loss = now
  notify()
}

/**
 * Takes in how far the server's logbook goes. Where it goes less far than this tablet has seen, or is another one, everybody must
 * know, until it has caught up or somebody says that it is right so. `asked` is when the question went out, by the page's steady
 * clock: an answer that was overtaken by another says nothing.
 */
export function notePlace(told: unknown, asked: number) {
  const has = readPlace(told)
  if (!has) return
  if (!least || (has.logbook === least.logbook && has.seq < least.seq)) least = has
  // The demo is nobody's work: what is seen of it is no measure of a shop's own logbook.
  const ofDemo = seen !== undefined && isDemo(seen.logbook) && !isDemo(has.logbook)
  if (!seen || ofDemo || (has.logbook === seen.logbook && has.seq >= seen.seq)) {
    if (!seen || ofDemo || has.seq !== seen.seq) keep(has)
    setLoss(undefined)
    noteDemo(isDemo(has.logbook))
    return
  }
  noteDemo(isDemo(has.logbook))
  if (asked >= seenAt) setLoss({ seen, has })
}

function noteDemo(is: boolean) {
  if (is === demo) return
  demo = is
  notify()
}

/** Whether the server shows the demo, as far as this tablet was told. */
export const useIsDemo = () => useSyncExternalStore(subscribe, () => demo)

/** It is right so: an older backup was put there on purpose, or another logbook. */
export function acceptLoss() {
  if (loss) keep(loss.has)
  setLoss(undefined)
}

export const useLoss = () => useSyncExternalStore(subscribe, () => loss)

/** How far the server's logbook went at the least with every answer that this page got; undefined before the first. */
export const leastPlace = () => least
