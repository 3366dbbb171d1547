import { type LengthUnit, plainText, readDegrees, readLength, roundTo } from '../quantity/index.ts'
import { classDeviations } from './iso286.ts'
import { readSized } from './sized.ts'

/** What a size may be off by, from its nominal value: signed, in the unit of the size. */
interface ToleranceRead {
  upper: number
  lower: number
}

export type ToleranceEntry = ({ ok: true } & ToleranceRead) | { ok: false; says: string; empty: boolean }

const wrong = (says: string, empty = false): ToleranceEntry => ({ ok: false, says, empty })

const CLASS = /^(js|[a-z])\d{1,2}$/i
const MM_PER = { mm: 1, inch: 25.4 } as const

/** Parts of a tolerance: `+.001/-.0005`, `+.001 -.0005`, `+.002 +.001`; a fraction keeps its stroke. */
const partsOf = (text: string) =>
  text
    .replace(/\s+(?=(mm|in|inch|inches|thou|")\b|")/gi, '')
    // A zero needs no sign: +.0005/0.
    .split(/\s*[/,;]\s*(?=[+-]|0*\.?0*$)|\s+/)
    .filter((part) => part !== '')

/**
 * Reads a tolerance as a machinist writes it: `.0005` and `±.0005` for both ways, `+.001 -.0005` for two, `1.2500 to 1.2510` for
 * the limits themselves, or a class of ISO 286 such as H7 for the nominal size. `unit` is that of the size; degrees for an angle.
 */
export function readTolerance(typed: string, nominal: number, unit: LengthUnit | 'deg'): ToleranceEntry {
  const text = plainText(typed)
    .trim()
    .replace(/\+\s*\/?\s*-\s*/, '±')
  if (text === '') return wrong('Type the tolerance: .0005, +.001 -.0005, or H7.', true)
  if (CLASS.test(text)) {
    if (unit === 'deg') return wrong(`${text} is for sizes, not for an angle.`)
    const of = classDeviations(nominal * MM_PER[unit], text)
    if (typeof of === 'string') return wrong(of)
    return { ok: true, upper: of.upper / MM_PER[unit], lower: of.lower / MM_PER[unit] }
  }
  // Limits, or a size with its own tolerance: both count from the nominal value all the same.
  const sized = unit === 'deg' ? undefined : readSized(text, unit)
  if (sized?.tolerance) {
    const own = readTolerance(sized.tolerance, sized.value, unit)
    if (!own.ok) return own
    const from = (deviation: number) => roundTo(sized.value + deviation - nominal, 9)
    return { ok: true, upper: from(own.upper), lower: from(own.lower) }
  }
  const both = text.startsWith('±') ? text.slice(1).trim() : undefined
  const parts = both === undefined ? partsOf(text) : [both]
  if (parts.length > 2)
    return wrong(`"${typed.trim().slice(0, 30)}" is more than an upper and a lower deviation.`)
  const read = parts.map((part) => (unit === 'deg' ? readDegrees(part) : readLength(part, unit)))
  const bad = read.find(({ ok }) => !ok)
  if (bad && !bad.ok) return wrong(bad.says)
  const [first = 0, second] = read.map((each) => (each.ok ? each.value : 0))
  if (second !== undefined) return { ok: true, upper: first, lower: second }
  if (first < 0) return wrong('Both ways: type it without a minus, or as two deviations.')
  return { ok: true, upper: first, lower: -first }
}
