import type { Machine, ToolShape } from '../machine/index.ts'
import type { ModalState, Motion } from '../program/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import type { ProgramFinding } from './program-finding.ts'

/** What is known of the setup that a program is proved for. */
export interface SetupFacts {
  machine: Machine
  unit: LengthUnit
  /** Offsets that are known, by name; what they are stale for, in words. */
  offsets: ReadonlyMap<string, { stale?: string }>
  lengths: ReadonlyMap<number, { stale?: string }>
  tools: ReadonlyMap<number, ToolShape>
  /** Top of the part, where it is placed. */
  top?: number
  /** A part that lies along X: its radius, and where its axis is in Y. */
  lying?: { radius: number; axisY: number }
  /** Where the machine shows the rotary at 0 of the main offset, in degrees, where it was taken. */
  rotaryZero?: number
}

/** A motion that is gone through row by row, and what was found in it. */
export interface Walk {
  motion: Motion
  facts: SetupFacts
  lineAt: (line: number) => string
  found: ProgramFinding[]
  said: Set<string>
}

export const stateAt = ({ motion }: Walk, row: number) =>
  motion.states[motion.state[row] as number] as ModalState

/** Says something once. */
export function say(walk: Walk, once: string, finding: () => ProgramFinding): void {
  if (walk.said.has(once)) return
  walk.said.add(once)
  walk.found.push(finding())
}

/** Where a word stands in a line, if it does. */
export function wordIn(
  walk: Walk,
  line: number,
  word: RegExp,
): { from: number; to: number; text: string } | undefined {
  const found = word.exec(walk.lineAt(line).replace(/\([^)]*\)/g, (comment) => ' '.repeat(comment.length)))
  return found ? { from: found.index, to: found.index + found[0].length, text: found[0] } : undefined
}
