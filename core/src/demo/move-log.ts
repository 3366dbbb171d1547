import { decodeTime, encodeTime, TIME_LEN } from 'ulid'
import type { Entry } from '../setup/index.ts'

const MINUTE = 60_000

/** An id; a time as entries have it; a time as programs have it in their comments. */
const ID_OR_TIME =
  /\b[0-7][0-9A-HJKMNP-TV-Z]{25}\b|\b\d{4}-\d\d-\d\d(?:T\d\d:\d\d:\d\d\.\d{3}Z| \d\d:\d\d UTC\b)/g

function later(found: string, by: number, mark: string): string {
  if (!found.includes(':'))
    return encodeTime(decodeTime(found) + by, TIME_LEN) + mark + found.slice(TIME_LEN + mark.length)
  const inComment = found.endsWith(' UTC')
  const time = new Date(
    Date.parse(inComment ? found.replace(' ', 'T').replace(' UTC', ':00Z') : found) + by,
  ).toISOString()
  return inComment ? `${time.slice(0, 16).replace('T', ' ')} UTC` : time
}

/**
 * The same log as if everything had happened `minutes` later: each time is later by that much, and so is the time in each id,
 * wherever one entry names another, and in the comments of programs. Behind the time each id begins with `mark` (up to eight
 * characters of Crockford's base 32), so that the same log in two installations is two logs; their order stays.
 */
export function moveLog(entries: readonly Entry[], minutes: number, mark = ''): Entry[] {
  const moved = JSON.stringify(entries).replaceAll(ID_OR_TIME, (found) =>
    later(found, minutes * MINUTE, mark),
  )
  return JSON.parse(moved) as Entry[]
}
