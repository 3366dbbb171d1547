import type { LengthUnit } from '../quantity/index.ts'
import type { Doubt } from './doubt.ts'

/** One line of arithmetic with the numbers put in, so that it can be followed with a pencil. */
export interface WorkingLine {
  /** What the line finds: 'face'. */
  finds: string
  /** The arithmetic: '-14.2312 + 0.2000 / 2'. */
  arithmetic: string
  /** What the arithmetic does, where the numbers alone do not say: 'face less its place on the drawing'. */
  means?: string
  /** The result, formatted: '-14.1312'. */
  gives: string
}

/** What made a fact stale: the entry, its time (ISO 8601), and words that a time can follow ('taken before the vise was moved'). */
export interface StaleCause {
  entryId: string
  at: string
  says: string
  /** What all that reached it did, where that is one and the same: 'part-moved'. */
  all?: string
}

export type Freshness = { state: 'fresh' } | { state: 'stale'; cause: StaleCause }

/** A computed value with its working and doubt, before the log says what it rests on. `value` and `doubt` are in `unit`. */
export interface Answer<T> {
  value: T
  unit: LengthUnit
  working: WorkingLine[]
  doubt: Doubt
}

/** An answer with its place in the chain: the ids of the entries that it was computed from, and whether it still holds. */
export interface Fact<T> extends Answer<T> {
  basis: string[]
  freshness: Freshness
}

/** What follows the name of something stale: 'was taken before the vise was moved', 'rests on X as it was before'. */
export const howStale = ({ says }: Pick<StaleCause, 'says'>) =>
  says.startsWith('rests ') ? says : `was ${says}`
