/** What a field made of a time that was typed: seconds, or a sentence that says what is wrong. */
export type DurationEntry =
  | { ok: true; seconds: number; understood: string }
  | { ok: false; empty: boolean; says: string }

const LONGEST = 7 * 86_400
const CLOCK = /^(?:(\d+):)?(\d+):([0-5]?\d(?:\.\d+)?)$/
const PIECE = /^(\d+\.?\d*|\.\d+)\s*(hours?|h|min|minutes?|m|s|sec|seconds?)?\s*/i
const SECONDS: Record<string, number> = { h: 3600, m: 60, s: 1 }

/** Seconds of pieces such as '1 min 35 s'; a bare number is seconds. Undefined where something else stands there. */
function pieces(text: string): number | undefined {
  let rest = text
  let total = 0
  while (rest !== '') {
    const found = PIECE.exec(rest)
    if (!found) return undefined
    total += Number(found[1]) * (SECONDS[(found[2] ?? 's').charAt(0).toLowerCase()] ?? 1)
    rest = rest.slice(found[0].length)
  }
  return total
}

/** Reads a time as a stopwatch shows it or a person writes it: '95', '1:35', '1:02:10', '1 min 35 s', '2.5 min', '8 h'. */
export function readDuration(typed: string): DurationEntry {
  const text = typed.trim()
  if (text === '') return { ok: false, empty: true, says: 'Type a time.' }
  const clock = CLOCK.exec(text)
  const seconds = clock
    ? Number(clock[1] ?? 0) * 3600 + Number(clock[2]) * 60 + Number(clock[3])
    : pieces(text)
  if (seconds === undefined || Number.isNaN(seconds))
    return {
      ok: false,
      empty: false,
      says: 'Type a time such as 95, 1:35 or 1 min 35 s; a bare number is seconds.',
    }
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

/** A time as it is typed: seconds below a minute, then as a stopwatch shows it. Read again it is the same, to a millisecond. */
export function writeDuration(seconds: number): string {
  const whole = Math.round(seconds * 1000) / 1000
  if (whole < 60) return String(whole)
  if (whole % 3600 === 0) return `${whole / 3600} h`
  const [hours, minutes] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60)]
  const rest = Math.round((whole % 60) * 1000) / 1000
  const two = (value: number) => (value < 10 ? `0${value}` : String(value))
  return hours > 0 ? `${hours}:${two(minutes)}:${two(rest)}` : `${minutes}:${two(rest)}`
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
