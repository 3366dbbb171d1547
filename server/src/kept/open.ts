import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { FOUND_BY } from '@dogleg/core/prepare'
import Sqlite from 'libsql'
import { isDamage } from '../database/errors.ts'

/** A file of what is kept for speed; nothing in it is not in the logbook. */
export type KeptFile = Sqlite.Database

/** The file beside a logbook in which what was worked out of it is kept. It can be thrown away at any time. */
export const keptOf = (file: string) => `${file}-kept`

// Times in ms since 1970; `seq` is the place of an entry in the logbook.
const TABLES = `
create table kept (name text primary key, value text not null) without rowid;
-- Every setup: its machine (nothing where its opening cannot be read), its first and its last entry, that which opened it, whether it
-- is put away, and when it was worked on last.
create table setups (setup text primary key, machine text, job text, first integer, last integer, opened integer, at integer, away integer, worked integer) without rowid;
create index setups_machine on setups (machine, last);
create index setups_shown on setups (machine, last) where away = 0;
create index setups_away on setups (machine, worked) where away = 1;
create index setups_last on setups (last);
create index setups_job on setups (machine, job, first);
create index setups_of_job on setups (job, last);
-- What each setup says of its machine, and where it says it last.
create table said (setup text, machine text, name text, seq integer, primary key (setup, name)) without rowid;
create index said_name on said (machine, name, seq);
-- Entries that are asked for by themselves: what stands at a control, timed cycles, serial numbers.
create table listed (setup text, machine text, list text, name text, seq integer);
create index listed_setup on listed (setup);
create index listed_machine on listed (machine, list, seq);
create index listed_list on listed (list, name);
-- When somebody was surely at a machine.
create table moments (setup text, machine text, seq integer, at integer);
create index moments_machine on moments (machine, at);
create index moments_setup on moments (setup);
-- Notes and who has read them; the two may stand in different setups.
create table notes (id text primary key, setup text, machine text, seq integer, by text, waits integer) without rowid;
create index notes_setup on notes (setup);
create index notes_waiting on notes (machine, seq) where waits;
create table readings (id text primary key, setup text, machine text, note text, by text, seq integer) without rowid;
create index readings_setup on readings (setup);
create index readings_note on readings (note);
-- The words of each setup, under the place of its last entry: what was worked on last is found first.
create virtual table words using fts5 (${FOUND_BY.join(', ')}, named, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3');
`

/** What this Dogleg was built from, whichever part of it says what is kept: what another build kept is made anew. */
let build: string | undefined
function buildNow(): string {
  if (build !== undefined) return build
  const folder = dirname(fileURLToPath(import.meta.url))
  const hash = createHash('sha256')
  for (const name of readdirSync(folder).sort())
    if (/\.[jt]s$/.test(name)) hash.update(name).update(readFileSync(join(folder, name)))
  build = hash.digest('hex')
  return build
}

function remove(path: string) {
  for (const each of [path, `${path}-wal`, `${path}-shm`, `${path}-journal`]) rmSync(each, { force: true })
}

function connect(path: string): KeptFile {
  const db = new Sqlite(path)
  // What is lost of it with the power is worked out again; half of a page never stands in it.
  db.exec('pragma journal_mode = WAL')
  db.exec('pragma synchronous = NORMAL')
  return db
}

const statements = new WeakMap<KeptFile, Map<string, Sqlite.Statement>>()

/** A statement, prepared once for each file. */
export function prepared(db: KeptFile, text: string): Sqlite.Statement {
  const own = statements.get(db) ?? new Map<string, Sqlite.Statement>()
  statements.set(db, own)
  const statement = own.get(text) ?? db.prepare(text)
  own.set(text, statement)
  return statement
}

export const keptValue = (db: KeptFile, name: string): string | undefined =>
  (prepared(db, 'select value from kept where name = ?').get(name) as { value: string } | undefined)?.value

export const keepValue = (db: KeptFile, name: string, value: string) =>
  prepared(db, 'insert or replace into kept (name, value) values (?, ?)').run(name, value)

/** Whether a file has what this build keeps, of this logbook. */
function isOf(db: KeptFile, logbook: string): boolean {
  const { found } = db.prepare("select count(*) as found from sqlite_master where name = 'kept'").get() as {
    found: number
  }
  return found > 0 && keptValue(db, 'build') === buildNow() && keptValue(db, 'logbook') === logbook
}

function begin(db: KeptFile, logbook: string): KeptFile {
  db.exec('begin')
  db.exec(TABLES)
  keepValue(db, 'build', buildNow())
  keepValue(db, 'logbook', logbook)
  db.exec('commit')
  return db
}

/** An empty one that is nowhere but in memory. */
export const keptInMemory = (logbook: string): KeptFile => begin(new Sqlite(':memory:'), logbook)

/** Throws away what is kept, and begins anew. Where nothing can be written, it is kept in memory. */
export function keptAnew(file: string, logbook: string): KeptFile {
  const path = keptOf(file)
  try {
    remove(path)
    return begin(connect(path), logbook)
  } catch {
    return keptInMemory(logbook)
  }
}

/** Opens what is kept of a logbook; what another build has left, or is damaged, is thrown away. */
export function openKept(file: string, logbook: string): KeptFile {
  let db: KeptFile | undefined
  try {
    db = connect(keptOf(file))
    if (isOf(db, logbook)) return db
  } catch (error) {
    if (!isDamage(error) && db === undefined) return keptInMemory(logbook)
  }
  db?.close()
  return keptAnew(file, logbook)
}

/** What is kept of a logbook, where this build has kept it; nothing is made. */
export function keptIfOf(file: string, logbook: string): KeptFile | undefined {
  if (!existsSync(keptOf(file))) return undefined
  try {
    const db = new Sqlite(keptOf(file), { readonly: true })
    if (isOf(db, logbook)) return db
    db.close()
  } catch {
    // None that can be read.
  }
  return undefined
}
