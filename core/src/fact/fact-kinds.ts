/**
 * The kinds of fact that something can reach and make stale at once; what depends on them follows. One list for all rooms: who makes
 * something stale need not know who states it.
 */
export const FACT_KINDS = [
  'offset-X',
  'offset-Y',
  'offset-Z',
  /** The rotary's own, whatever its word is. */
  'offset-A',
  'centre-line',
  'work-shift',
  'squareness',
  'upright',
  'clearance',
  'grip',
  'lengths',
  'hold-check',
  'stop-check',
  'tool-length',
  'angle',
  'part',
  'layout',
  'start-check',
] as const
export type FactKind = (typeof FACT_KINDS)[number]

/** X, Y and Z of an offset. */
export const ALL_AXES = ['offset-X', 'offset-Y', 'offset-Z'] as const satisfies readonly FactKind[]
