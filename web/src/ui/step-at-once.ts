import type { KeyboardEvent } from 'react'

const TO: Record<string, (at: number, count: number) => number> = {
  ArrowLeft: (at, count) => (at + count - 1) % count,
  ArrowRight: (at, count) => (at + 1) % count,
  Home: () => 0,
  End: (_, count) => count - 1,
}

/**
 * Left and right arrow, Home and End in a row of tabs or of radio buttons go on before the key comes up again.
 * The library goes on in a timer of its own, and chooses only while the key is still down: on a page that is
 * busy, a key that is pressed and let go moved the mark and chose nothing.
 */
export function stepAtOnce(event: KeyboardEvent<HTMLElement>) {
  const to = TO[event.key]
  const from = event.target as HTMLElement
  const role = from.getAttribute('role')
  if (!to || (role !== 'radio' && role !== 'tab')) return
  if (event.ctrlKey || event.altKey || event.metaKey || event.shiftKey) return
  const row = [...event.currentTarget.querySelectorAll<HTMLElement>(`[role="${role}"]:not(:disabled)`)]
  const next = row[to(row.indexOf(from), row.length)]
  // Said to be dealt with: the library keeps its hands off.
  event.preventDefault()
  next?.focus()
  // A tab that is focused is shown; a radio button is chosen by a press.
  if (role === 'radio') next?.click()
}
