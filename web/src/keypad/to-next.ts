/** Goes to the next field of the form as Enter does; where the form has no way of its own, to the next field for numbers after it. */
export function toNext(field: HTMLElement) {
  const enter = new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true })
  // In a list Enter is a new line: it is left.
  if (!(field instanceof HTMLTextAreaElement)) field.dispatchEvent(enter)
  if (document.activeElement !== field) return
  const round = field.closest('form, [role=dialog], main') ?? document.body
  const all = [...round.querySelectorAll<HTMLElement>('[data-numbers], button[data-record]')].filter(
    (each) => each.checkVisibility() && !(each instanceof HTMLButtonElement && each.disabled),
  )
  const next = all[all.indexOf(field) + 1]
  if (next) next.focus()
  else field.blur()
}
