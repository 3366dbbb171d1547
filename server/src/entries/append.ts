import { latestOf, mayName, textsNamedIn, withTexts } from '@dogleg/core/log'
import { type Logged, numbersGiven, readEntryText } from '@dogleg/core/setup'
import { inArray, sql } from 'drizzle-orm'
import type { Writer } from '../database/connect.ts'
import { seriesPart, entries as table, targetPart } from '../database/schema.ts'
import { Problem } from '../problem.ts'
import { referenceStore } from '../reference/store.ts'
import { type Arrival, checkClaim, checkNames, checkStrike, checkTime } from './check.ts'
import { keepTexts, readTexts, takenApart } from './texts.ts'

export type { Arrival } from './check.ts'

export interface Appended {
  added: number
  /** Entries that were here already, from an earlier sending. */
  known: number
}

/** A setup that has new entries, and its machine where its opening says it. */
export interface TouchedSetup {
  id: string
  machine?: string
  /** Of the new entries. */
  kinds: string[]
}

/** Values that go with one statement: SQLite takes at most 32,766. */
const AT_ONCE = 5000

function* batches<T>(list: readonly T[]): Generator<T[]> {
  for (let at = 0; at < list.length; at += AT_ONCE) yield list.slice(at, at + AT_ONCE)
}

interface Stands {
  setup: string
  body: string
}

async function standingOf(tx: Writer, ids: readonly string[]): Promise<Map<string, Stands>> {
  const found = new Map<string, Stands>()
  for (const some of batches(ids))
    for (const { id, setup, body } of await tx.select().from(table).where(inArray(table.id, some)))
      found.set(id, { setup, body })
  return found
}

const namedBy = (entry: Logged) => [entry.id, entry.setup, ...(entry.kind === 'struck' ? [entry.target] : [])]

/** A time that a file says, in ms since 1970: never later than now, whatever the clock of the other PC says. */
const upTo = (now: number, time: string | undefined) =>
  time === undefined ? null : Math.min(now, Date.parse(time))

/** What is kept of where an entry comes from, beside it: when it came, and from which tablet. */
const cameFrom = ({ id, received, latest, tablet }: Logged, arrival: Arrival) =>
  arrival.by === 'file'
    ? { received: upTo(arrival.now, received), latest: upTo(arrival.now, latest), tablet: tablet ?? null }
    : {
        received: arrival.now,
        latest: latestOf(arrival.now, arrival.held?.get(id) ?? 0),
        tablet: arrival.signed?.get(id)?.tablet ?? (arrival.givenBack && tablet) ?? null,
      }

/** Who made what stands there; undefined where that cannot be read. */
function madeBy(stands: Stands | undefined): string | undefined {
  const entry = stands && readEntryText(stands.body)
  return entry?.by
}

/** When a setup was opened, from the entry that opened it as it stands in the log. */
function openedAt(opening: Stands | undefined): number | undefined {
  if (!opening) return undefined
  const entry = readEntryText(opening.body)
  return entry.kind === 'unread' ? undefined : Date.parse(entry.at)
}

function touched(id: string, opening: Stands | undefined, kinds: Iterable<string>): TouchedSetup {
  const entry = opening && readEntryText(opening.body)
  return entry?.kind === 'opened'
    ? { id, machine: entry.machine.id, kinds: [...kinds] }
    : { id, kinds: [...kinds] }
}

/** An entry as it is stored: its times of arrival stand beside it, long texts apart. */
interface Stored {
  body: string
  texts: ReadonlyMap<string, string>
  /** The same in one piece. */
  whole: string
}

const inOnePiece = (whole: string): Stored => ({ body: whole, texts: new Map(), whole })

/** What cannot be read here is kept as it was written. */
function storedOf(entry: Logged): Stored {
  if (entry.kind !== 'unread') {
    const made = withoutTimes(entry)
    return { ...takenApart(made), whole: JSON.stringify(made) }
  }
  try {
    return inOnePiece(JSON.stringify(withoutTimes(JSON.parse(entry.raw) as object)))
  } catch {
    return inOnePiece(entry.raw)
  }
}

function withoutTimes(entry: object): object {
  const { received: _received, latest: _latest, tablet: _tablet, ...made } = entry as Partial<Logged>
  return made
}

