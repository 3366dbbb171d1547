import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { entrySchema, type LogEntry, reshapedSchema, words } from './entry.ts'
import { defineEntry, defineFact } from './kind.ts'
import { kindsOf } from './kinds.ts'
import { entryDoor, type Place } from './read.ts'
import { NO_TIME } from './unread.ts'

const rest = {
  group: 'any',
  slim: 'whole',
  onMachine: 'nothing',
  carried: false,
  written: 'anywhere',
  makesStale: 'nothing',
} as const
const note = defineEntry({
  schema: entrySchema('note', { text: words(20) }),
  upcast: [],
  describe: ({ text }) => ({ says: text, detail: '' }),
  ...rest,
})
/** A kind with a history: a length in inch by name, then with its unit, then with how it was measured. */
const length = defineFact({
  schema: reshapedSchema('length', 3, {
    value: z.number(),
    unit: z.enum(['inch', 'mm']),
    how: z.enum(['setter', 'not said']),
  }),
  upcast: [
    ({ inches, ...same }) => ({ ...same, value: z.number().parse(inches), unit: 'inch' }),
    (same) => ({ ...same, how: 'not said' }),
  ],
  subject: () => 'length',
  dependsOn: () => [],
  factKind: () => 'tool-length',
  taken: 'measured',
  replaced: 'the length',
  describe: ({ value, unit }) => ({ says: `${value} ${unit}`, detail: '' }),
  ...rest,
})
type Entry = z.output<typeof note.schema> | z.output<typeof length.schema>
const { readEntry, readEntryText, entryIssues, shapeNow } = entryDoor<Entry>([note, length])

const stamp = {
  id: '01KAS000000000000000000001',
  setup: '01KAS000000000000000000000',
  at: '2026-11-30T08:00:00.000Z',
  by: 'RT',
}
const place: Place = { id: stamp.id, setup: stamp.setup, seq: 7, at: '2026-11-30T09:00:00.000Z' }

