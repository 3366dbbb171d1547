import { type ClockStamp, hear, type LastHeard, type Reading, stampOf } from '@dogleg/core/log'
import { monotonicFactory, ulid as randomId } from 'ulid'
import { storage } from './storage.ts'

/**
 * The tablet's clock may be wrong, and may be set while it is away. So the time is the server's as this tablet heard it last, and
 * what has passed since by a clock that nobody can set; and every entry carries what its order can be told from (core, `log/`).
 */
const KEY = 'dogleg.clock'
const TABLET_KEY = 'dogleg.tablet'
const COUNT_KEY = 'dogleg.count'

/** What this tablet's two clocks say now. */
export const reading = (): Reading => ({ steady: performance.now(), wall: Date.now() })

function readHeard(): LastHeard | undefined {
  try {
    const { time, wall } = JSON.parse(storage.get(KEY) ?? '')
    return Number.isFinite(time) && Number.isFinite(wall) ? { time, wall, behind: 0 } : undefined
  } catch {
    return undefined
  }
}

let heard = readHeard()

/** Takes the server's time from an answer; `asked` is what the clocks said when the question went out. What is no time counts for nothing. */
export function noteServerTime(time: string, asked: Reading) {
  const there = Date.parse(time)
  if (Number.isNaN(there)) return
  heard = hear(there, asked, reading())
  storage.set(KEY, JSON.stringify({ time: heard.time, wall: heard.wall }))
}

/** The server's time now as far as this tablet knows it, in ms since 1970. */
export const now = () => Math.round(stampOf(heard, reading()).at)

const ulid = monotonicFactory()

/** A new id for an entry. */
export const newId = () => ulid(Math.max(0, now()))

/** Which tablet this is: a name of its own, made when it first came here. */
function tabletId(): string {
  const known = storage.get(TABLET_KEY)
  if (known && /^[0-9A-Z]{26}$/.test(known)) return known
  const made = randomId()
  storage.set(TABLET_KEY, made)
  return made
}

let counted = 0
/** What this page is called by where its count cannot be kept: the next page would count on from before, and tell a wrong order. */
const ownName = randomId()
let ownCount = 0

/** What goes into an entry that is made now, so that its order can be told: the next number of this tablet's own count, and its clocks. */
export function clockNow(): ClockStamp {
  const { at: _at, ...clock } = stampOf(heard, reading())
  const tablet = tabletId()
  counted = Math.max(counted, Number(storage.get(COUNT_KEY)) || 0) + 1
  if (storage.set(COUNT_KEY, String(counted)) && !storage.isHeld(TABLET_KEY))
    return { tablet, count: counted, ...clock }
  return { tablet: ownName, count: ++ownCount, ...clock }
}

/** The clock that an entry would have if it were made now, after `before` others; nothing is counted by it. */
export function clockAsIf(before: number): ClockStamp {
  const { at: _at, ...clock } = stampOf(heard, reading())
  const kept = Math.max(counted, Number(storage.get(COUNT_KEY)) || 0)
  return ownCount > 0
    ? { tablet: ownName, count: ownCount + 1 + before, ...clock }
    : { tablet: tabletId(), count: kept + 1 + before, ...clock }
}
