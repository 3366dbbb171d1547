import { existsSync } from 'node:fs'
import { open } from 'node:fs/promises'
import { createInterface } from 'node:readline'
import { may } from '@dogleg/core/people'
import Sqlite from 'libsql'
import { z } from 'zod'
import { StartProblem } from '../problem.ts'
import { entriesIn, nameIn, openToRead, peopleIn, resultsIn, retirementsIn, rowsIn, textsIn } from './rows.ts'

// A logbook in open form: one file of lines, each a JSON object. docs/format.md says what stands in it.

/**
 * The form that is written; the first knew no texts apart from entries, nobody who saved a row, and none that was retired; the second no
 * people and no tablets.
 */
const FORM = 3

const at = z.int().nullable()
/** A body as it stands: as an object where that comes out as the same text again, else word for word. */
const bodyOr = {
  body: z.custom<object>((is) => typeof is === 'object' && is !== null).optional(),
  text: z.string().optional(),
}
const line = z.union([
  z.strictObject({ dogleg: z.literal('logbook'), form: z.int().min(1), logbook: z.string() }),
  z.strictObject({
    entry: z.strictObject({
      seq: z.int().min(1),
      id: z.string(),
      setup: z.string(),
      received: at,
      latest: at,
      tablet: z.string().nullable().default(null),
      ...bodyOr,
    }),
  }),
  z.strictObject({
    person: z.strictObject({
      id: z.string(),
      initials: z.string(),
      name: z.string(),
      may,
      gone: z.int().min(0).max(1),
      by: z.string().nullable(),
      at: z.int(),
    }),
  }),
  z.strictObject({
    row: z.strictObject({
      noun: z.string(),
      id: z.string(),
      version: z.int().min(0),
      by: z.string().nullable().default(null),
      at: at.default(null),
      ...bodyOr,
    }),
  }),
  z.strictObject({
    retired: z.strictObject({
      noun: z.string(),
      id: z.string(),
      retired: z.int().min(0).max(1),
      by: z.string().nullable(),
      at: z.int(),
    }),
  }),
  z.strictObject({ text: z.strictObject({ hash: z.string(), text: z.string() }) }),
  z.strictObject({ result: z.strictObject({ id: z.string(), by: z.string(), ...bodyOr }) }),
])

/** A stored text as it goes into a line. */
function bodyIn(stored: string): { body: object } | { text: string } {
  try {
    const body: unknown = JSON.parse(stored)
    if (typeof body === 'object' && body !== null && !Array.isArray(body) && JSON.stringify(body) === stored)
      return { body }
  } catch {
    // Word for word.
  }
  return { text: stored }
}

const bodyOut = ({ body, text }: { body?: object | undefined; text?: string | undefined }) =>
  text ?? JSON.stringify(body ?? {})

/** What was written, and what of a damaged file could not be read. */
export interface Exported {
  entries: number
  rows: number
  results: number
  texts: number
  lost: number
}

/** Writes all of a logbook into a new file in open form; of a damaged one what can be read. */
export async function exportTo(file: string, to: string): Promise<Exported> {
  const done: Exported = { entries: 0, rows: 0, results: 0, texts: 0, lost: 0 }
  const lost = (count: number) => {
    done.lost += count
  }
  const db = openToRead(file)
  const out = await open(to, 'wx')
  try {
    let lines = ''
    const write = async (value: object) => {
      // These two end a line for many readers, and stand in JSON as they are.
      lines += `${JSON.stringify(value).replaceAll('\u2028', '\\u2028').replaceAll('\u2029', '\\u2029')}\n`
      if (lines.length < 1 << 20) return
      await out.appendFile(lines)
      lines = ''
    }
    await write({ dogleg: 'logbook', form: FORM, logbook: nameIn(db) })
    for (const { body, ...row } of rowsIn(db, lost)) {
      await write({ row: { ...row, ...bodyIn(body) } })
      done.rows++
    }
    for (const retired of retirementsIn(db, lost)) await write({ retired })
    for (const person of peopleIn(db, lost)) await write({ person })
    for (const { body, ...result } of resultsIn(db, lost)) {
      await write({ result: { ...result, ...bodyIn(body) } })
      done.results++
    }
    for (const text of textsIn(db, lost)) {
      await write({ text })
      done.texts++
    }
    for (const { body, ...entry } of entriesIn(db, lost)) {
      await write({ entry: { ...entry, ...bodyIn(body) } })
      done.entries++
    }
    await out.appendFile(lines)
    await out.sync()
    return done
  } finally {
    await out.close()
    db.close()
  }
}

