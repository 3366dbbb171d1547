import { plainText } from './plain.ts'

type DegreesEntry = { ok: true; value: number } | { ok: false; empty: boolean; says: string }

const FULL_TURN = 360

/** Degrees as typed, within a full turn either way or as many degrees as are said, or a sentence. */
export function readDegrees(
  typed: string,
  needs = 'Type the angle in degrees.',
  most = FULL_TURN,
): DegreesEntry {
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
  // A zero has no sign.
  const value = Number(text) + 0
  const over = most === FULL_TURN ? 'more than a full turn' : 'further than any control counts'
  return Math.abs(value) > most
    ? { ok: false, empty: false, says: `${text} is ${over}. Type an angle from -${most} to ${most}.` }
    : { ok: true, value }
}
