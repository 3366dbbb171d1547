type TextField = HTMLInputElement | HTMLTextAreaElement

/** Gives a field a value as if it had been typed, past the framework that holds it. */
export function giveValue(field: TextField, value: string, cursor: number, typed: string | null) {
  const kind = field instanceof HTMLInputElement ? HTMLInputElement : HTMLTextAreaElement
  Object.getOwnPropertyDescriptor(kind.prototype, 'value')?.set?.call(field, value)
  field.setSelectionRange(cursor, cursor)
  const inputType = typed === null ? 'deleteContentBackward' : 'insertText'
  field.dispatchEvent(new InputEvent('input', { bubbles: true, inputType, data: typed }))
}

/** Puts a text where the cursor stands, in the place of what is marked. */
export function typeInto(field: TextField, text: string) {
  const [from, to] = [field.selectionStart ?? field.value.length, field.selectionEnd ?? field.value.length]
  const value = field.value.slice(0, from) + text + field.value.slice(to)
  giveValue(field, value, from + text.length, text)
}

/** Takes away what is marked, or else what stands before the cursor. */
export function eraseIn(field: TextField) {
  const [from, to] = [field.selectionStart ?? field.value.length, field.selectionEnd ?? field.value.length]
  const begin = from === to ? Math.max(0, from - 1) : from
  giveValue(field, field.value.slice(0, begin) + field.value.slice(to), begin, null)
}