const wrongLine = (from: string, number: number, why: string) =>
  new StartProblem(
    `Line ${number} of ${from} is none of a logbook: ${why}. Nothing was kept of it. See docs/format.md.`,
  )

/**
 * Reads a file in open form into a logbook that has nothing in it yet: the tables are there, no row.
 * @throws StartProblem with the line that is wrong
 */
export async function importFrom(from: string, file: string): Promise<Exported> {
  if (!existsSync(from)) throw new StartProblem(`There is no file ${from}.`)
  const done: Exported = { entries: 0, rows: 0, results: 0, texts: 0, lost: 0 }
  const db = new Sqlite(file)
  const input = await open(from)
  try {
    const add = {
      entry: db.prepare(
        'insert into entries (seq, id, setup, body, received, latest, tablet) values (?, ?, ?, ?, ?, ?, ?)',
      ),
      row: db.prepare('insert into reference (noun, id, version, "by", at, body) values (?, ?, ?, ?, ?, ?)'),
      result: db.prepare('insert into practice (id, "by", body) values (?, ?, ?)'),
      retired: db.prepare('insert into retirements (noun, id, retired, "by", at) values (?, ?, ?, ?, ?)'),
      person: db.prepare(
        'insert into people (id, initials, name, may, gone, "by", at) values (?, ?, ?, ?, ?, ?, ?)',
      ),
      text: db.prepare('insert into texts (hash, text) values (?, ?)'),
      name: db.prepare('insert into logbook (id) values (?)'),
    }
    db.exec('begin immediate')
    db.exec('delete from logbook')
    let number = 0
    for await (const text of createInterface({ input: input.createReadStream({ autoClose: false }) })) {
      number++
      let data: unknown
      try {
        data = JSON.parse(text)
      } catch {
        throw wrongLine(from, number, 'it is no JSON')
      }
      const read = line.safeParse(data)
      if (!read.success) throw wrongLine(from, number, 'it has not what a line has')
      const of = read.data
      if ('dogleg' in of !== (number === 1))
        throw wrongLine(from, number, 'the first line, and it alone, says which logbook it is')
      try {
        if ('dogleg' in of) {
          if (of.form > FORM)
            throw new StartProblem(
              `${from} was written by a newer Dogleg than this one. Update Dogleg, then do it again.`,
            )
          if (of.logbook !== '') add.name.run(of.logbook)
        } else if ('entry' in of) {
          const { seq, id, setup, received, latest, tablet } = of.entry
          add.entry.run(seq, id, setup, bodyOut(of.entry), received, latest, tablet)
          done.entries++
        } else if ('row' in of) {
          const { noun, id, version, by, at } = of.row
          add.row.run(noun, id, version, by, at, bodyOut(of.row))
          done.rows++
        } else if ('retired' in of) {
          const { noun, id, retired, by, at } = of.retired
          add.retired.run(noun, id, retired, by, at)
        } else if ('person' in of) {
          const { id, initials, name, may: what, gone, by, at: when } = of.person
          add.person.run(id, initials, name, what, gone, by, when)
        } else if ('text' in of) {
          add.text.run(of.text.hash, of.text.text)
          done.texts++
        } else {
          add.result.run(of.result.id, of.result.by, bodyOut(of.result))
          done.results++
        }
      } catch (error) {
        if (error instanceof StartProblem) throw error
        throw wrongLine(from, number, (error as Error).message)
      }
    }
    if (number === 0) throw wrongLine(from, 1, 'the file is empty')
    db.exec('commit')
    return done
  } finally {
    await input.close()
    db.close()
  }
}
