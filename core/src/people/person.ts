import { z } from 'zod'
import { initials } from '../log/index.ts'

/** What people of a shop may do, from the least to the most: each may what those before it may. */
export const MAY = ['looker', 'operator', 'lead'] as const
export type May = (typeof MAY)[number]

/** What each may do, in words for the page and the command. */
export const SAYS_MAY: Readonly<Record<May, string>> = {
  looker: 'reads only: a screen on the wall',
  operator: 'records, and strikes out what is their own',
  lead: 'also keeps machines, profiles, tools, people and backups, and strikes out anybody’s entries',
}

export const may = z.enum(MAY, 'Say what they may do: look, record or lead.')

/** Whether somebody who may do this may do that as well. */
export const mayAlso = (is: May, wanted: May) => MAY.indexOf(is) >= MAY.indexOf(wanted)

/**
 * Whether a PIN is one of those that are tried first: one digit over and over, or digits that count up or down by the same step. That
 * such PINs are the most common ones is common practice to assume.
 */
export function isEasilyGuessed(pin: string): boolean {
  const steps = [...pin].slice(1).map((digit, n) => (Number(digit) - Number(pin[n]) + 10) % 10)
  return steps.every((step) => step === steps[0]) && [0, 1, 9].includes(steps[0] ?? 0)
}

/** A PIN that somebody chooses. */
export const newPin = z
  .string()
  .regex(/^\d{4,8}$/, 'A PIN has 4 to 8 digits.')
  .refine((pin) => !isEasilyGuessed(pin), 'That PIN is tried first by anybody. Choose another.')

/** A PIN as it is typed to sign in: whatever it is, it is right or it is not. */
export const typedPin = z.string().max(40)

export const personName = z
  .string()
  .trim()
  .min(1, 'Say whose initials these are.')
  .max(60, 'Keep the name under 60 characters.')

/** Somebody of the shop, as a lead sees them. */
export const person = z.object({
  id: z.string(),
  initials,
  name: z.string(),
  may,
  gone: z.literal(true).exactOptional().describe('may not sign in any more'),
  pin: z.boolean().describe('whether there is one: without it nobody can sign in so'),
})
export type Person = z.infer<typeof person>

/** Initials that are the same for whoever reads them: capitals do not matter. */
export const sameInitials = (a: string, b: string) => a.trim().toUpperCase() === b.trim().toUpperCase()

/** Whether somebody may strike out an entry: their own, or anybody's where they lead. */
export const mayStrike = (who: { initials: string; may: May }, entry: { by: string }) =>
  who.may === 'lead' || (who.may === 'operator' && sameInitials(who.initials, entry.by))
