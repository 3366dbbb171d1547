import { effectiveStrikes, orderOf } from '@dogleg/core/log'
import { FOUND_BY, programsAtControl, searchWords } from '@dogleg/core/prepare'
import { jobOf, type Logged, putAwayBy, saidOfMachine, surelyThere, workedOnLast } from '@dogleg/core/setup'
import { sqliteCode } from '../database/errors.ts'
import type { EntryStore, PlacedEntry } from '../entries/store.ts'
import { type KeptFile, keepValue, keptAnew, keptInMemory, keptValue, openKept, prepared } from './open.ts'
import { rowWord } from './search.ts'

/** Entries that are looked through between two answers. */
const AT_A_STRETCH = 500

/** How far a logbook has been followed. */
export interface Followed {
  db: KeptFile
  /** Place of the last entry that what is kept knows of. */
  seq: number
  /** How much of the logbook was read through, in hundredths, while it is; undefined once all was. */
  reads: number | undefined
  /** Whether so much was read through that something can be said of the shop. */
  enough: boolean
}

/** Lists of entries that are asked for by themselves. */
type List = 'program' | 'timed' | 'numbered'

/** The lists that an entry stands in, and what of: a program, a cycle that was timed, a series of numbers. */
function listsOf(entry: Logged): { list: List; name: string }[] {
  if (entry.kind === 'timed') return [{ list: 'timed', name: entry.id }]
  if (entry.kind === 'numbered') return [{ list: 'numbered', name: entry.series }]
  return programsAtControl(entry).map((name) => ({ list: 'program', name }))
}

/** What one setup's log comes to, as far as others ask for it. */
function workedOut(log: readonly PlacedEntry[], now: number) {
  const seqOf = new Map(log.map(({ entry, seq }) => [entry, seq]))
  const order = orderOf(log.map(({ entry }) => entry))
  const strikes = effectiveStrikes(order.ordered)
  const counting = order.ordered.filter(({ id }) => !strikes.has(id))
  const opened = log.find(({ entry }) => entry.kind === 'opened')?.entry
  const away = putAwayBy(counting, order.surelyBefore) !== undefined
  const words = searchWords(counting)
  if (away) words.words.state.push('put away')
  const said = new Map<string, number>()
  for (const entry of counting)
    for (const name of saidOfMachine(entry))
      said.set(name, Math.max(said.get(name) ?? 0, seqOf.get(entry) ?? 0))
  return {
    machine: opened?.kind === 'opened' ? opened.machine.id : null,
    opened: opened === undefined ? null : (seqOf.get(opened) ?? null),
    job: opened?.kind === 'opened' ? jobOf(opened.title) : null,
    away,
    worked: Date.parse(workedOnLast(counting)) || 0,
    words,
    at: Date.parse(order.ordered.at(-1)?.at ?? '') || 0,
    said,
    listed: counting.flatMap((entry) =>
      listsOf(entry).map((each) => ({ ...each, seq: seqOf.get(entry) ?? 0 })),
    ),
    moments: counting.flatMap((entry) => {
      const at = entry.kind === 'unread' ? undefined : surelyThere(order.momentOf(entry), now)
      return at === undefined ? [] : [{ at: Math.ceil(at), seq: seqOf.get(entry) ?? 0 }]
    }),
    notes: counting.filter(({ kind }) => kind === 'note' || kind === 'handed-over'),
    readings: counting.flatMap((entry) => (entry.kind === 'acknowledged' ? [entry] : [])),
    seqOf: (entry: Logged) => seqOf.get(entry) ?? 0,
  }
}

