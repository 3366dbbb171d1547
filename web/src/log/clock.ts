import { monotonicFactory } from 'ulid'

/**
 * The tablet's clock may be wrong, and the log is ordered by time: entries are stamped by the server's clock,
 * as far as this tablet knows it. The difference is kept for when the server is away.
 */
const KEY = 'dogleg.clock-ahead'

let ahead = Number(localStorage.getItem(KEY) ?? 0) || 0

/** Takes the server's time from an answer; `asked` is this tablet's time when the question went out. What is no time counts for nothing. */
export function noteServerTime(time: string, asked: number) {
  const there = Date.parse(time)
  if (Number.isNaN(there)) return
  const here = (asked + Date.now()) / 2
  ahead = Math.round(here - there)
  localStorage.setItem(KEY, String(ahead))
}

/** The server's time now, in ms since 1970. */
export const now = () => Date.now() - ahead

const ulid = monotonicFactory()

/** A new id for an entry. */
export const newId = () => ulid(now())
