import type { Probing } from '../control/index.ts'
import type { SpindleDirection } from './motion.ts'

/** What a probe macro does, by the name that the profile has for its number. */
export type ProbeMacro = Exclude<keyof Probing, 'results' | 'feed' | 'furtherBase' | 'furtherStep' | 'note'>

/** A call of a probe macro, as it ran. */
export interface ProbeCallRun {
  line: number
  macro: ProbeMacro
  /** What was in the spindle, and how that turned. */
  tool: number
  turning: SpindleDirection
  /** Whether the probe had been switched on. */
  on: boolean
  /** Rows of the motion that it made: from the first up to before the last. */
  rows: readonly [number, number]
  /** How far past the surface it goes at most, in the setup's unit; of a call that measures. */
  over?: number
  /** The variables that it leaves results in. */
  results: readonly number[]
}

/** A result variable that was read by a statement or a word. */
export interface ResultRead {
  line: number
  variable: number
  /** The look-ahead was held back. */
  held: boolean
  /** Index of the last call that measured before it; -1 where there was none. */
  call: number
}

export interface Probed {
  calls: ProbeCallRun[]
  reads: ResultRead[]
}

/** What stopped a program before its end. */
export interface Alarm {
  line: number
  says: string
  /** Of the program's own statement; undefined where a macro of the probe stopped it. */
  number?: number
}

/** Calls and reads beyond these are not kept. */
export const MOST_PROBED = 20_000
