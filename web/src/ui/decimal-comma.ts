import { decimalPoints } from '@dogleg/core/quantity'
import { useSyncExternalStore } from 'react'
import { listenerSet } from '../log/listeners.ts'
import { storage } from '../log/storage.ts'
import { typeInto } from './type-into.ts'

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

/**
 * Where the tablet is told so, a comma that is typed into a field for numbers becomes a point, and so do those of a table that
 * is pasted: everybody sees what is meant before it is read. Returns how to stop it.
 */
export function watchDecimalComma(page: Document = document): () => void {
  const typed = (event: InputEvent) => {
    const field = numbersOf(event.target)
    if (!isOn() || !field || event.inputType !== 'insertText' || event.data !== ',') return
    event.preventDefault()
    typeInto(field, '.')
  }
  const pasted = (event: ClipboardEvent) => {
    const field = numbersOf(event.target)
    const text = event.clipboardData?.getData('text') ?? ''
    if (!isOn() || !field || decimalPoints(text) === text) return
    event.preventDefault()
    typeInto(field, decimalPoints(text))
  }
  page.addEventListener('beforeinput', typed)
  page.addEventListener('paste', pasted)
  return () => {
    page.removeEventListener('beforeinput', typed)
    page.removeEventListener('paste', pasted)
  }
}
