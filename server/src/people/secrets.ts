import { createHash, randomBytes, randomInt } from 'node:crypto'
import { CODE_DIGITS } from '@dogleg/core/people'
import { hash, verify } from '@node-rs/argon2'

/** argon2id (2) with 19 MiB, two passes, one lane for each PIN, as the OWASP Password Storage Cheat Sheet has it (from memory). */
const ARGON2 = { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 }

/** A PIN as it is kept. Computed in a thread of its own. */
export const hashOfPin = (pin: string) => hash(pin, ARGON2)

/** Nobody's PIN: it is held against where there is none, so that the answer takes as long. */
const NOBODYS = hashOfPin(randomBytes(16).toString('hex'))

/** Whether a PIN is the one that is kept; where none is kept, it is not, and that takes as long. */
export async function isPin(kept: string | undefined, pin: string): Promise<boolean> {
  const is = await verify(kept ?? (await NOBODYS), pin).catch(() => false)
  return is && kept !== undefined
}

/** The key of a tablet: nobody can guess it. */
export const newKey = () => randomBytes(32).toString('base64url')

/** What is kept of a key or a code. */
export const hashOf = (secret: string) => createHash('sha256').update(secret).digest('hex')

/** A code is good for so long, in ms. */
export const CODE_LASTS_MS = 10 * 60_000

/** A code that is typed or scanned once. */
export const newCode = () => String(randomInt(10 ** CODE_DIGITS)).padStart(CODE_DIGITS, '0')
