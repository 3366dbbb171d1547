import { z } from 'zod'
import { ALL_AXES, FACT_KINDS, type FactKind } from '../fact/index.ts'
import type { MachineKind } from '../machine/index.ts'

/** What can happen to a setup that makes earlier facts stale. */
export const happeningKind = z.enum([
  'vise-moved',
  'bolt-tightened',
  'collet-changed',
  'part-reclamped',
  'alarm',
  'homed-again',
  'tool-measured-again',
  'rotary-homed',
  'rotary-moved',
  'set-up-again',
])
export type HappeningKind = z.infer<typeof happeningKind>

export interface Happening {
  title: string
  /** Follows 'before': 'taken before the vise was moved'. */
  past: string
  /** What goes stale at once. */
  reaches: readonly FactKind[]
  /** Only facts that used the tool named in the entry. */
  onlyItsTool: boolean
  /** The machines that it can happen on. */
  on: readonly MachineKind[]
  /** Only where there is a rotary. */
  rotary: boolean
  /** Whether it puts the part of a lathe elsewhere and leaves its tools as they are. */
  movesPart: boolean
  /** Whether the lines of the ready list that are due after an alarm are due again. */
  alarm: boolean
  /** Said by a person; what is not is written when a job is set up again. */
  said: boolean
  explains: string
}

const BOTH: readonly MachineKind[] = ['mill', 'lathe']
const usual = { onlyItsTool: false, movesPart: false, alarm: false, said: true, on: BOTH, rotary: false }

/** The table of what makes what stale. Checks and programs are not in it: they go stale with what they rest on. */
export const HAPPENINGS: Record<HappeningKind, Happening> = {
  'vise-moved': {
    ...usual,
    title: 'Vise moved',
    past: 'the vise was moved',
    reaches: [...ALL_AXES, 'angle', 'squareness', 'upright', 'clearance', 'layout'],
    on: ['mill'],
    explains: 'It is not known to be square or to clear, and every zero taken from it no longer holds.',
  },
  'bolt-tightened': {
    ...usual,
    title: 'A bolt of the vise tightened',
    past: 'a bolt of the vise was tightened',
    reaches: ['offset-X', 'offset-Y', 'angle', 'squareness'],
    on: ['mill'],
    explains: 'Tightening moves vises: sweep the jaw again. X and Y no longer hold; Z and the clearance do.',
  },
  'collet-changed': {
    ...usual,
    title: 'Collet or jaws changed',
    past: 'the collet was changed',
    movesPart: true,
    reaches: ['offset-Z', 'work-shift', 'grip', 'lengths', 'hold-check', 'stop-check', 'layout'],
    on: ['lathe'],
    explains:
      'The grip, its ratio and its checks are those of the old one, and Z is where the part no longer is: a work shift by one tool brings all of them back.',
  },
  'part-reclamped': {
    ...usual,
    title: 'Part clamped again',
    past: 'the part was clamped again',
    movesPart: true,
    reaches: [...ALL_AXES, 'offset-A', 'work-shift', 'angle', 'part', 'layout'],
    explains:
      'The part sits elsewhere by an unknown amount: X, Y, Z and the angles of all offsets. The vise, the collet and a rotary’s centre line stay as they are.',
  },
  alarm: {
    ...usual,
    title: 'Alarm, cleared without homing',
    past: 'the alarm',
    reaches: ['start-check'],
    alarm: true,
    explains:
      'The axes kept their positions: the zeros hold. The walk-round and what follows an alarm are due again.',
  },
  'homed-again': {
    ...usual,
    title: 'Homed again after an alarm or a crash',
    past: 'the machine was homed again',
    reaches: [...ALL_AXES, 'offset-A', 'centre-line', 'work-shift', 'start-check'],
    alarm: true,
    explains: 'All machine positions refer to home: every axis of all offsets. The walk-round is due again.',
  },
  'rotary-homed': {
    ...usual,
    title: 'Rotary homed, or its power was off',
    past: 'the rotary was homed',
    reaches: ['offset-A'],
    on: ['mill'],
    rotary: true,
    explains: 'Its angle counts from home: that of all offsets. X, Y, Z and the centre line hold.',
  },
  'rotary-moved': {
    ...usual,
    title: 'Rotary or tailstock moved on the table',
    past: 'the rotary was moved',
    reaches: [...ALL_AXES, 'offset-A', 'centre-line', 'layout'],
    on: ['mill'],
    rotary: true,
    explains: 'The centre line lies elsewhere, and so does every part that it holds.',
  },
  'tool-measured-again': {
    ...usual,
    title: 'Tool length measured again',
    past: 'its tool was measured again',
    reaches: ['offset-Z', 'tool-length'],
    onlyItsTool: true,
    explains: 'Its old length and a Z that was found with it no longer hold. X and Y do.',
  },
  'set-up-again': {
    ...usual,
    said: false,
    title: 'Job set up again',
    past: 'the job was set up again',
    // All that was measured on the job; a tool keeps its length from one to the next.
    reaches: FACT_KINDS.filter((kind) => kind !== 'tool-length'),
    explains: 'What was measured is as it was the last time: it must be measured again.',
  },
}
