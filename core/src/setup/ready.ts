import { type Finding, type Freshness, type Verdict, verdictOf } from '../fact/index.ts'
import { type Machine, type ReadyItem, readyListOf } from '../machine/index.ts'
import { judgeHome } from '../ready/index.ts'
import type { Entry, EntryOf } from './entries.ts'
import { HAPPENINGS } from './happenings.ts'
import { inOrder } from './in-order.ts'
import type { StepState } from './steps.ts'
import { effectiveStrikes } from './strikes.ts'

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
  state: StepState
  lines: ReadyLine[]
  /** Newest first. */
  notes: ShiftNote[]
  home?: { entry: EntryOf<'homed'>; freshness: Freshness; findings: Finding[]; verdict: Verdict }
}

export interface ReadyCase {
  machine: Machine
  /** Every entry of every setup on the machine. */
  entries: readonly Entry[]
  /** ms since 1970. */
  now: number
  /** Initials of who is at the tablet; undefined where nobody is, as in a list for all. */
  operator?: string
}

/** Kinds that are written at a desk as well as at the machine. */
const AT_A_DESK: readonly Entry['kind'][] = ['note', 'handed-over', 'acknowledged', 'struck', 'opened']
const isFrom =
  <Kind extends Entry['kind']>(kind: Kind) =>
  (entry: Entry): entry is EntryOf<Kind> =>
    entry.kind === kind

/** The first long pause on the machine after a moment, in hours, if there was one; `now` ends the last pause. */
function stoodAfter(at: string, entries: readonly Entry[], now: number): number | undefined {
  let last = Date.parse(at)
  const moments = entries.map((entry) => Date.parse(entry.at)).filter((each) => each > last)
  for (const moment of [...moments, now]) {
    if (moment - last > STOOD_HOURS * HOUR) return Math.round((moment - last) / HOUR)
    last = moment
  }
  return undefined
}

const alarmAfter = (at: string, entries: readonly Entry[]) =>
  entries.find(
    (entry): entry is EntryOf<'happened'> =>
      entry.kind === 'happened' && entry.at > at && HAPPENINGS[entry.what].alarm,
  )

function dueAgain(
  item: ReadyItem,
  tick: EntryOf<'ticked'>,
  of: ReadyCase,
  entries: readonly Entry[],
): string | undefined {
  if (tick.says !== item.says) return 'the line was changed since it was ticked'
  if (item.again.includes('alarm')) {
    const alarm = alarmAfter(tick.at, entries)
    if (alarm) return `ticked before ${HAPPENINGS[alarm.what].past}`
  }
  if (item.again.includes('stood')) {
    const hours = stoodAfter(tick.at, entries, of.now)
    if (hours !== undefined) return `ticked before the machine stood for ${hours} hours`
  }
  if (item.again.includes('operator')) {
    const other = entries.find(
      ({ by, at, kind }) => at > tick.at && by !== tick.by && !AT_A_DESK.includes(kind),
    )
    if (other) return `ticked by ${tick.by} before ${other.by} was at the machine`
    if (of.operator !== undefined && of.operator !== tick.by) return `ticked by ${tick.by}, not by you`
  }
  return undefined
}

function lineOf(item: ReadyItem, of: ReadyCase, entries: readonly Entry[]): ReadyLine {
  const tick = entries
    .filter(isFrom('ticked'))
    .findLast((each) => each.list === 'ready' && each.item === item.id)
  if (!tick) return { item, state: 'open' }
  const due = dueAgain(item, tick, of, entries)
  return due === undefined ? { item, tick, state: 'done' } : { item, tick, state: 'stale', due }
}

function homeOf({ machine, now }: ReadyCase, entries: readonly Entry[]): ReadyState['home'] {
  const entry = entries.filter(isFrom('homed')).at(-1)
  if (!entry) return undefined
  const alarm = alarmAfter(entry.at, entries)
  const stood = stoodAfter(entry.at, entries, now)
  const says =
    alarm !== undefined
      ? `read before ${HAPPENINGS[alarm.what].past}`
      : stood !== undefined
        ? `read before the machine stood for ${stood} hours`
        : undefined
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
  const ordered = inOrder(of.entries)
  const strikes = effectiveStrikes(ordered)
  const entries = ordered.filter(({ id }) => !strikes.has(id))
  const lines = readyListOf(of.machine).map((item) => lineOf(item, of, entries))
  const notes = notesOf(entries, of.operator)
  const home = homeOf(of, entries)
  const stale = lines.some((line) => line.state === 'stale') || home?.freshness.state === 'stale'
  const done =
    lines.every((line) => line.state === 'done') &&
    home?.verdict === 'good' &&
    !notes.some(({ waits }) => waits)
  return {
    state: stale ? 'stale' : done ? 'done' : 'open',
    lines,
    notes,
    ...(home ? { home } : {}),
  }
}
