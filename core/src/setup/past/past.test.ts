import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { gunzipSync, gzipSync } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import type { LogEntry } from '../../log/index.ts'
import { isUnreadRow } from '../../rows/index.ts'
import {
  deriveReady,
  deriveSetup,
  deriveTools,
  type Entry,
  isUnreadable,
  KINDS,
  type Logged,
  NOUNS,
  type Noun,
  type Reference,
  readEntry,
  readRow,
  rowKind,
} from '../index.ts'
import { read } from '../testing.ts'

// What was ever written, as it was written. Nothing here is changed once it stands: a new shape of a kind adds its line to
// entries.jsonl, one of a noun to rows.jsonl, and DOGLEG_FREEZE=1 adds its schema to shapes.json; a new logbook is a file of its own beside the old.

const here = (name: string) => join(import.meta.dirname, name)
const freezing = process.env.DOGLEG_FREEZE === '1'

/** A value with the keys of its objects in order and without what is only said of it. */
function plainOf(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(plainOf)
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(
    Object.entries(value)
      .filter(([key]) => key !== 'description' && key !== '$schema')
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, part]) => [key, plainOf(part)]),
  )
}

/** What the server writes beside an entry, and not in it, is no part of its shape; received and latest were there when these were frozen. */
const withoutBeside = (schema: { properties?: Record<string, unknown> }) => {
  const { tablet: _, ...properties } = schema.properties ?? {}
  return schema.properties?.kind ? { ...schema, properties } : schema
}

const schemaHash = (schema: z.ZodType) =>
  createHash('sha256')
    .update(
      JSON.stringify(plainOf(withoutBeside(z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' })))),
    )
    .digest('hex')
    .slice(0, 16)

const nameOf = (kind: string, shape: number) => `${kind} ${shape}`

const linesOf = <T>(name: string) =>
  readFileSync(here(name), 'utf8')
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as T)

const written = linesOf<LogEntry>('entries.jsonl')
const frozen = new Set(written.map(({ kind, shape = 1 }) => nameOf(kind, shape)))

describe('every shape of every kind that was ever written', () => {
  it('is kept here as it was written', () => {
    for (const { kind, shape } of KINDS)
      for (let each = 1; each <= shape; each++) expect([...frozen]).toContain(nameOf(kind, each))
  })

  it('is read, and comes out in the shape of today', () => {
    for (const entry of written) {
      const now = readEntry(entry)
      expect(now.kind === 'unread' ? `${entry.kind} ${entry.id}: ${now.says}` : now.kind).toBe(entry.kind)
      const kind = KINDS.find((each) => each.kind === entry.kind)
      expect((now as LogEntry).shape ?? 1).toBe(kind?.shape)
      // Read again it is the same, and nothing that it said is gone.
      expect(readEntry(JSON.parse(JSON.stringify(now)))).toEqual(now)
      if (kind?.shape === (entry.shape ?? 1)) expect(now).toMatchObject(entry)
    }
  })
})

const writtenRows = linesOf<{ noun: Noun; row: { id: string; shape?: number } }>('rows.jsonl')

describe('every shape of every noun of reference data', () => {
  it('is kept here as it was written', () => {
    const kept = writtenRows.map(({ noun, row }) => nameOf(noun, row.shape ?? 1))
    for (const noun of NOUNS)
      for (let each = 1; each <= rowKind(noun).shape; each++) expect(kept).toContain(nameOf(noun, each))
  })

  it('is read, and comes out in the shape of today', () => {
    for (const { noun, row } of writtenRows) {
      const now = readRow(noun, row)
      expect(isUnreadRow(now) ? `${noun} ${row.id}: ${now.says}` : now.id).toBe(row.id)
      expect(readRow(noun, JSON.parse(JSON.stringify(now)))).toEqual(now)
      if (rowKind(noun).shape === (row.shape ?? 1)) expect(now).toMatchObject(row)
    }
  })
})

describe('a schema', () => {
  it('that is another has another number: what was written is never taken for something else', () => {
    const file = here('shapes.json')
    const shapes = existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as Record<string, string>) : {}
    const today = Object.fromEntries([
      ...KINDS.map(({ kind, shape, schema }) => [nameOf(kind, shape), schemaHash(schema)]),
      ...NOUNS.map((noun) => [nameOf(noun, rowKind(noun).shape), schemaHash(rowKind(noun).schema)]),
    ])
    if (freezing) writeFileSync(file, `${JSON.stringify({ ...today, ...shapes }, null, 2)}\n`)
    else
      for (const [name, hash] of Object.entries(today))
        expect(`${name} ${hash}`, 'a schema changed: give it a new shape, and a step that leads to it').toBe(
          `${name} ${shapes[name]}`,
        )
  })
})

/** Left out: what stands elsewhere, and judgements, which may learn. */
const NOT_SAID = new Set(
  'machine profile opened entry log vise collet item findings verdict judgement working'.split(' '),
)

/** What a setup says in numbers and states, without its words: a path each. */
function stated(of: unknown): Record<string, unknown> {
  const found: Record<string, unknown> = {}
  const visit = (value: unknown, path: string) => {
    if (typeof value === 'number') found[path] = Number(value.toPrecision(10))
    else if (typeof value === 'boolean') found[path] = value
    else if (value instanceof Map) for (const [key, part] of value) visit(part, `${path}/${key}`)
    else if (Array.isArray(value)) for (const [n, part] of value.entries()) visit(part, `${path}/${n}`)
    else if (typeof value === 'object' && value !== null)
      for (const [key, part] of Object.entries(value)) {
        if (NOT_SAID.has(key)) continue
        if (key === 'state' || key === 'standing') found[`${path}/${key}`] = part
        else visit(part, `${path}/${key}`)
      }
  }
  visit(of, '')
  return found
}

function sayOf(log: readonly Logged[], reference: Reference): Record<string, unknown> {
  const setup = deriveSetup(log, reference)
  if (isUnreadable(setup)) return { unreadable: true }
  const { machine, unit } = setup
  const now = Math.max(...log.map(({ at }) => Date.parse(at)))
  return stated({
    setup,
    lines: Object.fromEntries(setup.log.map(({ entry, standing }) => [entry.id, { standing }])),
    tools: deriveTools(log, machine, unit),
    ready: deriveReady({ machine, entries: log, now }),
  })
}

describe.each(['2026-11'])('the logbook of %s', (month) => {
  const { logs, reference } = JSON.parse(
    gunzipSync(readFileSync(here(`logbook-${month}.json.gz`))).toString(),
  ) as { logs: Entry[][]; reference: Reference }

  it('has every kind of entry that there was', () => {
    expect(new Set(logs.flat().map(({ kind }) => kind)).size).toBeGreaterThanOrEqual(37)
  })

  it('says what it said then: every value, and whether it holds', () => {
    const file = here(`said-${month}.json.gz`)
    const says = logs.map((log) => sayOf(log.map(read), reference))
    if (freezing && !existsSync(file)) writeFileSync(file, gzipSync(JSON.stringify(says), { level: 9 }))
    const said = JSON.parse(gunzipSync(readFileSync(file)).toString()) as Record<string, unknown>[]
    expect(says.length).toBe(said.length)
    // What is said beside it since then was not said.
    for (const [n, was] of said.entries()) expect(says[n]).toMatchObject(was)
    expect(said.reduce((sum, each) => sum + Object.keys(each).length, 0)).toBeGreaterThan(5000)
  })
})
