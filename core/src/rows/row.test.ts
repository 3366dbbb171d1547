import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { defineRow, isUnreadRow, rowDoor } from './row.ts'

const row = { id: z.string().min(1), version: z.int().min(1), name: z.string().min(1) }
const fixtures = defineRow({
  noun: 'fixtures',
  one: 'fixture',
  schema: z.object({ ...row, shape: z.literal(2), pins: z.number(), unit: z.enum(['inch', 'mm']) }),
  upcast: [({ pinsInch, ...same }) => ({ ...same, pins: z.number().parse(pinsInch), unit: 'inch' })],
  inFile: { which: 'named', most: 10 },
})
const racks = defineRow({
  noun: 'racks',
  one: 'rack',
  schema: z.object({ ...row, place: z.number(), fixture: z.string() }),
  upcast: [],
  inFile: { which: 'of-machine', most: 10 },
  needs: ({ fixture }) => [
    { noun: 'fixtures', id: fixture, code: 'not-found', says: `There is no ${fixture}.` },
  ],
  clashes: ({ place }, other) => (place === other.place ? `Place ${place} has ${other.name}.` : undefined),
})
const { readRow, rowKind } = rowDoor([fixtures, racks])
const stamp = { id: 'f-1', version: 3, name: 'Pins' }

describe('the door for rows', () => {
  it('brings a row of every shape into that of today', () => {
    const today = { ...stamp, shape: 2, pins: 0.25, unit: 'inch' }
    expect(readRow('fixtures', { ...stamp, pinsInch: 0.25 })).toEqual(today)
    expect(readRow('fixtures', today)).toEqual(today)
  })

  it.each([
    ['nothing', undefined, 'damaged', /no fixture/],
    ['a list', [], 'damaged', /no fixture/],
    ['an old one without what it had', stamp, 'damaged', /not a fixture of shape 1/],
    [
      'one of today with something else in it',
      { ...stamp, shape: 2, pins: 'x', unit: 'mm' },
      'damaged',
      /pins/,
    ],
    ['one of a newer version', { ...stamp, shape: 3, pins: [] }, 'newer', /shape 3/],
  ])('says what it cannot read, and why: %s', (_what, data, why, says) => {
    const read = readRow('fixtures', data)
    if (!isUnreadRow(read)) throw new Error('it was read')
    expect(read.unread).toBe(why)
    expect(read.says).toMatch(says)
  })

  it('says what a row needs, and which two cannot both be there', () => {
    const { needs, clashes } = rowKind('racks')
    const rack = (name: string, place: number) => ({ id: name, version: 1, name, place, fixture: 'f-1' })
    expect(needs?.(rack('A', 1))).toEqual([
      { noun: 'fixtures', id: 'f-1', code: 'not-found', says: 'There is no f-1.' },
    ])
    expect([clashes?.(rack('A', 1), rack('B', 1)), clashes?.(rack('A', 1), rack('B', 2))]).toEqual([
      'Place 1 has B.',
      undefined,
    ])
    expect(() => rowDoor([fixtures, racks, fixtures])).toThrow(/one name/)
    expect(() => rowKind('pots' as never)).toThrow(/no pots/)
  })
})
