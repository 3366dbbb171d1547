import { plainText } from './plain.ts'

type DegreesEntry = { ok: true; value: number } | { ok: false; empty: boolean; says: string }

/** Degrees as typed, within a full turn either way, or a sentence. */
export function readDegrees(typed: string, needs = 'Type the angle in degrees.'): DegreesEntry {
  const text = plainText(typed)
    .trim()
    .replace(/\s*(°|deg)$/i, '')
  if (text === '') return { ok: false, empty: true, says: needs }
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(text))
    return {
      ok: false,
      empty: false,
      says: `"${text.slice(0, 20)}" is not an angle. Type degrees, such as 15 or -0.25.`,
    }
  const value = Number(text)
  return Math.abs(value) > 360
    ? { ok: false, empty: false, says: `${text} is more than a full turn. Type an angle from -360 to 360.` }
    : { ok: true, value }
}
