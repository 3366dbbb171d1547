import { intervalToDuration } from 'date-fns'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { formatDuration, formatHours, formatShort, readDuration, writeDuration } from './duration.ts'

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

  it('takes hours and minutes run together, words in full, and refuses a unit that comes again', () => {
    const seconds = (text: string, of?: 'hours') => {
      const read = readDuration(text, of)
      return read.ok ? read.seconds : read.says
    }
    const typed: [string, number][] = [
      // It was an hour and thirty seconds.
      ['1h30', 5400],
      ['2h 5', 7500],
      ['5 minutes', 300],
      ['90 seconds', 90],
      ['1 hr 30 mins', 5400],
      ['3m20', 200],
      ['1\u00a0min\u202f35\u00a0s', 95],
    ]
    for (const [text, wanted] of typed) expect(seconds(text), text).toBeCloseTo(wanted, 9)
    for (const text of ['30 s 5 min', '1 h 2 h', '5 s 3', 'minutes 5', '5 mint'])
      expect(seconds(text), text).toContain('1:35')
    // A shift: hours are meant.
    expect(
      ['8:00', '7:30', '8', '7.5', '8 h', '450 min', '1h30', '7:30:15'].map((text) => seconds(text, 'hours')),
    ).toEqual([28_800, 27_000, 28_800, 27_000, 28_800, 27_000, 5400, 27_015])
    expect(seconds('8:75', 'hours')).toContain('7:30')
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 600_000_000 }), (ms) => {
        const read = readDuration(writeDuration(ms / 1000, 'hours'), 'hours')
        expect(read.ok && read.seconds).toBeCloseTo(ms / 1000, 3)
      }),
    )
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
    expect([59.96, 599.96, 3599.4, 3599.9, 3600, -61].map(formatDuration)).toEqual([
      '1 min 0.0 s',
      '10 min 0 s',
      '59 min 59 s',
      '1 h 0 min',
      '1 h 0 min',
      '-1 min 1.0 s',
    ])
  })
})

describe('a time in little room', () => {
  it('has the minutes and seconds that date-fns finds, and never sixty of either', () => {
    fc.assert(
      fc.property(fc.integer({ min: 60, max: 3599 }), (seconds) => {
        const { minutes = 0, seconds: rest = 0 } = intervalToDuration({ start: 0, end: seconds * 1000 })
        expect(formatShort(seconds)).toBe(`${minutes}:${String(rest).padStart(2, '0')}`)
      }),
    )
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1439 }), (minute) => {
        const { hours = 0, minutes = 0 } = intervalToDuration({ start: 0, end: minute * 60_000 })
        expect(formatHours(minute * 60)).toBe(`${hours}:${String(minutes).padStart(2, '0')}`)
      }),
    )
    expect([0.417, 9.996, 12.44, 59.96, 119.7, 3599.6, 4320].map(formatShort)).toEqual([
      '0.42 s',
      '10.0 s',
      '12.4 s',
      '1:00',
      '2:00',
      '1.0 h',
      '1.2 h',
    ])
    expect([3599, 7170, 7169].map(formatHours)).toEqual(['1:00', '2:00', '1:59'])
  })
})
