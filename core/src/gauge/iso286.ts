import { convertLength, type LengthUnit, plainText, readLength } from '../quantity/index.ts'

/**
 * The ISO code system for tolerances on linear sizes: ISO 286-1:2010, tables 1 to 5, holes and shafts D to S in grades IT5 to
 * IT13, up to 500 mm. The values are from memory; `iso286.test.ts` says what they were held against.
 */

/** Sizes in mm up to and including which a column of the tables goes. */
const UP_TO = [3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500] as const

/** Standard tolerances in micrometres, a grade to a line; grade 4 is there for the deviations that are computed from two grades. */
const GRADES: Readonly<Record<number, readonly number[]>> = {
  4: [3, 4, 4, 5, 6, 7, 8, 10, 12, 14, 16, 18, 20],
  5: [4, 5, 6, 8, 9, 11, 13, 15, 18, 20, 23, 25, 27],
  6: [6, 8, 9, 11, 13, 16, 19, 22, 25, 29, 32, 36, 40],
  7: [10, 12, 15, 18, 21, 25, 30, 35, 40, 46, 52, 57, 63],
  8: [14, 18, 22, 27, 33, 39, 46, 54, 63, 72, 81, 89, 97],
  9: [25, 30, 36, 43, 52, 62, 74, 87, 100, 115, 130, 140, 155],
  10: [40, 48, 58, 70, 84, 100, 120, 140, 160, 185, 210, 230, 250],
  11: [60, 75, 90, 110, 130, 160, 190, 220, 250, 290, 320, 360, 400],
  12: [100, 120, 150, 180, 210, 250, 300, 350, 400, 460, 520, 570, 630],
  13: [140, 180, 220, 270, 330, 390, 460, 540, 630, 720, 810, 890, 970],
}

/** How far a shaft's limit that is nearest to the nominal size lies from it, in micrometres: below it for d to h. */
const BELOW: Readonly<Record<string, readonly number[]>> = {
  d: [20, 30, 40, 50, 65, 80, 100, 120, 145, 170, 190, 210, 230],
  e: [14, 20, 25, 32, 40, 50, 60, 72, 85, 100, 110, 125, 135],
  f: [6, 10, 13, 16, 20, 25, 30, 36, 43, 50, 56, 62, 68],
  g: [2, 4, 5, 6, 7, 9, 10, 12, 14, 15, 17, 18, 20],
  h: [0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0],
}

/** The same above it, for k to p. k counts in grades 4 to 7, and is zero in the others. */
const ABOVE: Readonly<Record<string, readonly number[]>> = {
  k: [0, 1, 1, 1, 2, 2, 2, 3, 3, 4, 4, 4, 5],
  m: [2, 4, 6, 7, 8, 9, 11, 13, 15, 17, 20, 21, 23],
  n: [4, 8, 10, 12, 15, 17, 20, 23, 27, 31, 34, 37, 40],
  p: [6, 12, 15, 18, 22, 26, 32, 37, 43, 50, 56, 62, 68],
}

/** r and s have finer steps of size above 50 mm. */
const FINE_UP_TO = [
  3, 6, 10, 18, 30, 50, 65, 80, 100, 120, 140, 160, 180, 200, 225, 250, 280, 315, 355, 400, 450, 500,
]
const ABOVE_FINE: Readonly<Record<string, readonly number[]>> = {
  r: [10, 15, 19, 23, 28, 34, 41, 43, 51, 54, 63, 65, 68, 77, 80, 84, 94, 98, 108, 114, 126, 132],
  s: [14, 19, 23, 28, 35, 43, 53, 59, 71, 79, 92, 100, 108, 122, 130, 140, 158, 170, 190, 208, 232, 252],
}

const LEAST_GRADE = 5
const GREATEST_GRADE = 13
const LARGEST_MM = 500

const columnOf = (mm: number, steps: readonly number[]) => steps.findIndex((most) => mm <= most)

/** The standard tolerance of a grade, in micrometres. */
export const standardTolerance = (mm: number, grade: number): number =>
  GRADES[grade]?.[columnOf(mm, UP_TO)] ?? 0

