import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import Sqlite from 'libsql'
import { describe, expect, it } from 'vitest'
import { openDatabase } from '../database/open.ts'
import { fillDemo } from '../demo.ts'
import { appendEntries } from '../entries/append.ts'
import { noteEntry, openedEntry } from '../testing/entries.ts'
import { history } from '../testing/histories.ts'
import { newFolder, runCommand as run } from '../testing/process.ts'
import { ask, servers } from '../testing/shop.ts'

const { start, stop } = servers()
const LONG = 60_000
const migrations = join(import.meta.dirname, '../../migrations')

/** A closed logbook with the demo and more. */
async function logbook() {
  const file = join(newFolder(), 'log.sqlite')
  const database = await openDatabase(file, migrations)
  const now = Date.now()
  await fillDemo(database, now)
  await database.write(async (tx) => {
    for (const batch of history({ seed: 5, setups: 12, certain: false, until: now }))
      await appendEntries(tx, batch, { by: 'file', now })
  })
  return { file, database, now }
}

/** Changes a file by hand, as nobody should. */
function change(file: string, statement: string, ...values: unknown[]) {
  const db = new Sqlite(file)
  const { changes } = db.prepare(statement).run(...values)
  db.exec('pragma wal_checkpoint(TRUNCATE)')
  db.close()
  return changes
}

describe('a logbook in open form', () => {
  it(
    'comes back byte for byte, whatever stands in it, and says the same',
    async () => {
      const { file, database } = await logbook()
      await database.close()
      const [setup] = ['01M8JSHE3K9HABF3T635A5XCKS']
      const odd = [
        '{"id":',
        '',
        '  {"kind": "note"}',
        '{"a":1e999}',
        '{"__proto__":{"x":1},"1":2,"0":1}',
        '[1,2]',
        '"text"',
        'null',
        `{"text":"line ends: \u2028 \u2029 \\n \u0000 \ud83d\ude00"}`,
        '{"lone":"\\ud800"}',
        `{"same":1,"same":2}`,
      ]
      for (const [n, body] of odd.entries()) {
        change(file, 'insert into entries (id, setup, body) values (?, ?, ?)', `odd-${n}`, setup, body)
        change(file, 'insert into practice (id, "by", body) values (?, ?, ?)', `odd-${n}`, 'RT', body)
        change(
          file,
          "insert into reference (noun, id, version, body) values ('vises', ?, 1, ?)",
          `odd-${n}`,
          body,
        )
      }
      for (const [retired, by] of [
        [1, 'RT'],
        [0, null],
      ])
        change(
          file,
          "insert into retirements (noun, id, retired, by, at) values ('vises', 'odd-1', ?, ?, 5)",
          retired,
          by,
        )
      for (const [may, gone, by] of [
        ['lead', 0, null],
        ['looker', 1, 'RT'],
      ])
        change(
          file,
          "insert into people (id, initials, name, may, gone, by, at) values ('p1', 'KM', 'K. M.', ?, ?, ?, 7)",
          may,
          gone,
          by,
        )
      change(file, "insert into pins (person, hash) values ('p1', 'secret')")
      change(file, "update entries set tablet = 'Mill 2' where seq < 5")
      const [out, again] = [join(newFolder(), 'shop.jsonl'), join(newFolder(), 'again.jsonl')]
      expect(run(file, 'export', out)).toEqual({
        status: 0,
        says: expect.stringMatching(/\d+ entries, \d+ versions/),
      })
      const copy = join(newFolder(), 'copy.sqlite')
      expect(run(copy, 'import', out)).toEqual({ status: 0, says: expect.stringMatching(/Start Dogleg/) })
      expect(readdirSync(dirname(copy))).toEqual(['copy.sqlite'])
      expect(run(copy, 'export', again).status).toBe(0)
      expect(readFileSync(again).equals(readFileSync(out))).toBe(true)
      const lines = readFileSync(out, 'utf8').trimEnd().split('\n')
      expect(lines.every((line) => typeof JSON.parse(line) === 'object')).toBe(true)
      expect(lines[0]).toMatch(/^\{"dogleg":"logbook","form":3,"logbook":"\w{26}"\}$/)
      // A PIN of four digits is soon found from what is kept of it: it is no part of what is handed on.
      expect(readFileSync(out, 'utf8')).not.toContain('secret')
      // Every row of every table is the same, to the last letter.
      const rows = (of: string) => {
        const db = new Sqlite(of, { readonly: true })
        const all = ['entries', 'texts', 'reference', 'retirements', 'people', 'practice', 'logbook'].map(
          (table) => db.prepare(`select * from ${table}`).all(),
        )
        db.close()
        return all
      }
      expect(rows(copy)).toEqual(rows(file))
      const [one, other] = [await start(file), await start(copy)]
      const board = async (address: string) => ({
        ...(await ask<object>(address, '/api/setups?by=RT')),
        time: '',
      })
      expect(await board(other.address)).toEqual(await board(one.address))
    },
    LONG,
  )

  it(
    'is refused with the line that is wrong, and nothing is kept of it; nothing is written over',
    async () => {
      const { file, database } = await logbook()
      await database.close()
      const out = join(newFolder(), 'shop.jsonl')
      run(file, 'export', out)
      expect(run(file, 'export', out)).toEqual({ status: 2, says: expect.stringMatching(/there already/) })
      expect(run(file, 'import', out)).toEqual({ status: 2, says: expect.stringMatching(/left as it is/) })
      const lines = readFileSync(out, 'utf8').trimEnd().split('\n')
      const spoilt: [(string | undefined)[], RegExp][] = [
        [lines.slice(1), /Line 1 .*first line/],
        [[], /is empty/],
        [[...lines.slice(0, 40), 'no json', ...lines.slice(40)], /Line 41 .*no JSON/],
        [[...lines, lines[0]], /first line, and it alone/],
        [[...lines, lines.at(-1)], new RegExp(`Line ${lines.length + 1} `)],
        [[lines[0]?.replace('"form":3', '"form":4'), ...lines.slice(1)], /newer Dogleg/],
        [[...lines, '{"entry":{"seq":1}}'], /has not what a line has/],
      ]
      for (const [text, says] of spoilt) {
        const bad = join(newFolder(), 'bad.jsonl')
        writeFileSync(bad, text.length === 0 ? '' : `${text.join('\n')}\n`)
        const to = join(newFolder(), 'none.sqlite')
        expect(run(to, 'import', bad)).toEqual({ status: 2, says: expect.stringMatching(says) })
        expect(readdirSync(dirname(to))).toEqual([])
      }
      expect(run(join(newFolder(), 'x.sqlite'), 'import', '/nowhere.jsonl').says).toMatch(/There is no file/)
    },
    LONG,
  )

  it(
    'has of a damaged file what can be read',
    async () => {
      const { file, database } = await logbook()
      await database.close()
      const bytes = readFileSync(file)
      // A leaf of a table (13 by SQLite's file format): rows of a log stand on it, and no way to others.
      const isLeaf = (place: number) => bytes[Math.floor(place / 4096) * 4096] === 13
      let at = bytes.indexOf('"kind":"', bytes.length / 2)
      while (at > 0 && !isLeaf(at)) at = bytes.indexOf('"kind":"', at + 1)
      expect(at).toBeGreaterThan(0)
      bytes.fill(0x5a, Math.floor(at / 4096) * 4096, Math.floor(at / 4096) * 4096 + 4096)
      writeFileSync(file, bytes)
      const out = join(newFolder(), 'left.jsonl')
      const { status, says } = run(file, 'export', out)
      expect([status, says]).toEqual([0, expect.stringMatching(/\d+ entries/)])
      // One page was damaged: what stood on it is lost, and nothing else.
      const lost = Number(/(\d+) more may/.exec(says)?.[1])
      expect(lost).toBeLessThan(30)
      expect(readFileSync(out, 'utf8').split('\n').length).toBeGreaterThan(300)
      expect(run(file, 'verify')).toEqual({ status: 1, says: expect.stringMatching(/file is damaged/) })
    },
    LONG,
  )
})

