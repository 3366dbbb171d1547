import { existsSync, readdirSync, statSync } from 'node:fs'
import { basename, join, resolve } from 'node:path'

/** Where backups lie, and how many of those that are made by themselves are kept. */
export interface BackupPlan {
  folder: string
  /** For so many days one each; 0 where none is made by itself. */
  days: number
  /** For so many months one each. */
  months: number
}

/** Why a backup was made: each night, before the file is brought up to date, because somebody asked. */
export type BackupWhy = 'night' | 'before-update' | 'asked'

/** A backup as it lies in its folder. */
export interface MadeBackup {
  name: string
  why: BackupWhy
  /** ms since 1970. */
  at: number
  bytes: number
}

const MARK: Record<BackupWhy, string> = { night: '-night', 'before-update': '-before-update', asked: '' }
/** Of those that are made before an update so many are kept. */
const UPDATES_KEPT = 5

/** A time as it stands in names of files: 2026-11-24-093000, in UTC. */
export const stampOf = (now: number) =>
  new Date(now).toISOString().slice(0, 19).replaceAll(':', '').replace('T', '-')

/** What a backup of a logbook is called. */
const backupName = (file: string, now: number, why: BackupWhy) =>
  `${basename(file, '.sqlite')}${MARK[why]}-${stampOf(now)}.sqlite`

/** Where a new backup goes: by its time, or by the next second of which there is none. */
export function newBackup(folder: string, file: string, now: number, why: BackupWhy): string {
  for (let at = now; ; at += 1000) {
    const path = resolve(folder, backupName(file, at, why))
    if (!existsSync(path)) return path
  }
}

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')

/** The backups of a logbook that lie in a folder, the newest first; a file that is still being made is none. */
export function backupsIn(folder: string, file: string): MadeBackup[] {
  const named = new RegExp(
    `^${escaped(basename(file, '.sqlite'))}(-night|-before-update|)-(\\d{4})-(\\d\\d)-(\\d\\d)-(\\d\\d)(\\d\\d)(\\d\\d)\\.sqlite$`,
  )
  let names: string[]
  try {
    names = readdirSync(folder)
  } catch {
    return []
  }
  return names
    .flatMap((name): MadeBackup[] => {
      const [, mark, ...time] = named.exec(name) ?? []
      if (mark === undefined) return []
      const [year = 0, month = 0, day = 0, hour = 0, minute = 0, second = 0] = time.map(Number)
      const why = mark === '-night' ? 'night' : mark === '' ? 'asked' : 'before-update'
      try {
        const { size: bytes } = statSync(join(folder, name))
        return [{ name, why, at: Date.UTC(year, month - 1, day, hour, minute, second), bytes }]
      } catch {
        return []
      }
    })
    .sort((a, b) => b.at - a.at)
}

const DAY = 86_400_000

/** The day of a time, and its month, as they are at the place of the computer. */
const dayOf = (at: number) => {
  const date = new Date(at)
  return `${date.getFullYear()}-${date.getMonth()}-${date.getDate()}`
}
const monthOf = (at: number) => dayOf(at).replace(/-\d+$/, '')

/**
 * Those of the backups that were made by themselves that are kept no longer: the last of each of the last days and of each of the last
 * months stay, and so does the newest of all. What somebody asked for is never removed.
 */
export function outdated(
  made: readonly MadeBackup[],
  { days, months }: BackupPlan,
  now: number,
): MadeBackup[] {
  const newestFirst = made.toSorted((a, b) => b.at - a.at)
  const nights = newestFirst.filter(({ why }) => why === 'night')
  const kept = new Set(nights.slice(0, 1))
  const seen = new Set<string>()
  for (const night of nights) {
    const [day, month] = [dayOf(night.at), monthOf(night.at)]
    if (now - night.at < days * DAY && !seen.has(day)) kept.add(night)
    if (now - night.at < months * 31 * DAY && !seen.has(month)) kept.add(night)
    seen.add(day).add(month)
  }
  const updates = newestFirst.filter(({ why }) => why === 'before-update')
  return [...nights.filter((night) => !kept.has(night)), ...updates.slice(UPDATES_KEPT)]
}

/** The hour from which on a night's backup is made, at the place of the computer. */
const NIGHT_FROM = 2

/** Whether the backup of this night is still to be made: a computer that is off at night makes it in the morning. */
export function isDue(made: readonly MadeBackup[], { days }: BackupPlan, now: number): boolean {
  if (days <= 0) return false
  const nights = made.filter(({ why }) => why === 'night')
  // A clock that was ahead must not keep the next ones from being made.
  const last = Math.max(0, ...nights.map(({ at }) => at).filter((at) => at <= now + DAY))
  return dayOf(last) !== dayOf(now) && new Date(now).getHours() >= NIGHT_FROM
}
