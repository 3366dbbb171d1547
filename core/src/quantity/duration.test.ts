import { intervalToDuration } from 'date-fns'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { formatDuration, readDuration, writeDuration } from './duration.ts'

describe('a time as it is typed', () => {
  it('is read as a stopwatch shows it and as a person writes it', () => {
    const seconds = (text: string) => {
      const read = readDuration(text)
      return read.ok ? read.seconds : read.says
    }
    const typed: [string, number][] = [
      ['95', 95],
      [' 1:35 ', 95],
      ['1:02:10', 3730],
      ['1:35.4', 95.4],
      ['1 min 35 s', 95],
      ['2.5 min', 150],
      ['.5h', 1800],
      ['8 hours', 28_800],
      ['0', 0],
    ]
    for (const [text, wanted] of typed) expect(seconds(text), text).toBeCloseTo(wanted, 9)
    for (const text of ['soon', '1:75', '-5', '1,5', '3 x', ':30'])
      expect(seconds(text), text).toContain('1:35')
    expect(seconds('9999999')).toContain('week')
    expect(readDuration('  ')).toMatchObject({ ok: false, empty: true })
  })

  it('comes back as it was written, and is said in the parts that date-fns finds', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 600_000_000 }), (ms) => {
        const read = readDuration(writeDuration(ms / 1000))
        expect(read.ok && read.seconds).toBeCloseTo(ms / 1000, 3)
      }),
    )
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 599 }), (seconds) => {
        const { minutes = 0, seconds: rest = 0 } = intervalToDuration({ start: 0, end: seconds * 1000 })
        expect(formatDuration(seconds)).toBe(minutes > 0 ? `${minutes} min ${rest}.0 s` : `${rest}.0 s`)
      }),
    )
    expect([writeDuration(75), writeDuration(28_800), writeDuration(3725.5)]).toEqual([
      '1:15',
      '8 h',
      '1:02:05.5',
    ])
    expect([formatDuration(59.96), formatDuration(3600), formatDuration(-61)]).toEqual([
      '1 min 0.0 s',
      '1 h 0 min',
      '-1 min 1.0 s',
    ])
  })
})
