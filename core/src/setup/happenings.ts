import { z } from 'zod'

/** What can happen to a setup that makes earlier facts stale. */
export const happeningKind = z.enum(['vise-moved', 'part-reclamped', 'homed-again', 'tool-measured-again'])
export type HappeningKind = z.infer<typeof happeningKind>

/** The kinds of fact that a happening can reach directly; what rests on them follows by its basis. */
export type FactKind = 'offset-X' | 'offset-Y' | 'offset-Z'

export interface Happening {
  title: string
  /** Follows 'before': 'taken before the vise was moved'. */
  past: string
  /** What goes stale at once. */
  reaches: readonly FactKind[]
  /** Only facts that used the tool named in the entry. */
  onlyItsTool: boolean
  explains: string
}

const ALL_AXES: readonly FactKind[] = ['offset-X', 'offset-Y', 'offset-Z']

/** The table of what makes what stale. Checks and programs are not in it: they go stale with the pickups that they rest on. */
export const HAPPENINGS: Record<HappeningKind, Happening> = {
  'vise-moved': {
    title: 'Vise moved or tightened again',
    past: 'the vise was moved',
    reaches: ALL_AXES,
    onlyItsTool: false,
    explains: 'Every zero taken from it no longer holds: X, Y and Z of all offsets.',
  },
  'part-reclamped': {
    title: 'Part clamped again',
    past: 'the part was clamped again',
    reaches: ALL_AXES,
    onlyItsTool: false,
    explains: 'The part sits elsewhere by an unknown amount: X, Y and Z of all offsets.',
  },
  'homed-again': {
    title: 'Homed again after an alarm or a crash',
    past: 'the machine was homed again',
    reaches: ALL_AXES,
    onlyItsTool: false,
    explains: 'All machine positions refer to home: X, Y and Z of all offsets.',
  },
  'tool-measured-again': {
    title: 'Tool length measured again',
    past: 'its tool was measured again',
    reaches: ['offset-Z'],
    onlyItsTool: true,
    explains: 'A Z that was found with the old length no longer holds. X and Y do.',
  },
}
