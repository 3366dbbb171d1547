import { decimalPoints } from '@dogleg/core/quantity'
import { useSyncExternalStore } from 'react'
import { listenerSet } from '../log/listeners.ts'
import { storage } from '../log/storage.ts'

const KEY = 'dogleg.decimal-comma'
const { notify, subscribe } = listenerSet()

const isOn = () => storage.get(KEY) === 'on'

/** Whether a comma is a decimal point at this tablet; off until somebody says so. */
export const useDecimalComma = () => useSyncExternalStore(subscribe, isOn)

export function setDecimalComma(on: boolean) {
  storage.set(KEY, on ? 'on' : 'off')
  notify()
}

// Another page on this tablet may have been told.
window.addEventListener('storage', ({ key }) => {
  if (key === KEY || key === null) notify()
})

/** A text from a file or the clipboard as this tablet reads it. */
export const asReadHere = (text: string) => (isOn() ? decimalPoints(text) : text)

/** A field for numbers. */
const numbersOf = (target: EventTarget | null) =>
  (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement) && 'numbers' in target.dataset
    ? target
    : undefined

/** Puts a text where the cursor stands, past the framework that holds the field's value, and tells it as if it had been typed. */
function put(field: HTMLInputElement | HTMLTextAreaElement, text: string) {
  const [from, to] = [field.selectionStart ?? field.value.length, field.selectionEnd ?? field.value.length]
  const value = field.value.slice(0, from) + text + field.value.slice(to)
  const kind = field instanceof HTMLInputElement ? HTMLInputElement : HTMLTextAreaElement
  Object.getOwnPropertyDescriptor(kind.prototype, 'value')?.set?.call(field, value)
  field.setSelectionRange(from + text.length, from + text.length)
  field.dispatchEvent(new InputEvent('input', { bubbles: true, inputType: 'insertText', data: text }))
}

/**
 * Where the tablet is told so, a comma that is typed into a field for numbers becomes a point, and so do those of a table that
 * is pasted: everybody sees what is meant before it is read. Returns how to stop it.
 */
export function watchDecimalComma(page: Document = document): () => void {
  const typed = (event: InputEvent) => {
    const field = numbersOf(event.target)
    if (!isOn() || !field || event.inputType !== 'insertText' || event.data !== ',') return
    event.preventDefault()
    put(field, '.')
  }
  const pasted = (event: ClipboardEvent) => {
    const field = numbersOf(event.target)
    const text = event.clipboardData?.getData('text') ?? ''
    if (!isOn() || !field || decimalPoints(text) === text) return
    event.preventDefault()
    put(field, decimalPoints(text))
  }
  page.addEventListener('beforeinput', typed)
  page.addEventListener('paste', pasted)
  return () => {
    page.removeEventListener('beforeinput', typed)
    page.removeEventListener('paste', pasted)
  }
}
