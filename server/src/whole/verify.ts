import { existsSync } from 'node:fs'
import { effectiveStrikes } from '@dogleg/core/log'
import { isUnreadRow } from '@dogleg/core/rows'
import {
  deriveSetup,
  isUnreadable,
  type Logged,
  NOUNS,
  type Noun,
  type Reference,
  readRow,
} from '@dogleg/core/setup'
import { connect } from '../database/connect.ts'
import { damageOf } from '../database/soundness.ts'
import { entryStore } from '../entries/store.ts'
import { textName } from '../entries/texts.ts'
import { follower } from '../kept/follow.ts'
import { type KeptFile, keptIfOf } from '../kept/open.ts'
import { StartProblem } from '../problem.ts'
import { referenceStore } from '../reference/store.ts'
import { nameIn, openToRead, rowsIn, textsIn } from './rows.ts'

/** What a walk through a logbook has found. */
export interface Verified {
  entries: number
  setups: number
  rows: number
  /** What is wrong, a sentence each; of many of a kind the first few. */
  wrong: string[]
}

/** Of each kind of fault so many are named one by one. */
const MOST_NAMED = 20

/** Faults by their kind, so that a thousand of one do not hide another. */
function faultList() {
  const found = new Map<string, string[]>()
  return {
    add: (kind: string, says: string) => found.set(kind, [...(found.get(kind) ?? []), says]),
    all: () =>
      [...found].flatMap(([kind, all]) =>
        all.length <= MOST_NAMED
          ? all
          : [...all.slice(0, MOST_NAMED), `${kind}: ${all.length - MOST_NAMED} more of these.`],
      ),
  }
}

/** The ids of other entries that an entry names. */
function namedBy(entry: Logged): string[] {
  if (entry.kind === 'unread') return []
  const {
    rests = [],
    carried,
    target,
    note,
    again,
  } = entry as unknown as Partial<
    Record<'carried' | 'target' | 'note' | 'again', string> & { rests: string[] }
  >
  return [
    ...rests,
    ...(entry.kind === 'struck' && target ? [target] : []),
    ...(entry.kind === 'acknowledged' && note ? [note] : []),
    ...(carried ? [carried] : []),
    ...(again ? [again] : []),
  ]
}

/** The rows of reference data that an entry names with their versions. */
function rowsNamedBy(value: unknown): { id: string; version: number }[] {
  if (typeof value !== 'object' || value === null) return []
  const { id, version } = value as { id?: unknown; version?: unknown }
  const own = typeof id === 'string' && typeof version === 'number' ? [{ id, version }] : []
  return [...own, ...Object.values(value).flatMap(rowsNamedBy)]
}

/** Everything that is kept of setups, as text, by setup. */
function keptBySetup(db: KeptFile): Map<string, string> {
  const by = new Map<string, string[]>()
  for (const [table, order] of [
    ['setups', 'setup'],
    ['said', 'name'],
    ['listed', 'list, name, seq'],
    ['moments', 'seq'],
    ['notes', 'id'],
    ['readings', 'id'],
  ]) {
    for (const row of db.prepare(`select * from ${table} order by setup, ${order}`).all() as {
      setup: string
    }[])
      by.set(row.setup, [...(by.get(row.setup) ?? []), JSON.stringify([table, row])])
  }
  return new Map([...by].map(([setup, all]) => [setup, all.join('\n')]))
}

/**
 * Walks through a whole logbook: every page of the file, every entry and row, everything that is named, and what is worked out of it
 * against what is kept. Changes nothing. `now` in ms since 1970.
 * @throws StartProblem where it is no logbook
 */
