import { useSyncExternalStore } from 'react'
import { listenerSet } from '../log/listeners.ts'
import { storage } from '../log/storage.ts'

/** What somebody has set at this tablet, each one of a few; the first is what stands until then. */
const CHOICES = {
  /** When keys for numbers come: by themselves where a finger points, always, or never. */
  keypad: ['fingers', 'always', 'never'],
  /** How large words and keys are. */
  size: ['usual', 'large'],
  ground: ['day', 'night', 'system'],
  awake: ['on', 'off'],
  sound: ['off', 'on'],
  buzz: ['off', 'on'],
} as const
export type ChoiceName = keyof typeof CHOICES
export type Chosen<Name extends ChoiceName> = (typeof CHOICES)[Name][number]

const keyOf = (name: ChoiceName) => `dogleg.${name}`
const { notify, subscribe } = listenerSet()

export function chosen<Name extends ChoiceName>(name: Name): Chosen<Name> {
  const kept = storage.get(keyOf(name))
  const all: readonly Chosen<Name>[] = CHOICES[name]
  return all.find((each) => each === kept) ?? (all[0] as Chosen<Name>)
}

export function choose<Name extends ChoiceName>(name: Name, value: Chosen<Name>) {
  storage.set(keyOf(name), value)
  notify()
}

// Another page on this tablet may have been told.
window.addEventListener('storage', notify)

export const useChosen = <Name extends ChoiceName>(name: Name) =>
  useSyncExternalStore(subscribe, () => chosen(name))
export const whenChosen = subscribe