/** Whether what stands there says the same as an entry that is sent again, though it may have been written in an older shape. */
function isSame(
  stands: string,
  { body, whole }: Stored,
  textOf: (hash: string) => string | undefined,
): boolean {
  if (stands === body || stands === whole) return true
  const inPlace = namedIn(stands).length > 0 ? JSON.stringify(withTexts(JSON.parse(stands), textOf)) : stands
  if (inPlace === whole) return true
  const before = readEntryText(inPlace)
  return before.kind !== 'unread' && JSON.stringify(withoutTimes(before)) === whole
}

/** The texts that stand apart from a body. */
function namedIn(body: string): string[] {
  if (!mayName(body)) return []
  try {
    return [...textsNamedIn(JSON.parse(body))]
  } catch {
    return []
  }
}

/** Serial numbers of some series that were given out in the whole shop, and what strikes any of them out. */
async function numbersOf(tx: Writer, series: readonly string[]): Promise<Logged[]> {
  const found: (typeof table.$inferSelect)[] = []
  for (const some of batches(series))
    found.push(...(await tx.select().from(table).where(inArray(seriesPart, some))))
  // What strikes out one of them, and what strikes out that.
  for (let named = found.map(({ id }) => id); named.length > 0; ) {
    const strikes: typeof found = []
    for (const some of batches(named))
      strikes.push(...(await tx.select().from(table).where(inArray(targetPart, some))))
    found.push(...strikes)
    named = strikes.map(({ id }) => id)
  }
  return found.map(({ id, setup, body }) => readEntryText(body, { id, setup }, 'read-before'))
}

/** Adds entries to the log, in the transaction that is open; `last` is the place of the last entry then. Adding is idempotent by the id that the client made. */
export async function appendEntries(
  tx: Writer,
  entries: readonly Logged[],
  arrival: Arrival,
): Promise<Appended & { touched: TouchedSetup[]; last: number }> {
  const standing = await standingOf(tx, [...new Set(entries.flatMap(namedBy))])
  const named = entries.flatMap(({ id }) => namedIn(standing.get(id)?.body ?? ''))
  const apart = await readTexts(tx, [...new Set(named)], { inDoubt: false })
  const rows = referenceStore(tx)
  const machines = new Set<string>()
  for (const entry of entries)
    if (entry.kind === 'opened' && (await rows.newest('machines', entry.machine.id)))
      machines.add(entry.machine.id)
  const series = new Set(entries.flatMap((entry) => (entry.kind === 'numbered' ? [entry.series] : [])))
  const numbers = arrival.by === 'tablet' ? await numbersOf(tx, [...series]) : []
  // A file need not begin with the entry that opens its setup.
  const opens = new Set(entries.flatMap(({ id, kind }) => (kind === 'opened' ? [id] : [])))
  const setupOf = (id: string) => standing.get(id)?.setup ?? (opens.has(id) ? id : undefined)
  const added: (typeof table.$inferInsert)[] = []
  const texts = new Map<string, string>()
  for (const entry of entries) {
    const made = storedOf(entry)
    const before = standing.get(entry.id)
    if (before !== undefined && !isSame(before.body, made, (hash) => apart.get(hash)))
      throw new Problem(409, 'id-taken', 'Another entry has this id. Enter it again.', entry.id)
    if (before !== undefined) continue
    checkNames(entry, { setupOf, machineKnown: (id) => machines.has(id) }, arrival)
    if (entry.kind === 'struck') checkStrike(entry, madeBy(standing.get(entry.target)), arrival)
    checkClaim(entry, arrival)
    checkTime(entry, openedAt(standing.get(entry.setup)), arrival)
    if (entry.kind === 'numbered' && arrival.by === 'tablet') {
      const taken = numbersGiven(numbers, entry)
      if (taken) throw new Problem(409, 'number-given', taken, entry.id)
    }
    if (entry.kind === 'numbered' || entry.kind === 'struck') numbers.push(entry)
    const { body } = made
    standing.set(entry.id, { setup: entry.setup, body })
    added.push({ id: entry.id, setup: entry.setup, body, ...cameFrom(entry, arrival) })
    for (const [hash, text] of made.texts) texts.set(hash, text)
  }
  await keepTexts(tx, texts)
  for (const some of batches(added)) await tx.insert(table).values(some)
  const [end] = await tx.select({ last: sql<number | null>`max(${table.seq})` }).from(table)
  const setups = new Map<string, Set<string>>()
  for (const { setup, kind } of entries) setups.set(setup, (setups.get(setup) ?? new Set()).add(kind))
  return {
    added: added.length,
    known: entries.length - added.length,
    last: end?.last ?? 0,
    touched: added.length === 0 ? [] : [...setups].map(([id, of]) => touched(id, standing.get(id), of)),
  }
}