export async function verify(file: string, now: number): Promise<Verified> {
  if (!existsSync(file)) throw new StartProblem(`There is no file ${file}.`)
  const faults = faultList()
  const { client, db } = connect(file)
  const plain = openToRead(file)
  try {
    const damage = await damageOf(client).catch(() => undefined)
    if (damage) {
      for (const says of damage.says) faults.add('damage', `The file is damaged: ${says}.`)
      faults.add('damage', `What can be read: ${damage.readable}.`)
    }
    const store = entryStore(db, { damaged: damage !== undefined, remembers: false })
    const { setups } = await store.touchedSince(0, Number.MAX_SAFE_INTEGER)

    let rows = 0
    const versions = new Set<string>()
    for (const { noun, id, version, body } of rowsIn(plain)) {
      rows++
      versions.add(`${id}:${version}`)
      if (!NOUNS.some((each) => each === noun)) {
        faults.add('row', `The row ${id} is of a list that is not known here: ${noun}.`)
        continue
      }
      let data: unknown
      try {
        data = JSON.parse(body)
      } catch {
        faults.add('row', `The row ${id}, version ${version}, of the ${noun} cannot be read.`)
        continue
      }
      const row = readRow(noun as Noun, data)
      if (isUnreadRow(row))
        faults.add('row', `The row ${id}, version ${version}, of the ${noun} cannot be read: ${row.says}`)
    }
    for (const { hash, text } of textsIn(plain))
      if (textName(text) !== hash) faults.add('text', `The text ${hash} is another than its name says.`)
    const reference: Reference = await referenceStore(db).current()

    const ids = new Map<string, string>()
    for (const setup of setups)
      for (const { entry } of await store.placed(setup)) {
        if (ids.has(entry.id)) faults.add('id', `The id ${entry.id} stands twice.`)
        ids.set(entry.id, setup)
      }

    let entries = 0
    for (const setup of setups) {
      const log = (await store.placed(setup))
        .map(({ entry }) => entry)
        .filter(({ id }) => id !== `file-${setup}`)
      entries += log.length
      const struck = effectiveStrikes(log)
      for (const entry of log) {
        if (entry.kind === 'unread') {
          if (!struck.has(entry.id))
            faults.add('entry', `Entry ${entry.id} of setup ${setup} cannot be read: ${entry.says}`)
          continue
        }
        for (const named of namedBy(entry))
          if (!ids.has(named))
            faults.add(
              'named',
              `Entry ${entry.id} (${entry.kind}) names the entry ${named}, which is not here.`,
            )
        for (const { id, version } of rowsNamedBy(entry))
          if (!versions.has(`${id}:${version}`))
            faults.add(
              'row named',
              `Entry ${entry.id} (${entry.kind}) names the row ${id}, version ${version}, which is not here.`,
            )
      }
      const derived = deriveSetup(log, reference)
      if (isUnreadable(derived))
        faults.add('setup', `Setup ${setup} cannot be worked out: ${derived.unreadable}`)
    }

    const logbook = nameIn(plain)
    const kept = keptIfOf(file, logbook)
    if (kept) {
      // What is kept of an earlier entry than the last is not wrong: it is followed when it is asked for.
      const last = new Map(
        (kept.prepare('select setup, last from setups').all() as { setup: string; last: number }[]).map(
          (each) => [each.setup, each.last],
        ),
      )
      const was = keptBySetup(kept)
      kept.close()
      const fresh = follower(store, { file, logbook, damaged: true })
      await fresh.ask(Number.MAX_SAFE_INTEGER, now, async ({ db: anew }) => {
        const is = keptBySetup(anew)
        for (const [setup, text] of was) {
          const [own] = (anew.prepare('select last from setups where setup = ?').all(setup) ?? []) as {
            last: number
          }[]
          if (own?.last === last.get(setup) && is.get(setup) !== text)
            faults.add(
              'kept',
              `What is kept of setup ${setup} is not what its log says. Remove ${file}-kept: it is made anew.`,
            )
        }
      })
      fresh.close()
    }
    return { entries, setups: setups.length, rows, wrong: faults.all() }
  } finally {
    plain.close()
    client.close()
  }
}