describe('the door', () => {
  it.each([
    ['the first shape', { inches: 4.5 }, { value: 4.5, unit: 'inch', how: 'not said' }],
    ['the second', { shape: 2, value: 30, unit: 'mm' }, { value: 30, unit: 'mm', how: 'not said' }],
    [
      'the third',
      { shape: 3, value: 30, unit: 'mm', how: 'setter' },
      { value: 30, unit: 'mm', how: 'setter' },
    ],
  ])('brings an entry of %s into the shape of today', (_which, was, is) => {
    for (const trust of ['read-before', 'not-read-before'] as const) {
      const now = readEntry({ ...stamp, kind: 'length', ...was }, {}, trust)
      expect(now).toMatchObject({ ...stamp, kind: 'length', shape: 3, ...is })
      // As it comes out it goes in again: it may be stored and sent.
      expect(readEntry(JSON.parse(JSON.stringify(now)))).toEqual(now)
    }
  })

  it.each([
    ['no text of an entry', '{"id":', 'damaged', /no entry/],
    ['a list', '[]', 'damaged', /no entry/],
    ['nothing', '', 'damaged', /no entry/],
    ['an entry that does not say what it is', { ...stamp, text: 'x' }, 'damaged', /what it is/],
    ['a kind from later', { ...stamp, kind: 'scanned', cloud: [1] }, 'newer', /"scanned"/],
    ['a kind that nobody signed', { kind: 'scanned' }, 'damaged', /"scanned"/],
    ['a shape from later', { ...stamp, kind: 'length', shape: 4, value: [1, 2] }, 'newer', /shape 4/],
    ['a shape from later of one that had none', { ...stamp, kind: 'note', shape: 2, text: 1 }, 'newer', /2/],
    ['a shape that is none', { ...stamp, kind: 'length', shape: 1.5 }, 'damaged', /which shape/],
    [
      'an old shape without what it had',
      { ...stamp, kind: 'length' },
      'damaged',
      /not a "length" of shape 1/,
    ],
    ['today’s shape with something else in it', { ...stamp, kind: 'note', text: 5 }, 'damaged', /\(text\)/],
    [
      'an entry of another setup',
      { ...stamp, setup: stamp.id, kind: 'note', text: 'x' },
      'damaged',
      /another/,
    ],
  ] as const)('keeps what it cannot read, and says why: %s', (_what, data, why, says) => {
    const raw = typeof data === 'string' ? data : JSON.stringify(data)
    const read = readEntryText(raw, place)
    expect(read).toMatchObject({ kind: 'unread', why, raw, id: stamp.id, setup: stamp.setup, seq: 7 })
    expect(read.kind === 'unread' && read.says).toMatch(says)
    // When it was made is believed of what a newer version wrote, and of nothing that is damaged.
    expect(read.at).toBe(why === 'newer' ? stamp.at : place.at)
  })

  it('calls what has no time as late as can be, so that nothing is called fresh for it', () => {
    expect(readEntry({ ...stamp, kind: 'note' })).toMatchObject({ kind: 'unread', at: NO_TIME })
  })

  it('never fails, whatever stands there, and loses none of it', () => {
    const anything = fc.oneof(
      fc.jsonValue(),
      fc.record({ kind: fc.constantFrom('note', 'length', 'scanned', 'unread'), shape: fc.jsonValue() }),
      fc
        .tuple(fc.constantFrom('note', 'length'), fc.dictionary(fc.string(), fc.jsonValue()))
        .map(([kind, more]) => ({ ...stamp, ...more, kind })),
    )
    fc.assert(
      fc.property(anything, (data) => {
        const text = JSON.stringify(data)
        const read = readEntryText(text, place)
        if (read.kind === 'unread') expect(read.raw).toBe(text)
        else expect(['note', 'length']).toContain(read.kind)
        expect(Number.isNaN(Date.parse(read.at))).toBe(false)
      }),
      { numRuns: 500 },
    )
  })

  /** Lists in lists, deeper than what can be put into a text again. */
  const deep = `${'['.repeat(100_000)}${']'.repeat(100_000)}`

  it.each([
    ['with spaces, and a key twice', ` {"kind" : "note",\n"text": 1, "text": 2} `],
    ['with a number that no number can be', `{"kind":"note","text":1e999}`],
    ['nested without end', deep],
    ['an entry with something nested without end', `{"kind":"note","text":${deep}}`],
    [
      'one from later with something nested without end',
      JSON.stringify({ ...stamp, kind: 'scanned', cloud: 0 }).replace('0}', `${deep}}`),
    ],
  ])('keeps a text as it stands, word for word: %s', (_what, text) => {
    const read = readEntryText(text, place)
    expect(read).toMatchObject({ kind: 'unread', id: stamp.id, seq: 7 })
    // Not by a matcher: what is so long is no help in a message.
    expect(read.kind === 'unread' && read.raw === text).toBe(true)
  })

  it('does not break on data that is nested without end: it says so', () => {
    for (const data of [JSON.parse(deep), { ...stamp, kind: 'note', text: JSON.parse(deep) }]) {
      const read = readEntry(data, place)
      expect(read).toMatchObject({ kind: 'unread', why: 'damaged', id: stamp.id, raw: '' })
    }
    expect(readEntry({ ...stamp, kind: 'scanned', cloud: JSON.parse(deep) })).toMatchObject({
      why: 'damaged',
      says: 'It is nested too deeply to be kept.',
    })
  })

  it('says what there is against an entry that is about to be recorded, field by field', () => {
    expect(entryIssues({ ...stamp, kind: 'note', text: 'x' })).toEqual([])
    expect(entryIssues({ ...stamp, kind: 'note', text: 'x'.repeat(21) })).toEqual([
      { field: 'text', says: 'Keep it under 20 characters.' },
    ])
    expect(entryIssues({ ...stamp, kind: 'scanned' })).toMatchObject([{ field: 'kind' }])
  })
})

describe('an entry that is made today', () => {
  it('says the shape of its kind, where that was changed, and goes in by the door as it is', () => {
    expect(['note', 'length', 'scanned'].map(shapeNow)).toEqual([{}, { shape: 3 }, {}])
    const made = { ...stamp, kind: 'length', value: 30, unit: 'mm', how: 'setter', ...shapeNow('length') }
    expect(readEntry(made)).toEqual(made)
    // Without it, it would be taken for one of the first shape, and be none.
    expect(readEntry({ ...made, shape: undefined })).toMatchObject({ kind: 'unread', why: 'damaged' })
  })
})

describe('a kind of entry', () => {
  it('says the number of its shape, and has a step from each one before it', () => {
    expect([note.shape, length.shape]).toEqual([1, 3])
    const short = () => defineEntry({ ...note, schema: reshapedSchema('note', 2, { text: words(20) }) })
    expect(short).toThrow(/shape 2 and has 0 older/)
  })

  it('knows its own entries', () => {
    const entry: LogEntry = { ...stamp, kind: 'note' }
    expect([note.is(entry), length.is(entry), note.is(undefined)]).toEqual([true, false, false])
  })

  it('is the only one of its name', () => {
    expect(() => kindsOf([note, length, note], [])).toThrow(/one name/)
  })

  it('that states nothing and reaches nothing harms no fact, whatever it says', () => {
    const kinds = kindsOf([note, length], [])
    expect(['note', 'length', 'scanned'].map(kinds.isHarmless)).toEqual([true, false, false])
  })
})
