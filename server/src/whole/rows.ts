import { createHash } from 'node:crypto'
import Sqlite from 'libsql'
import { isDamage } from '../database/errors.ts'

// The whole of a logbook, row by row, as it stands in the file. Read in a process or a thread of its own: it may be long.

/** An entry as it is stored; times in ms since 1970. */
export interface StoredEntry {
  seq: number
  id: string
  setup: string
  body: string
  received: number | null
  latest: number | null
  tablet: string | null
}
/** A version of somebody of the shop, as it is stored: without a PIN. */
export interface StoredPerson {
  id: string
  initials: string
  name: string
  may: string
  gone: number
  by: string | null
  at: number
}
/** A version of a row of reference data as it is stored. */
export interface StoredRow {
  noun: string
  id: string
  version: number
  by: string | null
  at: number | null
  body: string
}
/** That a row was retired (1) or brought back (0), as it is stored. */
export interface StoredRetirement {
  noun: string
  id: string
  retired: number
  by: string | null
  at: number
}
/** A result of an exercise as it is stored. */
export interface StoredResult {
  id: string
  by: string
  body: string
}

/** Opens a logbook to be read; what another process writes meanwhile is not seen until it is asked for. */
export const openToRead = (file: string): Sqlite.Database => new Sqlite(file, { readonly: true })

/** Rows are read so many at a time. */
const AT_A_TIME = 500

const columnsOf = (db: Sqlite.Database, table: string): Set<string> =>
  new Set((db.prepare(`pragma table_info(${table})`).all() as { name: string }[]).map(({ name }) => name))

/**
 * The rows of a table in the order of a whole number that each has. Of a damaged file those that can be read: where some cannot, one by
 * one. `lost` is told how many there may have been.
 */
function* inOrder<Row>(
  db: Sqlite.Database,
  table: string,
  columns: readonly string[],
  key: string,
  lost: (count: number) => void,
): Generator<Row> {
  const there = columnsOf(db, table)
  if (there.size === 0) return
  const wanted = columns.map((name) => (there.has(name) ? name : `null as ${name}`)).join(', ')
  const some = db.prepare(
    `select ${key} as place, ${wanted} from ${table} where ${key} > ? order by ${key} limit ${AT_A_TIME}`,
  )
  for (let after = 0; ; ) {
    let rows: (Row & { place: number })[]
    try {
      rows = some.all(after) as (Row & { place: number })[]
    } catch (error) {
      if (!isDamage(error)) throw error
      yield* oneByOne<Row>(db, table, wanted, key, after, lost)
      return
    }
    for (const { place: _, ...row } of rows) yield row as Row
    const last = rows.at(-1)
    if (!last) return
    after = last.place
  }
}

/** How far a table goes, also where its last page cannot be read and SQLite remembers it elsewhere. */
function lastOf(db: Sqlite.Database, table: string, key: string): number {
  for (const question of [
    `select max(${key}) as last from ${table}`,
    `select seq as last from sqlite_sequence where name = '${table}'`,
  ]) {
    try {
      const { last } = db.prepare(question).get() as { last: number | null }
      if (last !== null) return last
    } catch {
      // Asked another way.
    }
  }
  return 0
}

function* oneByOne<Row>(
  db: Sqlite.Database,
  table: string,
  wanted: string,
  key: string,
  after: number,
  lost: (count: number) => void,
): Generator<Row> {
  const ask = () => db.prepare(`select ${wanted} from ${table} where ${key} = ?`)
  let one = ask()
  let missing = 0
  for (let place = after + 1; place <= lastOf(db, table, key); place++) {
    try {
      const row = one.get(place)
      if (row !== undefined) yield row as Row
    } catch (error) {
      if (!isDamage(error)) throw error
      missing++
      // A statement that has met damage fails from then on, whatever it is asked.
      one = ask()
    }
  }
  if (missing > 0) lost(missing)
}

/** A long text as it is stored. */
export interface StoredText {
  hash: string
  text: string
}

const nothing = () => {}

export const entriesIn = (db: Sqlite.Database, lost: (count: number) => void = nothing) =>
  inOrder<StoredEntry>(
    db,
    'entries',
    ['seq', 'id', 'setup', 'body', 'received', 'latest', 'tablet'],
    'seq',
    lost,
  )