/** Puts what a setup's log comes to into the place of what was kept of it. */
function statements(db: KeptFile) {
  const put = {
    setup: db.prepare(
      'insert or replace into setups (setup, machine, job, first, last, opened, at, away, worked) values (?, ?, ?, ?, ?, ?, ?, ?, ?)',
    ),
    said: db.prepare('insert into said (setup, machine, name, seq) values (?, ?, ?, ?)'),
    listed: db.prepare('insert into listed (setup, machine, list, name, seq) values (?, ?, ?, ?, ?)'),
    moment: db.prepare('insert into moments (setup, machine, seq, at) values (?, ?, ?, ?)'),
    note: db.prepare(
      'insert or replace into notes (id, setup, machine, seq, by, waits) values (?, ?, ?, ?, ?, 1)',
    ),
    reading: db.prepare(
      'insert or replace into readings (id, setup, machine, note, by, seq) values (?, ?, ?, ?, ?, ?)',
    ),
    readBefore: db.prepare('select note from readings where setup = ?'),
    waits: db.prepare(
      'update notes set waits = not exists (select 1 from readings where note = notes.id and machine = notes.machine and by <> notes.by) where id = ?',
    ),
    lastBefore: db.prepare('select last from setups where setup = ?'),
    forgetWords: db.prepare('delete from words where rowid = ?'),
    words: db.prepare(
      `insert into words (rowid, ${FOUND_BY.join(', ')}, named) values (${['rowid', ...FOUND_BY, 'named'].map(() => '?').join(', ')})`,
    ),
    clear: ['said', 'listed', 'moments', 'notes', 'readings'].map((table) =>
      db.prepare(`delete from ${table} where setup = ?`),
    ),
  }
  return (setup: string, log: readonly PlacedEntry[], now: number) => {
    const { machine, job, opened, words, at, away, worked, said, listed, moments, notes, readings, seqOf } =
      workedOut(log, now)
    const before = (put.readBefore.all(setup) as { note: string }[]).map(({ note }) => note)
    for (const each of put.clear) each.run(setup)
    const was = put.lastBefore.get(setup) as { last: number } | undefined
    if (was) put.forgetWords.run(was.last)
    // What a damaged file may lack has no place.
    const last = log.findLast(({ seq }) => seq > 0)?.seq ?? 0
    put.words.run(
      last,
      ...FOUND_BY.map((by) => words.words[by].join(' \u00b7 ')),
      words.rows.map(rowWord).join(' '),
    )
    put.setup.run(setup, machine, job, log[0]?.seq ?? 0, last, opened, at, away ? 1 : 0, worked)
    for (const [name, seq] of said) put.said.run(setup, machine, name, seq)
    for (const { list, name, seq } of listed) put.listed.run(setup, machine, list, name, seq)
    for (const moment of moments) put.moment.run(setup, machine, moment.seq, moment.at)
    for (const entry of notes) put.note.run(entry.id, setup, machine, seqOf(entry), entry.by)
    for (const entry of readings)
      put.reading.run(entry.id, setup, machine, entry.note, entry.by, seqOf(entry))
    for (const id of new Set([
      ...before,
      ...notes.map((each) => each.id),
      ...readings.map((each) => each.note),
    ]))
      put.waits.run(id)
  }
}

/** Setups that must have been read before anything is said of the shop: more than stand on any board. */
const ENOUGH = 600
/** So long a question waits until so much was read, in ms; after that it is told to come again. */
const PATIENCE_MS = 3000

/**
 * Follows a logbook: after each call what is kept knows of every entry up to its end. Each setup that has a new entry is worked out
 * anew, and nothing else is looked at. A logbook of which nothing is kept is read through once, backwards: whatever is known of a
 * machine then, all that came after it is known too, so that nothing is taken for fresh that is not.
 * What was kept of another logbook, or of one that went on otherwise from some place (a backup was put there), is thrown away.
 */
