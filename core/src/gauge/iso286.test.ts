import { describe, expect, it } from 'vitest'
import { classDeviations, sizeAndClass, standardTolerance } from './iso286.ts'
import { readTolerance } from './tolerance.ts'

/** ISO 286-2:2010, tables of limit deviations, in micrometres (from memory; each is also in common engineering handbooks). */
const TABLE: readonly (readonly [size: number, code: string, upper: number, lower: number])[] = [
  [3, 'H7', 10, 0],
  [6, 'g6', -4, -12],
  [10, 'H8', 22, 0],
  [10, 'p6', 24, 15],
  [16, 'h6', 0, -11],
  [20, 'H7', 21, 0],
  [20, 'g6', -7, -20],
  [20, 'f7', -20, -41],
  [20, 'K7', 6, -15],
  [20, 'P7', -14, -35],
  [20, 'js6', 6.5, -6.5],
  [25, 'M7', 0, -21],
  [25, 'k6', 15, 2],
  [25, 'N7', -7, -28],
  [30, 's6', 48, 35],
  [40, 'e8', -50, -89],
  [50, 'f7', -25, -50],
  [50, 'H11', 160, 0],
  [60, 'r6', 60, 41],
  [80, 'd9', -100, -174],
  [100, 'N7', -10, -45],
  [100, 'S7', -58, -93],
  [120, 'H9', 87, 0],
  [200, 'm6', 46, 17],
  [300, 'M6', -9, -41],
  [2, 'N7', -4, -14],
  [25, 'N9', 0, -52],
  // Ends of ranges of sizes, of grades, and of the rules for the finer grades.
  [10, 'p8', 37, 15],
  [20, 'k8', 33, 0],
  [20, 'K8', 10, -23],
  [25, 'M8', 4, -29],
  [20, 'N8', -3, -36],
  [20, 'P8', -22, -55],
  [20, 'R8', -28, -61],
  [20, 'S8', -35, -68],
  [3, 'N7', -4, -14],
  [3, 'N9', -4, -29],
  [250, 'M6', -8, -37],
  [315, 'M6', -9, -41],
  [20, 'H5', 9, 0],
  [20, 'H13', 330, 0],
  [500, 'H7', 63, 0],
  [20, 'F8', 53, 20],
  [20, 'G7', 28, 7],
  [20, 'D9', 117, 65],
]

describe('ISO 286', () => {
  it.each(TABLE)('%d %s is %d and %d micrometres', (size, code, upper, lower) => {
    const of = classDeviations(size, code)
    expect(typeof of).toBe('object')
    if (typeof of === 'string') return
    expect(of.upper * 1000).toBeCloseTo(upper, 6)
    expect(of.lower * 1000).toBeCloseTo(lower, 6)
  })

  it('has standard tolerances that follow i = 0.45 D^(1/3) + 0.001 D in the ratios of ISO 286-1, annex A (from memory)', () => {
    const units = { 6: 10, 7: 16, 8: 25, 9: 40, 10: 64, 11: 100, 12: 160, 13: 250 }
    const steps = [6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500]
    for (const [grade, count] of Object.entries(units))
      steps.forEach((to, index) => {
        const from = index === 0 ? 3 : (steps[index - 1] as number)
        const d = Math.sqrt(from * to)
        const formula = count * (0.45 * Math.cbrt(d) + 0.001 * d)
        const of = standardTolerance(to, Number(grade))
        // The tables are rounded: to whole micrometres, to fives, to tens.
        expect(Math.abs(of - formula), `IT${grade} to ${to}`).toBeLessThan(Math.max(1.1, 0.06 * formula))
      })
  })

  it('says what it does not carry, and never gives a number for it', () => {
    for (const [size, code] of [
      [600, 'H7'],
      [20, 'H4'],
      [20, 'z9'],
      [20, 'K9'],
      [0, 'H7'],
      [20, 'H'],
    ] as const)
      expect(typeof classDeviations(size, code), `${size} ${code}`).toBe('string')
  })
})

describe('a tolerance as it is typed', () => {
  it.each([
    ['.0005', 0.75, 0.0005, -0.0005],
    ['±.0005', 0.75, 0.0005, -0.0005],
    ['+/-.0005', 0.75, 0.0005, -0.0005],
    ['+.001 -.0005', 0.75, 0.001, -0.0005],
    ['+.001/-.0005', 0.75, 0.001, -0.0005],
    ['+.001 0', 0.75, 0.001, 0],
    ['+.0005/0', 0.75, 0.0005, 0],
    ['0/-.0005', 0.75, 0, -0.0005],
    ['+.0005 / −.0002', 0.75, 0.0005, -0.0002],
    ['-.0005 +.001', 0.75, -0.0005, 0.001],
    ['1/64', 2, 1 / 64, -1 / 64],
    ['0.02 mm', 1, 0.02 / 25.4, -0.02 / 25.4],
    ['H7', 20 / 25.4, 0.021 / 25.4, 0],
  ])('%s on %d in', (text, nominal, upper, lower) => {
    const read = readTolerance(text, nominal, 'inch')
    expect(read.ok && [read.upper, read.lower].map((of) => of.toFixed(9))).toEqual(
      [upper, lower].map((of) => of.toFixed(9)),
    )
  })
  it.each(['', 'about a thou', '+.001 -.0005 .2', '-.001', 'H22', '.5.5'])(
    '"%s" is refused with a sentence',
    (text) => {
      const read = readTolerance(text, 0.75, 'inch')
      expect(read.ok).toBe(false)
      expect(!read.ok && read.says.length).toBeGreaterThan(10)
    },
  )
})

describe('a size with its class', () => {
  it('is in the setup’s unit: .750 H7 is three quarters of an inch, 20 H7 is mm wherever it is typed', () => {
    const inches = (text: string) => sizeAndClass(text, 'inch')?.mm
    expect(inches('.750 H7')).toBeCloseTo(19.05, 9)
    expect(inches('3/4 H7')).toBeCloseTo(19.05, 9)
    expect(inches('20 H7')).toBeCloseTo(20, 9)
    expect(inches('12.5mm g6')).toBeCloseTo(12.5, 9)
    expect(sizeAndClass('20 H7', 'mm')).toMatchObject({ value: 20, code: 'H7' })
    expect(sizeAndClass('.5 in H7', 'mm')?.value).toBeCloseTo(12.7, 9)
    expect(sizeAndClass('20', 'mm')).toBeUndefined()
    // The sizes at the ends of the standard's ranges stay in them, whatever the unit was on the way.
    for (const mm of [3, 6, 10, 18, 30, 50, 80, 120])
      expect(classDeviations((mm / 25.4) * 25.4 + 4e-15, 'H7')).toEqual(classDeviations(mm, 'H7'))
    // What is kept reads back to what it meant.
    expect(sizeAndClass('20 H7', 'inch')).toMatchObject({
      text: '20mm',
      value: expect.closeTo(20 / 25.4, 12),
    })
  })
})