export const rowsIn = (db: Sqlite.Database, lost: (count: number) => void = nothing) =>
  inOrder<StoredRow>(db, 'reference', ['noun', 'id', 'version', 'by', 'at', 'body'], 'rowid', lost)

export const retirementsIn = (db: Sqlite.Database, lost: (count: number) => void = nothing) =>
  inOrder<StoredRetirement>(db, 'retirements', ['noun', 'id', 'retired', 'by', 'at'], 'seq', lost)

export const resultsIn = (db: Sqlite.Database, lost: (count: number) => void = nothing) =>
  inOrder<StoredResult>(db, 'practice', ['id', 'by', 'body'], 'rowid', lost)

export const peopleIn = (db: Sqlite.Database, lost: (count: number) => void = nothing) =>
  inOrder<StoredPerson>(db, 'people', ['id', 'initials', 'name', 'may', 'gone', 'by', 'at'], 'seq', lost)

export const textsIn = (db: Sqlite.Database, lost: (count: number) => void = nothing) =>
  inOrder<StoredText>(db, 'texts', ['hash', 'text'], 'rowid', lost)

/** The name of a logbook; empty in one from before they had names. */
export function nameIn(db: Sqlite.Database): string {
  if (columnsOf(db, 'logbook').size === 0) return ''
  return (db.prepare('select id from logbook').get() as { id: string } | undefined)?.id ?? ''
}

/** What stands in a whole logbook, each log in a few letters: two that have the same are the same. */
export interface Digest {
  logbook: string
  entries: number
  /** Place of the last entry. */
  seq: number
  rows: number
  results: number
  texts: number
  retirements: number
  people: number
  /** SHA-256 of each setup's log, by setup. */
  logs: Map<string, string>
  /** SHA-256 of all rows, retirements, people, results and texts. */
  others: string
}

const hashOf = (...parts: readonly (string | number | null)[]) =>
  createHash('sha256').update(JSON.stringify(parts)).digest('base64')

/** Reads all of a logbook up to an entry, of rows, retirements, people, results and texts so many as are told. */
export function digestOf(
  db: Sqlite.Database,
  {
    seq = Number.POSITIVE_INFINITY,
    rows = Number.POSITIVE_INFINITY,
    results = Number.POSITIVE_INFINITY,
    texts = Number.POSITIVE_INFINITY,
    retirements = Number.POSITIVE_INFINITY,
    people = Number.POSITIVE_INFINITY,
  } = {},
): Digest {
  const digest: Digest = {
    logbook: nameIn(db),
    entries: 0,
    seq: 0,
    rows: 0,
    results: 0,
    texts: 0,
    retirements: 0,
    people: 0,
    logs: new Map(),
    others: '',
  }
  for (const entry of entriesIn(db)) {
    if (entry.seq > seq) break
    digest.entries++
    digest.seq = entry.seq
    const { id, setup, body, received, latest, tablet } = entry
    digest.logs.set(
      setup,
      hashOf(digest.logs.get(setup) ?? '', entry.seq, id, body, received, latest, tablet),
    )
  }
  for (const { noun, id, version, by, at, body } of rowsIn(db)) {
    if (digest.rows >= rows) break
    digest.rows++
    digest.others = hashOf(digest.others, noun, id, version, by, at, body)
  }
  for (const { noun, id, retired, by, at } of retirementsIn(db)) {
    if (digest.retirements >= retirements) break
    digest.retirements++
    digest.others = hashOf(digest.others, noun, id, retired, by, at)
  }
  for (const { id, initials, name, may, gone, by, at } of peopleIn(db)) {
    if (digest.people >= people) break
    digest.people++
    digest.others = hashOf(digest.others, id, initials, name, may, gone, by, at)
  }
  for (const { id, by, body } of resultsIn(db)) {
    if (digest.results >= results) break
    digest.results++
    digest.others = hashOf(digest.others, id, by, body)
  }
  for (const { hash, text } of textsIn(db)) {
    if (digest.texts >= texts) break
    digest.texts++
    digest.others = hashOf(digest.others, hash, text)
  }
  return digest
}