describe('npm run verify', () => {
  it(
    'finds nothing wrong with a shop that was used, and changes nothing in it',
    async () => {
      const { file, database } = await logbook()
      await database.close()
      const server = await start(file)
      await ask(server.address, '/api/setups')
      expect(await stop(server)).toBe(0)
      expect(existsSync(`${file}-kept`)).toBe(true)
      const before = readFileSync(file)
      expect(run(file, 'verify')).toEqual({ status: 0, says: expect.stringMatching(/All of it can be read/) })
      expect(readFileSync(file).equals(before)).toBe(true)
      expect(run(join(newFolder(), 'none.sqlite'), 'verify').status).toBe(2)
    },
    LONG,
  )

  it(
    'says what is wrong, in words',
    async () => {
      const { file, database, now } = await logbook()
      const opened = openedEntry()
      const note = noteEntry(opened.id)
      await database.write((tx) => appendEntries(tx, [opened, note], { by: 'file', now }))
      await database.close()
      const server = await start(file)
      await ask(server.address, '/api/setups')
      await stop(server)
      const faults: [string, string, unknown[], RegExp][] = [
        [
          'an entry',
          'update entries set body = ? where id = ?',
          ['{"id":', note.id],
          new RegExp(`${note.id} of setup`),
        ],
        [
          'a reference',
          'insert into entries (id, setup, body) values (?, ?, ?)',
          [
            '01M8JSHE3K9HABF3T635A5XCK1',
            opened.id,
            JSON.stringify({
              ...note,
              id: '01M8JSHE3K9HABF3T635A5XCK1',
              kind: 'acknowledged',
              note: '01M8JSHE3K9HABF3T635A5XCK9',
            }),
          ],
          /names the entry 01M8JSHE3K9HABF3T635A5XCK9/,
        ],
        [
          'a row',
          "update reference set body = 'x' where noun = 'vises' and id = (select min(id) from reference where noun = 'vises')",
          [],
          /of the vises cannot be read/,
        ],
        [
          'a machine',
          "delete from reference where noun = 'machines' and id = 'lathe-1'",
          [],
          /names the row lathe-1, version 1/,
        ],
      ]
      for (const [, statement, values, says] of faults) {
        expect(change(file, statement, ...values)).toBeGreaterThan(0)
        const { status, says: said } = run(file, 'verify')
        expect(status).toBe(1)
        expect(said).toMatch(says)
      }
      // What is kept is not what the log says.
      expect(change(`${file}-kept`, "update said set seq = seq + 1 where name = 'home'")).toBeGreaterThan(0)
      expect(run(file, 'verify').says).toMatch(/kept of setup \w{26} is not what its log says/)
    },
    LONG,
  )
})
