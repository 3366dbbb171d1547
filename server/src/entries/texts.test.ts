import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Entry } from '@dogleg/core/setup'
import Sqlite from 'libsql'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { entries as entriesTable, texts as textsTable } from '../database/schema.ts'
import { type DemoApp, demoApp } from '../testing/app.ts'
import { anyEntry, noteEntry, openedEntry } from '../testing/entries.ts'
import { setupFileOf } from '../testing/files.ts'
import { newFolder, runCommand as run } from '../testing/process.ts'
import { verify } from '../whole/verify.ts'
import { keepTexts, takenApart } from './texts.ts'

let demo: DemoApp
beforeAll(async () => {
  demo = await demoApp()
})
afterAll(() => demo.close())

const sha256 = (text: string) => createHash('sha256').update(text).digest('hex')
/** A program of many lines, another for each number. */
const lines = (n: number) => `O${1000 + n} (BLOCK ${n} \u00b0)\n${'G1 X1.25 Y-0.5 F20.\n'.repeat(60)}M30\n`

const taken = (setup: string, text: string, offset = 'G54') =>
  anyEntry(setup, {
    kind: 'program',
    offset,
    rests: [],
    profile: { id: 'compact', version: 1 },
    machine: { id: 'mill-1', version: 1 },
    how: 'copied',
    text,
  })

const send = async (entries: readonly unknown[]) => {
  const { status, body } = await demo.ask('POST', '/api/entries', { entries })
  return { status, ...(body as { added: number; known: number }) }
}
const logOf = async (setup: string, query = '') =>
  (await demo.ask('GET', `/api/setups/${setup}/entries${query}`)).body as { entries: Entry[] }
const stored = async () => demo.database.db.select().from(textsTable)

