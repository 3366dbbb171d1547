import { readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { demoReference } from '@dogleg/core/demo'
import { readyListOf } from '@dogleg/core/machine'
import { viseInHand } from '@dogleg/core/prepare'
import { asTyped } from '@dogleg/core/quantity'
import {
  deriveReady,
  deriveSetter,
  deriveSetup,
  deriveTools,
  type Entry,
  isUnreadable,
  type Logged,
  offsetTable,
  type ReadyState,
} from '@dogleg/core/setup'
import { boardNow, type MachineGlance, type ShopBoard, shopBoard } from '@dogleg/core/traveler'
import Sqlite from 'libsql'
import { ulid } from 'ulid'
import { afterEach, describe, expect, it } from 'vitest'
import { type Database, openDatabase } from '../database/open.ts'
import { fillDemo } from '../demo.ts'
import { appendEntries } from '../entries/append.ts'
import { entryStore } from '../entries/store.ts'
import { addRow, referenceStore } from '../reference/store.ts'
import { logsIn } from '../testing/entries.ts'
import { dice, history } from '../testing/histories.ts'
import { newFolder } from '../testing/process.ts'
import { boardKeeper } from './board.ts'
import { follower } from './follow.ts'
import { logReader } from './logs.ts'
import { machineStands, whatCounts } from './of-machine.ts'
import { keptOf } from './open.ts'

const migrations = join(import.meta.dirname, '../../migrations')
const now = Date.UTC(2026, 10, 25, 12)
const HOUR = 3_600_000
const thorough = process.env.DOGLEG_THOROUGH === '1'
const opened: Database[] = []
afterEach(async () => {
  for (const each of opened.splice(0)) await each.close()
})

/** A logbook with the demo's machines and what is kept of it. */
async function shop() {
  const database = await openDatabase(join(newFolder(), 'log.sqlite'), migrations)
  opened.push(database)
  await fillDemo(database, now, { now, entries: [] })
  const { file, logbook, db } = database
  const store = entryStore(db)
  const rows = referenceStore(db)
  const add = (entries: readonly Logged[]) =>
    database.write((tx) => appendEntries(tx, entries, { by: 'file', now }))
  const kept = follower(store, { file, logbook, damaged: false })
  return { database, store, rows, add, kept, keeper: boardKeeper(store, rows, logReader(store)) }
}

const sorted = <T extends { id: string }>(of: readonly T[]) => of.toSorted((a, b) => (a.id < b.id ? -1 : 1))

describe('the board that is kept', () => {
  it('says what one says that is worked out from nothing but the logs, after any history', async () => {
    let away = 0
    let spared = 0
    for (let seed = 1; seed <= (thorough ? 40 : 3); seed++) {
      const roll = dice(seed)
      const { database, rows, add, kept, keeper } = await shop()
      const known = new Map<string | undefined, { board: ShopBoard; seq: number; stamp: number }>()
      const batches = history({ seed, setups: 24, certain: seed % 2 === 0, until: now })
      for (const [n, batch] of batches.entries()) {
        await add(batch)
        if (roll() < 0.1) {
          const row = (await rows.current()).vises[0]
          if (row)
            await database.write((tx) =>
              addRow(tx, 'vises', { ...row, version: row.version + 1 }, { at: now }),
            )
        }
        if (roll() > 0.15 && n < batches.length - 1) continue
        const operator = roll() < 0.5 ? 'RT' : undefined
        const { machines, unreadable } = await kept.ask(60_000, now, ({ db }) =>
          keeper.board(db, { now, operator }),
        )
        // Who knew the board before and is told what changed since has the same.
        const told = await kept.ask(60_000, now, async ({ db, seq }) => {
          const since = known.get(operator)
          const told = await keeper.boardSince(db, { now, operator }, since?.seq ?? 0)
          const board = boardNow(since?.stamp === (await rows.stamp()) ? since.board : undefined, told)
          if (board) known.set(operator, { board, seq, stamp: await rows.stamp() })
          else known.delete(operator)
          spared += told.machines.filter((each) => 'same' in each).length
          return board
        })
        if (told) expect(told).toEqual({ machines, unreadable })
        const fresh = shopBoard(await logsIn(database.db), await rows.current(), now, operator)
        expect(sorted(unreadable)).toEqual(sorted(fresh.unreadable))
        for (const [at, machine] of machines.entries()) {
          const whole = fresh.machines[at]
          if (!whole) throw new Error('A machine is missing.')
          const shown = new Set(machine.setups.map(({ id }) => id))
          expect(machine.more).toBe(whole.setups.length + whole.more - shown.size)
          expect(sorted(machine.setups)).toEqual(sorted(whole.setups.filter(({ id }) => shown.has(id))))
          if (machine.more === whole.more) expect(machine).toEqual(whole)
          away += whole.more
        }
      }
    }
    expect(away).toBeGreaterThan(0)
    expect(spared).toBeGreaterThan(0)
  }, 120_000)

  it('works out again what an entry or a row touches, and nothing else', async () => {
    const { database, rows, add, kept, keeper } = await shop()
    const [batches, later] = [
      history({ seed: 7, setups: 20, certain: true, until: now - 100 * HOUR }),
      history({ seed: 8, setups: 1, certain: true, until: now }),
    ]
    await add(batches.flat())
    let shown = 0
    let glances: MachineGlance[] = []
    const on = (machine: string) => glances.find(({ id }) => id === machine)?.setups.length
    const board = async () => {
      const before = { ...keeper.worked }
      glances = (await kept.ask(60_000, now, ({ db }) => keeper.board(db, { now }))).machines
      shown = glances.flatMap((each) => each.setups).length
      const { setups, lines, machines } = keeper.worked
      return [setups - before.setups, lines - before.lines, machines - before.machines]
    }
    const [setups, lines] = await board()
    expect(shown).toBeGreaterThan(10)
    expect([setups, lines]).toEqual([shown, shown])
    expect(await board()).toEqual([0, 0, 0])
    // A note in one setup: that one, and its machine.
    const [first] = later[0] ?? []
    if (first?.kind !== 'opened') throw new Error('No setup was opened.')
    await add([first])
    await board()
    await add([
      {
        id: `${first.id.slice(0, 20)}AAAAAA`,
        setup: first.id,
        at: first.at,
        by: 'RT',
        kind: 'note',
        text: 'x',
      },
    ])
    expect(await board()).toEqual([1, 1, 1])
    // A tool of one machine: the setups on that machine.
    const reference = await rows.current()
    const tool = reference.tools.find(({ machineId }) => machineId === 'lathe-1')
    if (!tool) throw new Error('The demo has no such tool.')
    await database.write((tx) => addRow(tx, 'tools', { ...tool, version: tool.version + 1 }, { at: now }))
    const again = (await board())[0]
    expect(again).toBe(on('lathe-1'))
    expect(again).toBeLessThan(shown)
    expect(await board()).toEqual([0, 0, 0])
  }, 60_000)
})

/** What is found of a machine, in words that can be compared. */
function found(ready: ReadyState) {
  return {
    lines: Object.fromEntries(ready.lines.map(({ item, state }) => [item.id, state])),
    home: ready.home && [ready.home.entry.id, ready.home.freshness.state],
    waiting: ready.notes.flatMap(({ waits, entry }) => (waits ? [entry.id] : [])).toSorted(),
  }
}

describe('what a machine is told of', () => {
  it.each([true, false])(
    'says how it stands as all of its setups do (times certain: %s)',
    async (certain) => {
      for (let seed = 11; seed < (thorough ? 60 : 14); seed++) {
        const { store, add, kept, database } = await shop()
        await add(history({ seed, setups: 150, certain, until: now, apart: 20 * HOUR }).flat())
        const { db } = await kept.ask(120_000, now, async (followed) => followed)
        const logs = await logsIn(database.db)
        for (const machine of demoReference.machines) {
          const whole = [...logs.values()]
            .filter((log) => log.some((entry) => entry.kind === 'opened' && entry.machine.id === machine.id))
            .flat()
          const { entries, earlier, single } = await machineStands(db, store, logReader(store), machine.id)
          const { setups } = whatCounts(db, machine.id)
          const others = entries.flatMap(({ setup }) => (setups.has(setup) ? [] : [setup]))
          expect(new Set(single)).toEqual(new Set(others))
          const all = new Set(whole.map(({ setup }) => setup))
          if (all.size > 45) expect(entries.length).toBeLessThan(whole.length)
          // Of others single entries, each with what opened its setup; of some only who has read a note.
          const opens = new Set(entries.flatMap(({ kind, setup }) => (kind === 'opened' ? [setup] : [])))
          expect(
            entries.every(
              ({ kind, setup }) => setups.has(setup) || opens.has(setup) || kind === 'acknowledged',
            ),
          ).toBe(true)
          const [of, ofAll] = [
            found(deriveReady({ machine, entries, earlier, now })),
            found(deriveReady({ machine, entries: whole, now })),
          ]
          if (certain) expect({ ...of, waiting: [] }).toEqual({ ...ofAll, waiting: [] })
          // Notes wait that truly do: all of them, or as many as are shown.
          expect(ofAll.waiting).toEqual(expect.arrayContaining(of.waiting))
          expect(of.waiting.length).toBeGreaterThanOrEqual(Math.min(ofAll.waiting.length, 30))
          // Nothing is called done or fresh that is not so with all of them.
          for (const [item, state] of Object.entries(of.lines))
            if (state === 'done') expect(ofAll.lines[item]).toBe('done')
          if (of.home?.[1] === 'fresh') expect(ofAll.home).toEqual(of.home)
          const lengths = (from: readonly Logged[]) =>
            deriveTools(from, machine, machine.unit).map(({ tool, length, freshness }) => [
              tool,
              length.value,
              freshness.state,
            ])
          const setter = (from: readonly Logged[]) => {
            const fact = deriveSetter(from, machine, machine.unit)
            return fact && [fact.entry.id, fact.height.value, fact.freshness.state]
          }
          const table = (from: readonly Logged[]) => {
            const last = deriveSetup(
              whole.filter(({ setup }) => setup === whole.at(-1)?.setup),
              demoReference,
            )
            if (isUnreadable(last)) throw new Error('It cannot be read.')
            return offsetTable(last, from, demoReference).map(({ name, axes, rotary }) => [
              name,
              Object.entries(axes)
                .map(([axis, { value, fact }]) => [axis, value, fact.entry.id])
                .toSorted(),
              rotary?.fact.entry.id,
            ])
          }
          if (!certain || whole.length === 0) continue
          expect(lengths(entries)).toEqual(lengths(whole))
          expect(setter(entries)).toEqual(setter(whole))
          expect(table(entries)).toEqual(table(whole))
          expect(viseInHand('', entries, demoReference.vises)).toEqual(
            viseInHand('', whole, demoReference.vises),
          )
        }
      }
    },
    240_000,
  )
})

describe('a machine on three shifts', () => {
  const [machine] = demoReference.machines
  const mill = { id: machine?.id ?? '', version: 1 }
  /** One person at one machine, a setup every eight hours; the first begins with a walk-round. `pause`: after which setup the machine stood. */
  function shifts(setups: number, pause?: number) {
    const entries: Entry[] = []
    let at = now - setups * 8 * HOUR - (pause === undefined ? 0 : 72 * HOUR)
    for (let n = 0; n < setups; n++) {
      const stamp = () => ({ at: new Date(at).toISOString(), by: 'RT' })
      const id = ulid(at)
      const more = () => ({ id: ulid(++at), setup: id, ...stamp() })
      entries.push({
        ...{ id, setup: id, ...stamp(), kind: 'opened', title: `Part ${n}`, machine: mill, unit: 'inch' },
        tolerance: asTyped(0.002, 'inch'),
      } as Entry)
      if (n === 0 && machine)
        for (const { id: item, says } of readyListOf(machine))
          entries.push({ ...more(), kind: 'ticked', list: 'ready', item, says })
      entries.push({ ...more(), kind: 'happened', what: 'part-reclamped', note: '' })
      at += (n === pause ? 80 : 8) * HOUR - 20
    }
    return entries
  }

  it.each([
    ['that never stood is as ready as it was on the first day', undefined, 'done'],
    ['that stood long ago is not', 5, 'stale'],
    ['that stood of late is not', 55, 'stale'],
  ])('%s', async (_says, pause, state) => {
    const { store, add, kept, database } = await shop()
    await add(shifts(60, pause))
    const { db } = await kept.ask(60_000, now, async (followed) => followed)
    const { entries, earlier } = await machineStands(db, store, logReader(store), mill.id)
    expect(whatCounts(db, mill.id).setups.size).toBeLessThan(20)
    if (!machine) throw new Error('The demo has no machine.')
    const whole = [...(await logsIn(database.db)).values()].flat()
    const of = (from: readonly Logged[], more = {}) =>
      deriveReady({ machine, entries: from, now, ...more }).lines.map(({ item, due }) => [item.id, due])
    expect(of(entries, { earlier })).toEqual(of(whole))
    const again = readyListOf(machine).filter((item) => item.again.includes('stood'))
    const lines = deriveReady({ machine, entries, earlier, now }).lines
    for (const { id } of again) expect(lines.find(({ item }) => item.id === id)?.state).toBe(state)
  })
})

describe('what is kept', () => {
  /** The board by a follower that was begun just now. */
  async function boardOf({ database, store, rows }: Awaited<ReturnType<typeof shop>>) {
    const { file, logbook } = database
    const again = follower(store, { file, logbook, damaged: false })
    const board = await again.ask(60_000, now, async ({ db, seq }) => {
      expect(seq).toBe((await store.last()).seq)
      return boardKeeper(store, rows, logReader(store)).board(db, { now })
    })
    again.close()
    return board
  }

  it('can be thrown away, damaged, or be of another logbook or of another build: it is made anew', async () => {
    const here = await shop()
    await here.add(history({ seed: 3, setups: 12, certain: true, until: now }).flat())
    const board = await boardOf(here)
    expect(board.machines.flatMap(({ setups }) => setups).length).toBeGreaterThan(6)
    expect(await boardOf(here)).toEqual(board)
    const file = keptOf(here.database.file)
    const spoil: (() => void)[] = [
      () => rmSync(file),
      () => writeFileSync(file, 'no file of SQLite at all '.repeat(500)),
      () => {
        const bytes = readFileSync(file)
        writeFileSync(file, bytes.subarray(0, Math.floor(bytes.length / 3)))
      },
      () => writeFileSync(file, readFileSync(file).fill(0x5a, 5000, 60_000)),
      () => change("update kept set value = 'another' where name = 'logbook'"),
      () => change("update kept set value = 'another' where name = 'build'"),
      // A backup was put in its place, and the log went on otherwise.
      () =>
        change("update kept set value = '01M8JSHE3K9HABF3T635A5XCKS' where name = 'id'; delete from setups"),
      () => change('drop table said'),
    ]
    function change(statement: string) {
      const db = new Sqlite(file)
      db.exec(statement)
      db.close()
    }
    for (const each of spoil) {
      change('pragma wal_checkpoint(TRUNCATE)')
      each()
      expect(await boardOf(here)).toEqual(board)
    }
  }, 60_000)
})