/** The fundamental deviation of a shaft, in micrometres, signed: its upper one for d to h, its lower one for k to s. */
function shaftDeviation(letter: string, mm: number, grade: number): number {
  const below = BELOW[letter]
  if (below) return -(below[columnOf(mm, UP_TO)] ?? 0)
  if (letter === 'k' && grade > 7) return 0
  return ABOVE[letter]?.[columnOf(mm, UP_TO)] ?? ABOVE_FINE[letter]?.[columnOf(mm, FINE_UP_TO)] ?? 0
}

/** Deviations from the nominal size, in mm. */
export interface Deviations {
  upper: number
  lower: number
}

/** Upper deviation of a hole K to S: that of the shaft turned round, and in the finer grades less deep by the step of two grades (ISO 286-1, 4.3.2.5). */
function holeUpper(letter: string, mm: number, grade: number): number {
  const turned = -shaftDeviation(letter, mm, letter === 'k' ? 7 : grade)
  const finer = grade <= (letter === 'p' || letter === 'r' || letter === 's' ? 7 : 8)
  if (mm <= 3 || !finer) return letter === 'n' && !finer && mm > 3 ? 0 : turned
  // The one exception of the standard: M6 from 250 to 315 mm.
  if (letter === 'm' && grade === 6 && mm > 250 && mm <= 315) return -9
  return turned + standardTolerance(mm, grade) - standardTolerance(mm, grade - 1)
}

/** Deviations of a tolerance class such as H7 or g6 at a size in mm; a sentence where the standard has none or Dogleg does not carry it. */
export function classDeviations(size: number, code: string): Deviations | string {
  // The ends of the standard's ranges are whole: what came by way of inches is not left a hair beyond them.
  const mm = Math.round(size * 1e9) / 1e9
  const found = /^(js|[d-hkmnprs])(\d{1,2})$/i.exec(code)
  if (!found)
    return `${code} is not carried: D to S, JS, grades 5 to 13, such as H7 or g6. Type the deviations.`
  const [, letters = '', digits = ''] = found
  const grade = Number(digits)
  if (grade < LEAST_GRADE || grade > GREATEST_GRADE)
    return `Grades ${LEAST_GRADE} to ${GREATEST_GRADE} are carried, not ${grade}. Type the deviations.`
  if (!(mm > 0) || mm > LARGEST_MM) return `${code} is given for sizes up to ${LARGEST_MM} mm.`
  const hole = letters[0] === letters[0]?.toUpperCase()
  const letter = letters.toLowerCase()
  const width = standardTolerance(mm, grade)
  const inMm = (upper: number) => ({ upper: upper / 1000, lower: (upper - width) / 1000 })
  if (letter === 'js') return { upper: width / 2000, lower: -width / 2000 }
  if (letter in BELOW) {
    const fundamental = shaftDeviation(letter, mm, grade)
    return hole ? { upper: (width - fundamental) / 1000, lower: -fundamental / 1000 } : inMm(fundamental)
  }
  if (!hole) return inMm(shaftDeviation(letter, mm, grade) + width)
  if (letter === 'k' && grade > 8) return `K${grade} has no meaning in ISO 286. Type the deviations.`
  return inMm(holeUpper(letter, mm, grade))
}

/**
 * A size with its class, such as `20 H7`, `.750 H7` or `12.5mm g6`; undefined where it is none. A bare size is in the unit
 * asked for; but a whole number where that is inch is mm, as the standard's sizes are.
 */
export function sizeAndClass(
  text: string,
  unit: LengthUnit,
): { text: string; value: number; mm: number; code: string } | undefined {
  const found = /^(.+?)\s*([a-z]{1,2}\d{1,2})$/i.exec(plainText(text).trim())
  if (!found) return undefined
  const [, size = '', code = ''] = found
  if (!/^(js|[d-hkmnprs])\d{1,2}$/i.test(code)) return undefined
  const said = unit === 'inch' && /^\d+$/.test(size) ? `${size}mm` : size
  const entry = readLength(said, unit)
  if (!entry.ok || entry.value <= 0) return undefined
  return { text: said, value: entry.value, mm: convertLength(entry.value, unit, 'mm'), code }
}
