import type { LengthUnit } from '../quantity/index.ts'
import { switchOn } from './act.ts'
import type { SimulatedMill } from './contact.ts'
import { practiceTools } from './practice-tools.ts'
import { millWorld, practiceMachine, type WorldOptions } from './world.ts'

export const UNITS: readonly LengthUnit[] = ['inch', 'mm']

/** A mill of the practice kind with its tools, for tests. */
export const millOf = (seed: number, unit: LengthUnit, more: Partial<WorldOptions> = {}): SimulatedMill =>
  switchOn(
    millWorld(seed, {
      machine: practiceMachine('mill', unit),
      tools: practiceTools('mill', unit),
      ...more,
    }),
  ) as SimulatedMill
