import type { Machine } from '../machine/index.ts'

/** The steps of the traveler, in the order in which people work. */
export const STEPS = ['ready', 'hold', 'zero', 'angle', 'code', 'prove', 'run', 'hand-over'] as const
export type Step = (typeof STEPS)[number]

export const STEP_NAMES: Record<Step, string> = {
  ready: 'Ready',
  hold: 'Hold',
  zero: 'Zero',
  angle: 'Angle',
  code: 'Code',
  prove: 'Prove',
  run: 'Run',
  'hand-over': 'Hand over',
}

export type StepState = 'open' | 'done' | 'stale'

/** The steps that there are for a machine. */
export const stepsOf = ({ kind }: Machine): readonly Step[] =>
  kind === 'mill' ? STEPS : STEPS.filter((step) => step !== 'angle')
