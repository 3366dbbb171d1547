import { z } from 'zod'

/** What a tablet's own clocks say of an entry. Its wall clock may be off by any amount, and is no part of it. */
export const clockStamp = z.object({
  tablet: z
    .string()
    .regex(/^[0-9A-Za-z]{8,40}$/)
    .describe('which tablet made it'),
  count: z.int().min(1).describe('how many entries that tablet has made, this one included'),
  heard: z.iso
    .datetime({ precision: 3 })
    .optional()
    .describe('the time that the server said last before it was made; nothing where it had said none'),
  steady: z
    .number()
    .min(0)
    .max(1e12)
    .optional()
    .describe('ms since then by a clock that nobody can set; nothing where the page was opened anew since'),
})
export type ClockStamp = z.infer<typeof clockStamp>

/** What the order of a log is told from. Times are ISO 8601, UTC. */
export interface Stamped {
  id: string
  /** The id of the entry that opened the setup. */
  setup: string
  /** When it happened, as far as the tablet knew. */
  at: string
  clock?: ClockStamp | undefined
  /** When the server received it. */
  received?: string | undefined
  /** The latest moment at which it can have been made. */
  latest?: string | undefined
}

/** A quartz clock that is off by more than this is broken: ten times what is usual (100 parts in a million). By judgement. */
const DRIFT = 1e-3
/** A page's clock is told no finer than this where the browser blurs it, in ms. */
const BLUR_MS = 100

/** The time that has surely passed when a steady clock says so many ms. */
export const surely = (ms: number) => Math.max(0, ms - BLUR_MS) * (1 - DRIFT)

/**
 * The latest moment at which an entry can have been made, in ms since 1970: the server received it at `received`, and it had lain
 * on the tablet for `held` ms by the tablet's steady clock.
 */
export const latestOf = (received: number, held: number) => Math.ceil(received - surely(held))
