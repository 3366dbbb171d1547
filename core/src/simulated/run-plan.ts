import type { Motion, OffsetWritten, Program, VariableSet } from '../program/index.ts'
import type { MachineSpeeds } from '../timing/index.ts'

/** A program as this machine will really run it: what the control commands, and where the tool then goes. */
export interface RunPlan {
  text: string
  program: Program
  /** Rows as the control commands them; seconds of each at full speed. */
  motion: Motion
  seconds: Float32Array
  speeds: MachineSpeeds
  /** The first collision of each row that has one: how far along it, and what meets what. */
  hits: ReadonlyMap<number, { share: number; says: string }>
  /** What its blocks write into offsets and variables, by block. */
  written: ReadonlyMap<number, { offsets: OffsetWritten[]; sets: VariableSet[]; lengths: number[] }>
  /** Where the control shows the rotary when the motion has it at 0, in degrees. */
  rotaryZero: number
  /** Rows that the control refuses before it moves. */
  refused: ReadonlyMap<number, string>
}

type RunPhase = 'ready' | 'running' | 'held' | 'stopped' | 'done'

/** How far a program is. */
export interface ProgramRun {
  phase: RunPhase
  /** The block that runs, or that the next press starts. */
  block: number
  row: number
  /** Seconds of the row that are over, at full speed. */
  into: number
  single: boolean
  rapid: number
  feed: number
  /** Presses of cycle start so far. */
  presses: number
  /** Programs that were loaded so far, this one with them. */
  loads: number
}
