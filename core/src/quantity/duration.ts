import { plainText } from './plain.ts'

/** What a field made of a time that was typed: seconds, or a sentence that says what is wrong. */
export type DurationEntry =
  | { ok: true; seconds: number; understood: string }
  | { ok: false; empty: boolean; says: string }

const LONGEST = 7 * 86_400
const CLOCK = /^(?:(\d+):)?(\d+):([0-5]?\d(?:\.\d+)?)$/
const CLOCK_HOURS = /^(\d+):([0-5]?\d)(?::([0-5]?\d(?:\.\d+)?))?$/
/** Longer words first: 'minutes' is not 'min' and a rest. */
const PIECE = /^(\d+\.?\d*|\.\d+)\s*(hours?|hrs?|h|minutes?|mins?|m|seconds?|secs?|s)?(?![a-z])\s*/i
const SECONDS: Record<string, number> = { h: 3600, m: 60, s: 1 }
/** What a bare number after one of them counts: 1h30 is an hour and thirty minutes. */
const BELOW: Record<string, string> = { h: 'm', m: 's' }

/** What a bare number, and a clock of two parts, count. */
export type DurationOf = 'seconds' | 'hours'

/** Seconds of pieces such as '1 min 35 s' or '1h30'. Undefined where something else stands there, or a unit comes again or out of order. */
function pieces(text: string, bare: DurationOf): number | undefined {
  let rest = text
  let total = 0
  let before: string | undefined
  while (rest !== '') {
    const found = PIECE.exec(rest)
    if (!found) return undefined
    const own = found[2]?.charAt(0).toLowerCase()
    const unit: string | undefined = own ?? (before === undefined ? bare.charAt(0) : BELOW[before])
    if (unit === undefined || (before !== undefined && (SECONDS[unit] ?? 0) >= (SECONDS[before] ?? 0)))
      return undefined
    total += Number(found[1]) * (SECONDS[unit] ?? 1)
    before = unit
    rest = rest.slice(found[0].length)
  }
  return total
}

function clockOf(text: string, bare: DurationOf): number | undefined {
  const found = (bare === 'hours' ? CLOCK_HOURS : CLOCK).exec(text)
  if (!found) return undefined
  const [, hours, minutes, seconds] = found
  return Number(hours ?? 0) * 3600 + Number(minutes) * 60 + Number(seconds ?? 0)
}

const SAYS: Record<DurationOf, string> = {
  seconds: 'Type a time such as 95, 1:35 or 1 min 35 s; a bare number is seconds.',
  hours: 'Type a time such as 8, 7:30 or 7 h 30 min; a bare number is hours.',
}

/**
 * Reads a time as a stopwatch shows it or a person writes it: '95', '1:35', '1:02:10', '1 min 35 s', '2.5 min', '8 h', '1h30'.
 * Where hours are meant a bare number is hours, and '8:00' eight of them.
 */
export function readDuration(typed: string, of: DurationOf = 'seconds'): DurationEntry {
  const text = plainText(typed).trim()
  if (text === '') return { ok: false, empty: true, says: 'Type a time.' }
  const seconds = clockOf(text, of) ?? pieces(text, of)
  if (seconds === undefined || Number.isNaN(seconds)) return { ok: false, empty: false, says: SAYS[of] }
  if (seconds > LONGEST) return { ok: false, empty: false, says: 'That is longer than a week.' }
  return { ok: true, seconds, understood: formatDuration(seconds) }
}

/** Minutes and seconds as they are said: tenths below ten minutes, hours from one hour on. */
export function formatDuration(seconds: number): string {
  const sign = seconds < 0 ? '-' : ''
  const tenths = Math.round(Math.abs(seconds) * 10) / 10
  const whole = Math.round(tenths)
  if (whole >= 3600) {
    const minutes = Math.round(tenths / 60)
    return `${sign}${Math.floor(minutes / 60)} h ${minutes % 60} min`
  }
  if (tenths >= 600) return `${sign}${Math.floor(whole / 60)} min ${whole % 60} s`
  const minutes = Math.floor(tenths / 60)
  const rest = (tenths - 60 * minutes).toFixed(1)
  return minutes > 0 ? `${sign}${minutes} min ${rest} s` : `${sign}${rest} s`
}

/**
 * A time as it is typed: seconds below a minute, then as a stopwatch shows it; where hours are meant with all its parts. Read
 * again it is the same, to a millisecond.
 */
export function writeDuration(seconds: number, of: DurationOf = 'seconds'): string {
  const whole = Math.round(seconds * 1000) / 1000
  if (whole < 60 && of === 'seconds') return String(whole)
  if (whole % 3600 === 0 && (whole > 0 || of === 'seconds')) return `${whole / 3600} h`
  const [hours, minutes] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60)]
  const rest = Math.round((whole % 60) * 1000) / 1000
  const two = (value: number) => (value < 10 ? `0${value}` : String(value))
  return hours > 0 || of === 'hours' ? `${hours}:${two(minutes)}:${two(rest)}` : `${minutes}:${two(rest)}`
}

/** A time where there is little room: '0.42 s', '12.4 s', '1:05', '1.2 h'. */
export function formatShort(seconds: number): string {
  if (seconds < 9.995) return `${seconds.toFixed(2)} s`
  if (seconds < 59.95) return `${seconds.toFixed(1)} s`
  const whole = Math.round(seconds)
  if (whole >= 3600) return `${(seconds / 3600).toFixed(1)} h`
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}

/** A time into a shift, to the minute, as a clock shows it: '1:05' is an hour and five minutes. */
export function formatHours(seconds: number): string {
  const minutes = Math.round(seconds / 60)
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`
}
