import { useSyncExternalStore } from 'react'
import { listenerSet } from '../log/listeners.ts'
import { CLICK_MS } from '../ui/finger.ts'
import { rememberTyped } from './typed-before.ts'

/** A finger that rests so long on a value asks what can be done with it, in ms; moved by more than so many px it scrolls. */
const HOLD_MS = 550
/** A page that was held up looks so long whether the finger was lifted meanwhile. */
const LOOK_AGAIN_MS = 60
const STILL_PX = 10

type Field = HTMLInputElement | HTMLTextAreaElement

/** A value that somebody rests a finger on: a field for numbers, or a number that is shown. */
export interface PressedValue {
  element: HTMLElement
  text: string
  field?: Field
  /** Of a number that is shown: from what it was computed, as it was typed. */
  typed?: string
}

const { notify, subscribe } = listenerSet()
let pressed: PressedValue | undefined
export const usePressedValue = () => useSyncExternalStore(subscribe, () => pressed)

function show(next: PressedValue | undefined) {
  pressed = next
  notify()
}
export const letGoOfValue = () => show(undefined)

const isField = (element: Element): element is Field =>
  element instanceof HTMLInputElement || element instanceof HTMLTextAreaElement

/** The value that something on the page belongs to; in a dialog, which nothing may lie beside, the keypad's own keys do the same. */
function valueAt(target: EventTarget | null): PressedValue | undefined {
  if (!(target instanceof Element) || target.closest('[role=dialog]')) return undefined
  const field = target.closest('[data-numbers]')
  if (field && isField(field)) return { element: field, text: field.value, field }
  const shown = target.closest<HTMLElement>('[data-value]')
  if (!shown) return undefined
  const { value, typed } = shown.dataset
  return { element: shown, text: value || (shown.textContent ?? '').trim(), ...(typed ? { typed } : {}) }
}

/**
 * Watches for fingers that rest on a value, and for the keyboard's menu key in a field for numbers; remembers what is typed in fields.
 * A mouse keeps the browser's own menu. Returns how to end that.
 */
export function watchValues(): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined
  let from: { x: number; y: number } | undefined
  let finger = false
  let held = false
  const stop = () => {
    clearTimeout(timer)
    timer = undefined
  }
  const down = (event: PointerEvent) => {
    stop()
    held = false
    finger = event.pointerType === 'touch' || event.pointerType === 'pen'
    const value = finger ? valueAt(event.target) : undefined
    if (!value) return
    from = { x: event.clientX, y: event.clientY }
    const rests = () => {
      held = true
      show(valueAt(value.element))
    }
    timer = setTimeout(() => {
      timer = setTimeout(rests, LOOK_AGAIN_MS)
    }, HOLD_MS - LOOK_AGAIN_MS)
  }
  const lifted = () => {
    stop()
    if (held) setTimeout(() => (held = false), CLICK_MS)
  }
  const move = ({ clientX, clientY }: PointerEvent) => {
    if (timer && from && Math.hypot(clientX - from.x, clientY - from.y) > STILL_PX) stop()
  }
  /** What comes after the finger was held is no press: neither the focus nor a click follows it. */
  const raised = (event: TouchEvent) => held && event.preventDefault()
  const click = (event: MouseEvent) => {
    if (!held) return
    held = false
    event.preventDefault()
    event.stopPropagation()
  }
  const menu = (event: MouseEvent) => {
    if (finger && valueAt(event.target)) event.preventDefault()
  }
  const key = (event: KeyboardEvent) => {
    if (event.key !== 'ContextMenu' && !(event.key === 'F10' && event.shiftKey)) return
    const value = valueAt(event.target)
    if (!value?.field) return
    event.preventDefault()
    show(value)
  }
  const left = ({ target }: FocusEvent) => {
    if (target instanceof Element && isField(target) && 'numbers' in target.dataset) rememberTyped(target)
  }
  const watched = [
    ['pointerdown', down],
    ['pointermove', move],
    ['pointerup', lifted],
    ['pointercancel', stop],
    ['click', click],
    ['contextmenu', menu],
    ['keydown', key],
    ['focusout', left],
  ] as const
  for (const [name, then] of watched) document.addEventListener(name, then as EventListener, true)
  document.addEventListener('touchend', raised, { capture: true, passive: false })
  return () => {
    stop()
    for (const [name, then] of watched) document.removeEventListener(name, then as EventListener, true)
    document.removeEventListener('touchend', raised, true)
    letGoOfValue()
  }
}
