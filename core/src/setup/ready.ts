import { z } from 'zod'
import { type Finding, type Freshness, type Verdict, verdictOf } from '../fact/index.ts'
import {
  effectiveStrikes,
  isUnread,
  type Moment,
  type Order,
  orderOf,
  type UnreadEntry,
  unreadPast,
} from '../log/index.ts'
import { type Machine, type ReadyItem, readyListOf } from '../machine/index.ts'
import { judgeHome } from '../ready/index.ts'
import { HAPPENINGS } from './happenings.ts'
import { type Entry, type EntryOf, kinds, type Logged } from './kinds.ts'
import type { StepState } from './steps.ts'

/** A machine that nobody touched for so long has stood: more than a night and a day. Common practice, by judgement. */
export const STOOD_HOURS = 36
const HOUR = 3_600_000

/** A line of the list: not ticked yet, ticked and holding, or due again and why. */
export interface ReadyLine {
  item: ReadyItem
  tick?: EntryOf<'ticked'>
  state: StepState
  /** Why it is due again: 'ticked before the alarm'. */
  due?: string
}

/** A note for whoever comes next, and who read it. */
export interface ShiftNote {
  entry: EntryOf<'note' | 'handed-over'>
  text: string
  acknowledged?: EntryOf<'acknowledged'>
  /** Waits to be acknowledged by the person at the tablet. */
  waits: boolean
}

export interface ReadyState {
  lines: ReadyLine[]
  /** Newest first. */
  notes: ShiftNote[]
  home?: { entry: EntryOf<'homed'>; freshness: Freshness; findings: Finding[]; verdict: Verdict }
}

/** What is known of a machine from before the time from which on all of its entries are given; times in ms since 1970. */
export const earlierTime = z.object({
  until: z
    .number()
    .describe('from then on every entry is given; of before, those that say how the machine stands'),
  stood: z
    .object({ from: z.number(), until: z.number() })
    .exactOptional()
    .describe('the last long pause before that, if there was one'),
})
export type EarlierTime = z.infer<typeof earlierTime>

export interface ReadyCase {
  machine: Machine
  /** Every entry of every setup on the machine; with `earlier`, all since then, and of before the setups in which each thing was said last. */
  entries: readonly Logged[]
  earlier?: EarlierTime | undefined
  /** ms since 1970. */
  now: number
  /** Initials of who is at the tablet; undefined where nobody is, as in a list for all. */
  operator?: string
}

const isFrom =
  <Kind extends Entry['kind']>(kind: Kind) =>
  (entry: Entry): entry is EntryOf<Kind> =>
    entry.kind === kind

/** What counts of a machine's entries, with the order of them all. */
interface MachineLog {
  entries: readonly Entry[]
  /** What cannot be read of them: what it said is not known. */
  unread: readonly UnreadEntry[]
  earlier: EarlierTime | undefined
  order: Order<Logged>
}

const isLong = (from: number, until: number) => until - from > STOOD_HOURS * HOUR
const stoodFor = (from: number, until: number) =>
  `the machine stood for ${Math.round((until - from) / HOUR)} hours`

/** Whether somebody was surely there within an hour of this, in ms since 1970; undefined where the time of an entry is less sure. */
export const surelyThere = ({ earliest, latest }: Moment, now: number): number | undefined =>
  Math.min(latest, now) - earliest < HOUR ? earliest : undefined

/**
 * The last long pause before a time; `moments` are those at which somebody was there before it, the last first. Read only so far back as is needed.
 */
export function lastPause(moments: Iterable<number>): EarlierTime['stood'] | undefined {
  let until: number | undefined
  for (const from of moments) {
    if (until !== undefined && isLong(from, until)) return { from, until }
    until = from
  }
  return undefined
}

/** The first long pause on the machine that can have been after an entry, in words, if there was one; `now` ends the last pause. */
function stoodAfter(of: Entry, { entries, earlier, order }: MachineLog, now: number): string | undefined {
  let last = order.momentOf(of).earliest
  if (last === Number.NEGATIVE_INFINITY) return 'the machine stood, perhaps: the time is not sure'
  if (earlier && last < earlier.until) {
    const from = Math.max(last, earlier.stood?.from ?? last)
    if (earlier.stood && isLong(from, earlier.stood.until)) return stoodFor(from, earlier.stood.until)
    last = earlier.until
  }
  const moments = entries.flatMap((entry) => {
    // One of an uncertain time does not show that somebody was there in between.
    const there = surelyThere(order.momentOf(entry), now)
    return there !== undefined && there > last ? [there] : []
  })
  for (const moment of [...moments.sort((a, b) => a - b), now]) {
    if (isLong(last, moment)) return stoodFor(last, moment)
    last = moment
  }
  return undefined
}

/** The first alarm that was not surely before an entry. */
const alarmAfter = (of: Entry, { entries, order }: MachineLog) =>
  entries.find(
    (entry): entry is EntryOf<'happened'> =>
      entry.kind === 'happened' && HAPPENINGS[entry.what].alarm && !order.surelyBefore(entry, of),
  )

