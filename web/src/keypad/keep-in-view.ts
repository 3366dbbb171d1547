/** Room round what is kept in view, in px. */
const ROOM = 8

/** What belongs to a field: its answer, and the drawing beside it. */
const BESIDE = ['[data-testid="answer"]', 'main svg[role="img"]']

/**
 * Scrolls the page so that a field stands in what the keypad leaves of the window, and with it its answer and its drawing, as far as
 * there is room for them.
 */
export function keepInView(field: HTMLElement) {
  const keys = document.querySelector('[data-keypad]')?.getBoundingClientRect()
  const bottom =
    (keys && document.documentElement.classList.contains('keys-bottom') ? keys.top : window.innerHeight) -
    ROOM
  let { top: from, bottom: to } = field.getBoundingClientRect()
  for (const selector of BESIDE) {
    const box = document.querySelector(selector)?.getBoundingClientRect()
    if (!box || box.height === 0) continue
    const [top, end] = [Math.min(from, box.top), Math.max(to, box.bottom)]
    // Where all of it has no room, the field goes first, then its answer.
    if (end - top > bottom - ROOM) continue
    from = top
    to = end
  }
  const by = to > bottom ? to - bottom : from < ROOM ? from - ROOM : 0
  if (by !== 0) window.scrollBy({ top: by })
}
