import { deriveSetup, isUnreadable, type Reference, type StepState } from './derive.ts'
import type { Entry } from './entries.ts'
import { nextFor } from './next.ts'

/** A setup at a glance, for the list. */
export interface SetupSummary {
  id: string
  title: string
  machine: string
  zero: StepState
  /** What to do next, or why the log cannot be shown. */
  next: string
  lastAt: string
}

/** Summarises a setup from its log; one that cannot be read says so instead of vanishing from the list. */
export function summarise(id: string, entries: readonly Entry[], reference: Reference): SetupSummary {
  const setup = deriveSetup(entries, reference)
  const lastAt = setup.log.at(-1)?.entry.at ?? ''
  if (isUnreadable(setup))
    return {
      id,
      title: id,
      machine: '',
      zero: 'open',
      next: setup.unreadable,
      lastAt,
    }
  const offset =
    setup.offsets.find(({ state }) => state === 'stale') ??
    setup.offsets.find(({ state }) => state === 'open') ??
    setup.offsets[0]
  const next = offset ? nextFor(offset) : undefined
  return {
    id,
    title: setup.opened.title,
    machine: setup.machine.name,
    zero: setup.zero,
    next: next?.says ?? '',
    lastAt,
  }
}
