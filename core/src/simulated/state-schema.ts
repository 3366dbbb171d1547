import { z } from 'zod'

// Parts of a simulated machine's state that are seen from outside as they are.

/** What can be put into the spindle to find a face. */
export const finderKind = z.enum(['edge-finder', 'indicator', 'sensor', 'probe'])
export type FinderKind = z.infer<typeof finderKind>

/** Which way the stylus of an indicator looks from the spindle. */
export const looks = z.enum(['X+', 'X-', 'Y+', 'Y-'])
export type Looks = z.infer<typeof looks>

/** A gauge block held against a side of the block, standing up over it: its face gives the plane's other side. */
export const heldAgainst = z.enum(['X-', 'X+', 'Y-', 'Y+'])
export type HeldAgainst = z.infer<typeof heldAgainst>

export const boltState = z.enum(['out', 'snug', 'tight'])
export type BoltState = z.infer<typeof boltState>

export const rotaryWord = z.enum(['A', 'B', 'C'])

export const alarm = z.object({
  code: z.enum(['collision', 'no-contact', 'program', 'spindle']),
  says: z.string(),
  fix: z.string(),
})
export type Alarm = z.infer<typeof alarm>

/** What was done so far that a judge asks about. */
export const tally = z.object({
  collisions: z.number(),
  bumps: z.number(),
  misses: z.number(),
  taps: z.number(),
})
export type Tally = z.infer<typeof tally>
