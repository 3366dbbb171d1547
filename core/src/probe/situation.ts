import type { LinearAxis, Machine, ProbeShape } from '../machine/index.ts'
import type { LengthUnit } from '../quantity/index.ts'

/** The machine, its probe and what is known before a program of it is written. */
export interface ProbeSituation {
  machine: Machine
  /** In the setup's unit. */
  shape: ProbeShape
  unit: LengthUnit
  offset: string
  /** What is known of the offset so far, machine positions; it may be old, it need only be near. */
  near: Partial<Record<LinearAxis, number>>
  /** The vise that was chosen, and how far it opens. */
  jaws?: { name: string; opening: number }
}