export function follower(entries: EntryStore, of: { file: string; logbook: string; damaged: boolean }) {
  let db: KeptFile | undefined
  let put: ReturnType<typeof statements> | undefined

  const take = (file: KeptFile) => {
    db = file
    put = statements(file)
    return file
  }
  const anew = () => {
    db?.close()
    return take(keptAnew(of.file, of.logbook))
  }
  const numberIn = (file: KeptFile, name: string) => Number(keptValue(file, name) ?? 0)

  /** Opens what is kept, and sees that it is of this very log. */
  const open = async (): Promise<KeptFile> => {
    if (db) return db
    const file = take(of.damaged ? keptInMemory(of.logbook) : openKept(of.file, of.logbook))
    const seq = numberIn(file, 'seq')
    return seq > 0 && (await entries.idAt(seq)) !== keptValue(file, 'id') ? anew() : file
  }

  /** Works out some setups, and notes how far what is kept goes now. */
  const workOut = async (
    file: KeptFile,
    setups: readonly string[],
    now: number,
    values: Record<string, string | number>,
  ) => {
    const logs = new Map<string, PlacedEntry[]>()
    for (const setup of setups) logs.set(setup, await entries.placed(setup))
    file.exec('begin')
    try {
      for (const [setup, log] of logs) put?.(setup, log, now)
      for (const [name, value] of Object.entries(values)) keepValue(file, name, String(value))
      file.exec('commit')
    } catch (error) {
      file.exec('rollback')
      throw error
    }
  }

  /** What came since; of a damaged file all that can be read. False where there is nothing more. */
  const forwards = async (file: KeptFile, now: number): Promise<boolean> => {
    const place = numberIn(file, 'seq')
    const { setups, seq } = await entries.touchedSince(place, AT_A_STRETCH)
    if (seq === place) return false
    await workOut(file, setups, now, { seq, id: (await entries.idAt(seq).catch(() => undefined)) ?? '' })
    return true
  }

  /** What was there before: setups that were read through already are passed over. */
  const backwards = async (file: KeptFile, now: number) => {
    const { setups, before } = await entries.touchedUpTo(numberIn(file, 'before'), AT_A_STRETCH)
    const known = file.prepare('select 1 from setups where setup = ?')
    await workOut(
      file,
      setups.filter((setup) => known.get(setup) === undefined),
      now,
      { before },
    )
  }

  const goOn = async (ms: number, now: number): Promise<Followed> => {
    const file = await open()
    const began = performance.now()
    const isEnough = () => {
      const { read } = prepared(file, 'select count(*) as read from (select 1 from setups limit ?)').get(
        ENOUGH,
      ) as {
        read: number
      }
      return numberIn(file, 'before') === 0 || read >= ENOUGH
    }
    // Until something can be said, whoever asks waits a little longer.
    const isOver = () => {
      const passed = performance.now() - began
      return passed > ms && (passed > PATIENCE_MS || isEnough())
    }
    const { seq: end } = await entries.last()
    if (keptValue(file, 'seq') === undefined && !of.damaged) {
      const id = (await entries.idAt(end)) ?? ''
      await workOut(file, [], now, { seq: end, id, before: end })
    }
    // What came since is followed to its end: else something new would not be known that stands in the log.
    while (numberIn(file, 'seq') < end && performance.now() - began < PATIENCE_MS)
      if (!(await forwards(file, now))) break
    while (numberIn(file, 'before') > 0 && !isOver()) await backwards(file, now)
    const seq = numberIn(file, 'seq')
    const before = numberIn(file, 'before')
    return {
      db: file,
      seq,
      reads: before === 0 ? undefined : Math.floor((100 * (seq - before)) / seq),
      enough: (seq >= end || of.damaged) && isEnough(),
    }
  }

  /** Does work on what is kept; whatever is wrong with it is wrong with nothing else: then it is made anew, once. */
  const twice = async <T>(work: () => Promise<T>): Promise<T> => {
    try {
      return await work()
    } catch (error) {
      if (sqliteCode(error) === undefined) throw error
      anew()
      return work()
    }
  }

  return {
    /** Follows for about `ms`, and then asks what is kept; `now` in ms since 1970. */
    ask: <T>(ms: number, now: number, question: (followed: Followed) => Promise<T>): Promise<T> =>
      twice(async () => question(await goOn(ms, now))),
    close: () => db?.close(),
  }
}
export type Follower = ReturnType<typeof follower>
