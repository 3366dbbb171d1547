import { axesOf, type LinearAxis, type Machine } from '../machine/index.ts'
import { convertLength, type LengthUnit } from '../quantity/index.ts'

export const RUNS = ['setting-up', 'first-run', 'proven'] as const
/** What is about to be done at the machine. */
export type Run = (typeof RUNS)[number]

export interface OverrideAdvice {
  /** Rapid override to set, per cent. */
  rapid: number
  singleBlock: boolean
  says: string[]
  /** How far the fastest axis goes in one second at that override, in the unit asked for; undefined where rapids are not known. */
  inOneSecond?: { axis: LinearAxis; length: number }
}

const ADVICE: Record<Run, Omit<OverrideAdvice, 'inOneSecond'>> = {
  'setting-up': {
    rapid: 25,
    singleBlock: false,
    says: ['Jog in small steps near the work.', 'Never reach in with the spindle turning.'],
  },
  'first-run': {
    rapid: 5,
    singleBlock: true,
    says: [
      'A hand on feed hold; compare the distance to go with what you see before each press.',
      'Door closed, interlocks on.',
    ],
  },
  proven: {
    rapid: 100,
    singleBlock: false,
    says: [
      'Bring it up in steps: 25, 50, 100.',
      'Back to 5 % with single block after any change of tool, offset or program.',
    ],
  },
}

/**
 * What to set the overrides to for what is about to be done (common practice: 25 % while setting up, 5 % with single
 * block on a first run), and what that means on this machine.
 */
export function overrideAdvice(run: Run, machine: Machine, unit: LengthUnit): OverrideAdvice {
  const advice = ADVICE[run]
  const { rapids } = machine
  if (!rapids) return advice
  // What the slide does, where X is said of the diameter.
  const slide = (axis: LinearAxis) => (axis === 'X' && machine.xSpeeds === 'diameter' ? 0.5 : 1)
  const speed = (axis: LinearAxis) => (rapids[axis] ?? 0) * slide(axis)
  const fastest = axesOf(machine).reduce((best, axis) => (speed(axis) > speed(best) ? axis : best))
  const perSecond = (speed(fastest) * advice.rapid) / 100 / 60
  return { ...advice, inOneSecond: { axis: fastest, length: convertLength(perSecond, machine.unit, unit) } }
}
