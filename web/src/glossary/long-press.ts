/** How long a finger rests on a word before it is explained. */
const LONG_MS = 650
/** A finger that goes further than this drags or scrolls. */
const STILL_PX = 10
/** A text longer than this is a paragraph: every word of it would be meant. */
const LONGEST = 160

/** What has a use of its own for a long press: fields, sliders, keys that go on while they are held, drawings that are dragged. */
const OWN_USE = 'input, textarea, select, svg, canvas, [contenteditable], [data-held], [role="dialog"]'

/** The text that a press is on: that of the smallest element round it which has any. */
export function textUnder(target: EventTarget | null): string | undefined {
  if (!(target instanceof Element) || target.closest(OWN_USE)) return undefined
  const text = target.textContent?.trim() ?? ''
  return text !== '' && text.length <= LONGEST ? text : undefined
}

/**
 * Tells the text on which a finger, or the mouse, rests. The press itself then does nothing: the key under it is not pressed. Returns
 * what ends it.
 */
export function watchLongPress(onLong: (text: string) => boolean): () => void {
  let timer = 0
  let from = { x: 0, y: 0 }
  let swallow = false
  const end = () => {
    window.clearTimeout(timer)
    timer = 0
  }
  const onDown = (event: PointerEvent) => {
    end()
    swallow = false
    const text = event.button === 0 ? textUnder(event.target) : undefined
    if (text === undefined) return
    from = { x: event.clientX, y: event.clientY }
    timer = window.setTimeout(() => {
      timer = 0
      if (onLong(text)) swallow = true
    }, LONG_MS)
  }
  const onMove = (event: PointerEvent) => {
    if (timer !== 0 && Math.hypot(event.clientX - from.x, event.clientY - from.y) > STILL_PX) end()
  }
  const onClick = (event: MouseEvent) => {
    // A click that no pointer made, as of Enter, is not the end of this press.
    if (!swallow || event.detail === 0) return
    swallow = false
    event.preventDefault()
    event.stopPropagation()
  }
  document.addEventListener('pointerdown', onDown, true)
  document.addEventListener('pointermove', onMove, true)
  document.addEventListener('pointerup', end, true)
  document.addEventListener('pointercancel', end, true)
  document.addEventListener('click', onClick, true)
  return () => {
    end()
    document.removeEventListener('pointerdown', onDown, true)
    document.removeEventListener('pointermove', onMove, true)
    document.removeEventListener('pointerup', end, true)
    document.removeEventListener('pointercancel', end, true)
    document.removeEventListener('click', onClick, true)
  }
}
