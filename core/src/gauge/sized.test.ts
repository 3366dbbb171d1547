import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { typedLength } from '../quantity/index.ts'
import { deviationsOf, readFeature, startingFeature } from './feature.ts'
import { readSized } from './sized.ts'
import { readTolerance } from './tolerance.ts'

const near = (value: number) => expect.closeTo(value, 9)

describe('a size as a machinist writes it', () => {
  // Deviations by hand: limits less their middle, half of what is between them.
  it.each<[string, number, string | undefined]>([
    ['1.2505', 1.2505, undefined],
    ['1-1/4', 1.25, undefined],
    ['1.2500 to 1.2510', 1.2505, '±0.0005'],
    ['1.2510 TO 1.2500', 1.2505, '±0.0005'],
    ['1 1/4 to 1 3/8', 1.3125, '±0.0625'],
    ['1.25...1.26', 1.255, '±0.005'],
    ['31.75mm to 32mm', 31.875 / 25.4, '±0.004921260'.slice(0, -1)],
    ['1.2505 +-.0005', 1.2505, '±.0005'],
    ['1.2505 +/- .0005', 1.2505, '±.0005'],
    ['1.2505±.0005', 1.2505, '±.0005'],
    ['1.2500 +.001 -.0005', 1.25, '+.001 -.0005'],
    ['1.2500 + .001 - .0005', 1.25, '+.001 -.0005'],
    ['1 1/4 H7', 1.25, 'H7'],
    ['20 H7', 20 / 25.4, 'H7'],
    ['.750 H7', 0.75, 'H7'],
    ['1.25 - .5', 0.75, undefined],
  ])('%s', (typed, value, tolerance) => {
    const read = readSized(typed, 'inch')
    expect(read?.value).toBeCloseTo(value, 6)
    expect(read?.tolerance).toBe(tolerance)
    // It is kept as a length whose own text gives it.
    expect(typedLength.safeParse({ text: read?.text, value: read?.value, unit: 'inch' }).success).toBe(true)
  })

  it.each(['', 'H7', 'to', '1 to', '1 to 1', '1 +- x', 'about 1', '1 to 2 to 3'])('"%s" is none', (typed) => {
    expect(readSized(typed, 'inch')).toBeUndefined()
  })

  it('of two limits, whatever they are, reaches from the one to the other', () => {
    const limit = fc.integer({ min: 1, max: 200_000 }).map((n) => n / 10_000)
    fc.assert(
      fc.property(limit, limit, (a, b) => {
        fc.pre(a !== b)
        const { value, tolerance } = readSized(`${a} to ${b}`, 'inch') ?? { value: 0, tolerance: '' }
        const read = readTolerance(tolerance ?? '', value, 'inch')
        expect(read).toMatchObject({ ok: true })
        if (!read.ok) return
        expect(value + read.lower).toBeCloseTo(Math.min(a, b), 8)
        expect(value + read.upper).toBeCloseTo(Math.max(a, b), 8)
      }),
    )
  })
})

describe('a tolerance that is typed with its size', () => {
  it('counts from the nominal size beside it', () => {
    expect(readTolerance('1.2500 to 1.2510', 1.25, 'inch')).toEqual({
      ok: true,
      upper: near(0.001),
      lower: 0,
    })
    expect(readTolerance('1.2505 +-.0005', 1.25, 'inch')).toEqual({ ok: true, upper: near(0.001), lower: 0 })
    expect(readTolerance('1.2505 +.001 -.0005', 1.25, 'inch')).toEqual({
      ok: true,
      upper: near(0.0015),
      lower: near(0),
    })
    // The hole of 1-1/4 in is 31.75 mm: H7 is 0.025 up (ISO 286).
    expect(readTolerance('1 1/4 H7', 1.25, 'inch')).toEqual({ ok: true, upper: near(0.025 / 25.4), lower: 0 })
    expect(readTolerance('89 to 91', 90, 'deg')).toMatchObject({ ok: false })
  })

  it('answers both fields of a feature, in whichever of the two it was typed', () => {
    const start = { ...startingFeature('bore', 'BORE A', 'inch'), x: '1', y: '1' }
    const of = (more: object) => {
      const read = readFeature({ ...start, ...more }, 'inch')
      if (!read.ok) return read.problems
      const deviations = deviationsOf(read.value, 'inch')
      return [read.value.nominal.value, deviations.ok && deviations.lower, deviations.ok && deviations.upper]
    }
    const both = [near(1.2505), near(-0.0005), near(0.0005)]
    expect(of({ nominal: '1.2500 to 1.2510' })).toEqual(both)
    expect(of({ nominal: '1.2505 +-.0005' })).toEqual(both)
    expect(of({ tolerance: '1.2500 to 1.2510' })).toEqual(both)
    expect(of({ nominal: '1.2500', tolerance: '1.2500 to 1.2510' })).toEqual([1.25, 0, near(0.001)])
    // What is typed in the field of the tolerance counts, though the size says one too.
    expect(of({ nominal: '1.2500 to 1.2510', tolerance: '.002' })).toEqual([near(1.2505), -0.002, 0.002])
    expect(of({ nominal: '1.25' })).toMatchObject({ tolerance: { empty: true } })
    expect(of({})).toMatchObject({ nominal: { empty: true } })
  })
})
