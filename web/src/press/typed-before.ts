import type { LengthUnit } from '@dogleg/core/quantity'
import { storage } from '../log/storage.ts'

/** What stood in a field of a setup. */
export interface TypedBefore {
  setup: string
  title: string
  text: string
}

/** A setup as its fields are typed in; its machine and its unit so that no number is ever offered on another one, or in another. */
export interface TypedIn {
  id: string
  title: string
  machine: string
  unit: LengthUnit
}

const PREFIX = 'dogleg.typed.'
/** Of each field so many texts are kept, the newest first, and so many fields. */
const MOST_TEXTS = 4
const MOST_FIELDS = 200
const MOST_CHARACTERS = 80

let open: TypedIn | undefined
/** Says which setup is open on this page; undefined when it is closed. */
export function typesIn(setup: TypedIn | undefined) {
  open = setup
}

const labelOf = (field: HTMLElement) =>
  (field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement
    ? field.labels?.[0]?.textContent
    : undefined) ??
  field.getAttribute('aria-label') ??
  ''

/** The name of a field that is the same in every setup in a unit on a machine: its step, the tabs over it, and its own. */
function nameOf(field: HTMLElement, { machine, unit }: TypedIn): string {
  const step = /\/setups\/[^/]+\/([^/?]+)/.exec(window.location.pathname)?.[1] ?? ''
  const tabs = [...document.querySelectorAll<HTMLElement>('main [role=tab][aria-selected=true]')].map(
    ({ id }) => /-trigger-(.*)$/.exec(id)?.[1] ?? '',
  )
  const own = field.closest<HTMLElement>('[data-field]')?.dataset.field ?? labelOf(field)
  return [machine, unit, step, ...tabs, own].join('|')
}

const isText = (each: unknown): each is TypedBefore =>
  typeof each === 'object' &&
  each !== null &&
  ['setup', 'title', 'text'].every((name) => typeof (each as Record<string, unknown>)[name] === 'string')

/** What is kept under a name, as far as it is what it should be. */
function listOf<T>(name: string, is: (each: unknown) => each is T): T[] {
  try {
    const kept: unknown = JSON.parse(storage.get(PREFIX + name) ?? '[]')
    return Array.isArray(kept) ? kept.filter(is) : []
  } catch {
    return []
  }
}
const read = (name: string) => listOf(name, isText)

/** The fields of which something is kept, the last that was left first. */
const order = () => listOf('order', (each) => typeof each === 'string')

/** Keeps it where there is room; it is a convenience, and what waits to be sent goes before it. */
function keep(name: string, value: unknown) {
  if (!storage.set(PREFIX + name, JSON.stringify(value))) storage.remove(PREFIX + name)
}

/** Forgets all of it: on a tablet that is shut out. */
export function forgetTyped() {
  for (const key of storage.keys(PREFIX)) storage.remove(key)
}

/** Remembers what stands in a field of the open setup once it is left. The fields that were left longest ago are forgotten. */
export function rememberTyped(field: HTMLInputElement | HTMLTextAreaElement) {
  const text = field.value.trim()
  if (!open || text === '' || text.length > MOST_CHARACTERS || field.type === 'password') return
  const name = nameOf(field, open)
  const before = read(name).filter((each) => each.setup !== open?.id || each.text !== text)
  const kept = [{ setup: open.id, title: open.title, text }, ...before].slice(0, MOST_TEXTS)
  keep(name, kept)
  const fields = order().filter((each) => each !== name)
  for (const old of fields.slice(MOST_FIELDS - 1)) storage.remove(PREFIX + old)
  keep('order', [name, ...fields.slice(0, MOST_FIELDS - 1)])
}

/** What a field had before: in this setup, and in the last other setup on the machine; each only where it is another text. */
export function typedBefore(field: HTMLInputElement | HTMLTextAreaElement): {
  here?: TypedBefore
  last?: TypedBefore
} {
  if (!open) return {}
  const now = field.value.trim()
  const others = read(nameOf(field, open)).filter(({ text }) => text !== now)
  const here = others.find(({ setup }) => setup === open?.id)
  const last = others.find(({ setup }) => setup !== open?.id)
  return { ...(here ? { here } : {}), ...(last ? { last } : {}) }
}
