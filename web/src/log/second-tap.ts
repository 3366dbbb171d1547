import { SETTLE_MS, sinceRecorded } from './settled.ts'

/** Taps that lie within so many pixels of each other are on one place: the width of a finger. */
const FINGER_PX = 40

interface Tap {
  key: Element
  says: string
  x: number
  y: number
}

const keyOf = ({ target }: Event) =>
  target instanceof Element ? target.closest('button, a, summary, [role="button"]') : null

/** Whether Enter is a new line where it is typed, and may be held down. */
const takesLines = ({ target }: Event) =>
  target instanceof HTMLTextAreaElement || (target instanceof HTMLElement && target.isContentEditable)

/**
 * Keys often follow each other in one place: what was recorded gives way to what is to be recorded next. Lets nothing come of a
 * second tap that was meant for the key before: within a second of a recording, in the same place, on another key or on one that
 * says something else by now, with nothing typed between them. Nor of Enter that is held down, which would press one key after the other. Returns what ends it.
 */
export function watchSecondTap(): () => void {
  let last: Tap | undefined
  const onClick = (event: MouseEvent) => {
    // A click that no pointer made, as of Enter, has no place.
    if (event.detail === 0) return
    const key = keyOf(event)
    if (!key) return
    const now: Tap = { key, says: key.textContent ?? '', x: event.clientX, y: event.clientY }
    const isOther = last && (last.key !== now.key || last.says !== now.says)
    if (
      last &&
      isOther &&
      sinceRecorded() < SETTLE_MS &&
      Math.hypot(last.x - now.x, last.y - now.y) < FINGER_PX
    ) {
      event.preventDefault()
      event.stopPropagation()
      return
    }
    last = now
  }
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || !event.repeat || takesLines(event)) return
    event.preventDefault()
    event.stopPropagation()
  }
  // What is typed between two taps was meant: the second is no slip.
  const onInput = () => {
    last = undefined
  }
  document.addEventListener('click', onClick, true)
  document.addEventListener('input', onInput, true)
  document.addEventListener('keydown', onKeyDown, true)
  return () => {
    document.removeEventListener('click', onClick, true)
    document.removeEventListener('input', onInput, true)
    document.removeEventListener('keydown', onKeyDown, true)
  }
}