describe('long texts of a logbook', () => {
  it('are kept once each, and stand in the log as they were written', async () => {
    const opened = openedEntry()
    const before = (await stored()).length
    const entries = [
      taken(opened.id, lines(1)),
      taken(opened.id, lines(1), 'G55'),
      taken(opened.id, lines(2), 'G56'),
      taken(opened.id, 'G90\nM30\n', 'G57'),
    ]
    expect(await send([opened, ...entries])).toMatchObject({ status: 201, added: 5 })
    const now = await stored()
    expect(now.length).toBe(before + 2)
    for (const text of [lines(1), lines(2)]) expect(now).toContainEqual({ hash: sha256(text), text })
    const bodies = (await demo.database.db.select().from(entriesTable)).filter(
      ({ setup }) => setup === opened.id,
    )
    for (const { body } of bodies) expect(body.length).toBeLessThan(600)
    const { entries: log } = await logOf(opened.id)
    expect(log.slice(1)).toEqual(entries.map((entry) => expect.objectContaining(entry)))
  })

  it('are named instead where that is asked for, and given by their name for good', async () => {
    const opened = openedEntry()
    const [short, long] = [taken(opened.id, 'G90\nM30\n'), taken(opened.id, lines(3), 'G55')]
    await send([opened, short, long])
    const { entries } = await logOf(opened.id, '?texts=named')
    expect(entries.slice(1)).toEqual([
      expect.objectContaining(short),
      expect.objectContaining({ ...long, text: { 'text-sha256': sha256(lines(3)) } }),
    ])
    const response = await demo.app.inject({
      url: `/api/texts/${sha256(lines(3))}`,
      headers: { host: 'localhost:7080' },
    })
    expect(response.json()).toEqual({ hash: sha256(lines(3)), text: lines(3) })
    expect(response.headers['cache-control']).toBe('private, max-age=31536000, immutable')
    const none = await demo.ask('GET', `/api/texts/${'0'.repeat(64)}`)
    expect([none.status, (none.body as { error: { code: string } }).error.code]).toEqual([404, 'not-found'])
    expect((await demo.ask('GET', '/api/texts/..%2Fshop')).status).toBe(422)
  })

  it('are known when they come again, also where they were written in one piece before', async () => {
    const opened = openedEntry()
    const [now, before] = [taken(opened.id, lines(4)), taken(opened.id, lines(5), 'G55')]
    await send([opened, now])
    await demo.database.write((tx) =>
      tx.insert(entriesTable).values({ id: before.id, setup: opened.id, body: JSON.stringify(before) }),
    )
    expect(await send([opened, now, before])).toMatchObject({ status: 201, added: 0, known: 3 })
    expect((await logOf(opened.id)).entries.at(-1)).toMatchObject(before)
    // In one piece there is nothing to be asked for by a name.
    expect((await logOf(opened.id, '?texts=named')).entries.at(-1)).toMatchObject(before)
    for (const other of [
      { ...now, text: lines(6) },
      { ...before, text: lines(6) },
      { ...now, text: 'M30\n' },
    ])
      expect((await send([other])).status).toBe(409)
  })

  it('of an entry that only a newer Dogleg knows are in their places too, and it is known when it comes again', async () => {
    const opened = openedEntry()
    const newer = { ...taken(opened.id, lines(9)), kind: 'scanned' }
    await send([opened])
    await demo.database.write(async (tx) => {
      const { body, texts } = takenApart(newer)
      await keepTexts(tx, texts)
      await tx.insert(entriesTable).values({ id: newer.id, setup: opened.id, body })
    })
    const [, unread] = (await logOf(opened.id)).entries as unknown as {
      id: string
      at: string
      raw: string
    }[]
    expect(JSON.parse(unread?.raw ?? '')).toEqual(newer)
    const file = {
      ...setupFileOf([opened], opened.machine.id),
      version: 2,
      unread: [{ id: newer.id, at: newer.at, raw: unread?.raw }],
    }
    expect(await demo.ask('POST', '/api/setup-files', file)).toMatchObject({
      status: 201,
      body: { added: 0 },
    })
  })

  it('that are lost take no more with them than the entry that names them; the rest is read, and it is said', async () => {
    const opened = openedEntry()
    const [lost, spoilt, kept] = [6, 7, 8].map((n) => taken(opened.id, lines(n), `G5${n - 2}`))
    const note = noteEntry(opened.id)
    await send([opened, lost, spoilt, kept, note])
    const file = join(newFolder(), 'copy.sqlite')
    const copy = async () => {
      const db = new Sqlite(file)
      const counts = [
        db.prepare('delete from texts where hash = ?').run(sha256(lines(6))),
        db.prepare("update texts set text = text || ' ' where hash = ?").run(sha256(lines(7))),
      ]
      db.close()
      return counts.map(({ changes }) => changes)
    }
    const whole = new Sqlite(demo.database.file)
    whole.prepare('vacuum into ?').run(file)
    whole.close()
    expect(await copy()).toEqual([1, 1])
    const { wrong } = await verify(file, Date.now())
    expect(wrong.filter((says) => says.includes(opened.id))).toEqual(
      [lost, spoilt].map(
        (entry) =>
          `Entry ${entry?.id} of setup ${opened.id} cannot be read: A long text that belongs to it cannot be read: the logbook file is damaged.`,
      ),
    )
    expect(wrong).toContain(`The text ${sha256(lines(7))} is another than its name says.`)
    // What is there goes into the open form word for word, and comes back.
    const [out, again] = [join(newFolder(), 'shop.jsonl'), join(newFolder(), 'again.jsonl')]
    expect(run(file, 'export', out).status).toBe(0)
    const back = join(newFolder(), 'back.sqlite')
    expect(run(back, 'import', out).status).toBe(0)
    expect(run(back, 'export', again).status).toBe(0)
    expect(readFileSync(again).equals(readFileSync(out))).toBe(true)
    const all = readFileSync(out, 'utf8')
    expect(all).toContain(JSON.stringify({ text: { hash: sha256(lines(8)), text: lines(8) } }))
    expect(all).toContain(`"text-sha256":"${sha256(lines(6))}"`)
  })
})