/** The first entry that cannot be read and was not surely made before another. */
const unreadAfter = (of: Entry, { unread, order }: MachineLog) =>
  unread.find((entry) => !order.surelyBefore(entry, of))

const perhaps = (of: Entry, then: Logged, { order }: MachineLog) =>
  order.surelyBefore(of, then) ? '' : 'perhaps '

function dueAgain(
  item: ReadyItem,
  tick: EntryOf<'ticked'>,
  of: ReadyCase,
  log: MachineLog,
): string | undefined {
  const unread = unreadAfter(tick, log)
  if (unread) return `${perhaps(tick, unread, log)}ticked before ${unreadPast(unread)}`
  if (tick.says !== item.says) return 'the line was changed since it was ticked'
  if (item.again.includes('alarm')) {
    const alarm = alarmAfter(tick, log)
    if (alarm) return `${perhaps(tick, alarm, log)}ticked before ${HAPPENINGS[alarm.what].past}`
  }
  if (item.again.includes('stood')) {
    const stood = stoodAfter(tick, log, of.now)
    if (stood !== undefined) return `ticked before ${stood}`
  }
  if (item.again.includes('operator')) {
    const other = log.entries.find(
      (entry) =>
        entry.by !== tick.by &&
        kinds.of(entry.kind)?.written === 'at-machine' &&
        !log.order.surelyBefore(entry, tick),
    )
    if (other) return `${perhaps(tick, other, log)}ticked by ${tick.by} before ${other.by} was at the machine`
    if (of.operator !== undefined && of.operator !== tick.by) return `ticked by ${tick.by}, not by you`
  }
  return undefined
}

/** The last of some entries in order, and those that may have been made after it. */
function perhapsLast<T extends Entry>(entries: readonly T[], { surelyBefore }: Order<Logged>): T[] {
  const last = entries.at(-1)
  return last ? entries.filter((one) => one === last || !surelyBefore(one, last)) : []
}

function lineOf(item: ReadyItem, of: ReadyCase, log: MachineLog): ReadyLine {
  const ticks = log.entries
    .filter(isFrom('ticked'))
    .filter((each) => each.list === 'ready' && each.item === item.id)
  const tick = ticks.at(-1)
  if (!tick) return { item, state: 'open' }
  const [due] = perhapsLast(ticks, log.order).flatMap((each) => dueAgain(item, each, of, log) ?? [])
  return due === undefined ? { item, tick, state: 'done' } : { item, tick, state: 'stale', due }
}

function homeOf({ machine, now }: ReadyCase, log: MachineLog): ReadyState['home'] {
  const homed = log.entries.filter(isFrom('homed'))
  const entry = homed.at(-1)
  if (!entry) return undefined
  const alarm = alarmAfter(entry, log)
  const stood = stoodAfter(entry, log, now)
  const unread = unreadAfter(entry, log)
  const rival = perhapsLast(homed, log.order).find((each) => each !== entry)
  const says =
    alarm !== undefined
      ? `${perhaps(entry, alarm, log)}read before ${HAPPENINGS[alarm.what].past}`
      : stood !== undefined
        ? `read before ${stood}`
        : unread
          ? `${perhaps(entry, unread, log)}read before ${unreadPast(unread)}`
          : rival && `perhaps read before ${rival.by} read it`
  const findings = judgeHome(entry.shown, machine, machine.unit)
  return {
    entry,
    findings,
    verdict: verdictOf(findings),
    freshness:
      says === undefined
        ? { state: 'fresh' }
        : { state: 'stale', cause: { entryId: alarm?.id ?? entry.id, at: alarm?.at ?? entry.at, says } },
  }
}

function notesOf(entries: readonly Entry[], operator: string | undefined): ShiftNote[] {
  const read = entries.filter(isFrom('acknowledged'))
  return entries
    .filter(
      (entry): entry is EntryOf<'note' | 'handed-over'> =>
        entry.kind === 'note' || entry.kind === 'handed-over',
    )
    .map((entry): ShiftNote => {
      const acknowledged = read.find(({ note, by }) => note === entry.id && by !== entry.by)
      return {
        entry,
        text: entry.kind === 'note' ? entry.text : entry.note || 'Handed over.',
        waits: acknowledged === undefined && entry.by !== operator,
        ...(acknowledged ? { acknowledged } : {}),
      }
    })
    .reverse()
}

/**
 * The Ready step: of a machine rather than of one setup, so it reads every log of the machine. A tick holds until
 * what its line is due again after: an alarm, a long pause, another person at the machine.
 */
export function deriveReady(of: ReadyCase): ReadyState {
  const order = orderOf(of.entries)
  const strikes = effectiveStrikes(order.ordered)
  const held = order.ordered.filter(({ id }) => !strikes.has(id))
  const entries = held.filter((entry) => entry.kind !== 'unread')
  const log = { entries, unread: held.filter(isUnread), earlier: of.earlier, order }
  const lines = readyListOf(of.machine).map((item) => lineOf(item, of, log))
  const notes = notesOf(entries, of.operator)
  const home = homeOf(of, log)
  return { lines, notes, ...(home ? { home } : {}) }
}
