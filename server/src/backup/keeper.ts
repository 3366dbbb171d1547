import { statSync } from 'node:fs'
import { statfs } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { type Answer, idOfLogbook } from '@dogleg/core/api'
import { decodeTime } from 'ulid'
import { Problem, StartProblem } from '../problem.ts'
import type { Threads } from '../threads/threads.ts'
import { remove, removeUnfinished } from './copy.ts'
import { type BackupPlan, type BackupWhy, backupsIn, isDue, newBackup, outdated } from './plan.ts'

/** How often it is looked whether a backup is due, in ms, and how long after the start first. */
const LOOK_MS = 15 * 60_000
const FIRST_LOOK_MS = 5 * 60_000
/** A backup that failed is tried again after so long, in ms. */
const AGAIN_MS = 3 * 3_600_000
const WEEK = 7 * 86_400_000

/** So much of the disk stays free, in bytes, whatever is written into it by itself. */
const LEAVES_FREE = 200 * 1024 * 1024
/** With less than this the disk is nearly full. */
const NEARLY_FULL = 500 * 1024 * 1024

const sizeOf = (path: string) => {
  try {
    return statSync(path).size
  } catch {
    return 0
  }
}

const said = (bytes: number) =>
  bytes >= 1e9 ? `${(bytes / 1e9).toFixed(1)} GB` : `${Math.ceil(bytes / 1e6)} MB`

export interface BackupKeeperOptions {
  file: string
  /** Its name, which says when it was begun. */
  logbook: string
  /** A file that is damaged is not copied over good backups. */
  damaged: boolean
  plan: BackupPlan
  threads: Threads
  /** ms since 1970. */
  clock: () => number
}

/** What there is to say of backups and of the disk. */
export type BackupState = Answer<'shop'>['backups']

/**
 * Keeps backups of a logbook: one each night by itself, thinned out, and one whenever somebody asks. One is made at a time, in a thread of its
 * own, and is good once it was opened and held against the logbook.
 */
export function backupKeeper({ file, logbook, damaged, plan, threads, clock }: BackupKeeperOptions) {
  let running: { why: BackupWhy; part: string; stop: AbortController } | undefined
  let failed: { at: number; says: string } | undefined
  const made = () => backupsIn(plan.folder, file)

  const freeIn = async (folder: string): Promise<number | undefined> => {
    try {
      const { bavail, bsize } = await statfs(folder)
      return bavail * bsize
    } catch {
      return undefined
    }
  }

  /** @throws Problem where there is no room for one more */
  const seeRoom = async () => {
    const needs = 1.2 * (sizeOf(file) + sizeOf(`${file}-wal`)) + LEAVES_FREE
    // The folder may have to be made yet.
    const free = (await freeIn(plan.folder)) ?? (await freeIn(dirname(file)))
    if (free !== undefined && free < needs)
      throw new Problem(
        507,
        'disk-full',
        `There is no room for a backup: it needs ${said(needs)}, and the disk has ${said(free)} left. Make room, or name another folder with DOGLEG_BACKUPS.`,
      )
  }

  const make = async (why: BackupWhy): Promise<void> => {
    const to = newBackup(plan.folder, file, clock(), why)
    const stop = new AbortController()
    running = { why, part: `${to}.part`, stop }
    try {
      if (damaged)
        throw new Problem(
          503,
          'logbook-damaged',
          'The logbook is damaged: no backup is made of it. Take the last good one.',
        )
      await seeRoom()
      await threads.backup({ from: file, to }, stop.signal)
      failed = undefined
      for (const { name } of outdated(made(), plan, clock())) remove(join(plan.folder, name))
    } catch (error) {
      removeUnfinished(`${to}.part`)
      if (stop.signal.aborted) return
      const says =
        error instanceof Problem || error instanceof StartProblem ? error.message : 'It could not be written.'
      failed = { at: clock(), says }
      throw error
    } finally {
      running = undefined
    }
  }

  const look = () => {
    const now = clock()
    if (running || damaged || (failed && now - failed.at < AGAIN_MS) || !isDue(made(), plan, now)) return
    void make('night').catch(() => undefined)
  }
  const first = setTimeout(look, FIRST_LOOK_MS)
  const timer = setInterval(look, LOOK_MS)
  first.unref()
  timer.unref()

  return {
    look,
    /** Begins one; it goes on by itself. */
    begin: async (): Promise<void> => {
      if (running) return
      await seeRoom()
      // Another may have begun one while the room was looked at.
      if (!running) void make('asked').catch(() => undefined)
    },
    stop: () => running?.stop.abort(),
    state: async (): Promise<BackupState> => {
      const list = made()
      const { folder, days, months } = plan
      return {
        folder,
        days,
        months,
        made: list.map(({ name, why, at, bytes }) => ({ name, why, at: new Date(at).toISOString(), bytes })),
        ...(running ? { running: running.why } : {}),
        ...(failed ? { failed: { at: new Date(failed.at).toISOString(), says: failed.says } } : {}),
      }
    },
    /** The disk that the logbook is on: what is left of it, in bytes. */
    free: () => freeIn(dirname(file)),
    /** What somebody must do something about, in sentences. */
    warnings: async (): Promise<string[]> => {
      const warnings: string[] = []
      const now = clock()
      const free = await freeIn(dirname(file))
      const needs = Math.max(NEARLY_FULL, 3 * sizeOf(file))
      if (free !== undefined && free < needs)
        warnings.push(
          `The disk of the logbook is nearly full: ${said(free)} are left. Make room before nothing more can be recorded.`,
        )
      const last = made().find(({ at }) => at <= now + WEEK)
      if (!damaged && now - (last?.at ?? decodeTime(idOfLogbook(logbook))) > WEEK)
        warnings.push(
          `There is no backup of this week: ${last ? `the last one is of ${new Date(last.at).toISOString().slice(0, 10)}` : 'there is none at all'}.${failed ? ` ${failed.says}` : ''} See This shop.`,
        )
      return warnings
    },
    end: async () => {
      clearTimeout(first)
      clearInterval(timer)
      running?.stop.abort()
    },
  }
}
export type BackupKeeper = ReturnType<typeof backupKeeper>
