import type { Motion } from '../program/index.ts'

/** Tool lengths as a proof knows them; one that is stale is as unknown as one that nobody measured. */
export type KnownLengths = readonly { tool: number; stale?: string }[]

/** What of a row's heights rests on a length that is not known. */
export interface Unmeasured {
  tool: number
  /** How far Z goes: the length comes into force in this row, or ceases to be. */
  toGo: boolean
  /** Where the tip stands before it, and after it: the length is not in force there. */
  before: boolean
  after: boolean
}

const stateOf = ({ states, state }: Motion, row: number) => states[state[Math.max(0, row)] as number]

/**
 * What of a row's heights an unknown tool length leaves unknown; undefined where the length is known, or nothing rests on it. Where the
 * length is in force the tip is taken to be where the program says; where it is not, the tip is a tool's length under the spindle nose.
 */
export function unmeasured(motion: Motion, row: number, lengths: KnownLengths): Unmeasured | undefined {
  const now = stateOf(motion, row)
  if (!now || now.tool === 0) return undefined
  const { tool } = now
  if (lengths.some((each) => each.tool === tool && each.stale === undefined)) return undefined
  const before = row > 0 ? stateOf(motion, row - 1)?.length === null : true
  const after = now.length === null
  return before || after ? { tool, toGo: before !== after, before, after } : undefined
}
