import { useSyncExternalStore } from 'react'
import { listenerSet } from '../log/listeners.ts'
import { chosen } from '../tablet/choices.ts'
import { CLICK_MS } from '../ui/finger.ts'

export type NumbersField = HTMLInputElement | HTMLTextAreaElement

const { notify, subscribe } = listenerSet()
const when = () => chosen('keypad')

let field: NumbersField | undefined
/** The keys were put away for this field, or the tablet's own keyboard was asked for. */
let ownKeyboard: NumbersField | undefined
/** The field that the keypad types into; undefined while there is no keypad. */
export const useKeypadField = () => useSyncExternalStore(subscribe, () => field)

function show(next: NumbersField | undefined) {
  if (next === field) return
  field = next
  const { classList } = document.documentElement
  const side = window.innerWidth > window.innerHeight
  classList.toggle('keys-side', next !== undefined && side)
  classList.toggle('keys-bottom', next !== undefined && !side)
  notify()
}

/** Away until another field is come to. */
export function putKeypadAway() {
  ownKeyboard = field
  show(undefined)
}

const numbersIn = (target: EventTarget | null): NumbersField | undefined =>
  (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement) &&
  'numbers' in target.dataset &&
  !target.readOnly
    ? target
    : undefined

export function askForKeyboard() {
  const asked = field
  if (!asked) return
  ownKeyboard = asked
  show(undefined)
  asked.inputMode = ''
  // Only a field that is come to anew brings a keyboard.
  asked.blur()
  asked.focus()
}

/**
 * Brings the keypad to each field for numbers that a finger touches, in the place of the tablet's own keyboard, and takes it away when a
 * real keyboard types. Returns how to end that.
 */
export function watchKeypad(): () => void {
  let byFinger = false
  let down = false
  const wanted = () => when() === 'always' || (when() === 'fingers' && byFinger)
  // The page makes room once the press is over: nothing moves away from under the finger.
  const after = (what: () => void) => setTimeout(what)
  const settle = () => {
    // While it is asked what can be done with a value, nothing moves.
    if (down || !document.hasFocus() || document.querySelector('[data-value-menu]')) return
    const next = numbersIn(document.activeElement)
    if (next !== ownKeyboard) ownKeyboard = undefined
    show(next && wanted() && next !== ownKeyboard ? next : undefined)
  }
  const pointed = (event: PointerEvent) => {
    down = true
    byFinger = event.pointerType === 'touch' || event.pointerType === 'pen'
    const next = numbersIn(event.target)
    // Said before the field has the focus: then no other keyboard comes.
    if (next && wanted() && next !== ownKeyboard) next.inputMode = 'none'
  }
  let waits: ReturnType<typeof setTimeout> | undefined
  const over = () => {
    clearTimeout(waits)
    down = false
    after(settle)
  }
  /** The click of a finger comes a moment after it was lifted: what moved before that would be under another place. */
  const raised = () => {
    if (!byFinger) return over()
    clearTimeout(waits)
    waits = setTimeout(over, CLICK_MS)
  }
  const focus = () => after(settle)
  const typed = (event: KeyboardEvent) => {
    if (!event.isTrusted || event.key.length !== 1) return
    byFinger = false
    if (when() === 'fingers') show(undefined)
  }
  const watched = [
    ['pointerdown', pointed],
    ['pointerup', raised],
    ['pointercancel', over],
    ['focusin', focus],
    ['focusout', focus],
    ['click', over],
    ['keydown', typed],
  ] as const
  for (const [name, then] of watched) document.addEventListener(name, then as EventListener, true)
  return () => {
    clearTimeout(waits)
    for (const [name, then] of watched) document.removeEventListener(name, then as EventListener, true)
    show(undefined)
  }
}
