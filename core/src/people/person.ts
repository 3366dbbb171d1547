import { z } from 'zod'
import { initials } from '../log/index.ts'
import { MAY } from './may.ts'

export const may = z.enum(MAY, 'Say what they may do: look, record or lead.')

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
