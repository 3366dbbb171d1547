import { sameInitials } from '@dogleg/core/people'
import { storage } from '../log/storage.ts'

const KEY = 'dogleg.recent'
const MOST = 8

/** Initials of those who were at this tablet, the last first. Kept on it: the server tells nobody which there are. */
export function recentPeople(): string[] {
  try {
    const kept: unknown = JSON.parse(storage.get(KEY) ?? '[]')
    return Array.isArray(kept) ? kept.filter((each) => typeof each === 'string').slice(0, MOST) : []
  } catch {
    return []
  }
}

export function noteRecent(initials: string) {
  const others = recentPeople().filter((each) => !sameInitials(each, initials))
  storage.set(KEY, JSON.stringify([initials, ...others].slice(0, MOST)))
}
