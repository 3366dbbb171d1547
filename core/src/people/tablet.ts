import { z } from 'zod'

/** A tablet that is not touched locks after so many minutes, where nothing else is set. By judgement: a part is loaded meanwhile. */
export const USUAL_LOCK_MIN = 15
const LONGEST_LOCK_MIN = 24 * 60

export const tabletName = z
  .string()
  .trim()
  .min(1, 'Give the tablet a name: the machine that it hangs at.')
  .max(40, 'Keep the name under 40 characters.')

export const locksAfter = z
  .int('It locks after whole minutes.')
  .min(0, 'It locks after some minutes, or never (0).')
  .max(LONGEST_LOCK_MIN, `It locks after at most ${LONGEST_LOCK_MIN} minutes.`)
  .describe('minutes without a touch; 0 for never')

/** A tablet that was let in, as a lead sees it. */
export const tablet = z.object({
  id: z.string(),
  name: z.string(),
  machine: z.string().exactOptional().describe('the id of the machine that it hangs at: it opens on that'),
  locksAfter,
  out: z.literal(true).exactOptional().describe('it was shut out'),
  person: z.string().exactOptional().describe('the initials of whoever is at it'),
  heard: z.string().exactOptional().describe('when it asked last since the server was started, ISO 8601'),
})
export type Tablet = z.infer<typeof tablet>

/** How many digits the code has by which a tablet is let in. */
export const CODE_DIGITS = 6

export const letInCode = z
  .string()
  .transform((code) => code.replace(/\s/g, ''))
  .pipe(z.string().regex(/^\d{6}$/, 'The code has six digits.'))
