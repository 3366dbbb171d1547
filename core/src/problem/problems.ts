/**
 * Why the server refuses something, for the page: stable, and one list for both sides. What is wrong and what to do stands beside it,
 * in a sentence.
 */
export const PROBLEM_CODES = [
  // What was sent.
  'not-json',
  'not-understood',
  'not-valid',
  'too-large',
  'too-often',
  'written-by-newer',
  'other-language',
  // Who asks, and whom.
  'cross-site',
  'foreign-host',
  'https-only',
  'tablet-unknown',
  'signed-out',
  'not-allowed',
  'not-signed',
  'not-theirs',
  'wrong-pin',
  'wrong-code',
  'wait',
  'person-there',
  'last-lead',
  // What is there, and what is not.
  'not-found',
  'id-taken',
  'edited-meanwhile',
  'machine-unknown',
  'number-taken',
  'profile-unknown',
  'row-damaged',
  // Of an entry.
  'before-opening',
  'clock-ahead',
  'clock-behind',
  'number-given',
  'opening-struck',
  'proof-stopped',
  'setup-unknown',
  'target-unknown',
  // The shop.
  'own-shop-there',
  // The logbook.
  'logbook-being-read',
  'logbook-damaged',
  'logbook-gone',
  'logbook-unwritable',
  'disk-full',
  // Positions.
  'agent-away',
  'agent-device',
  'agent-frozen',
  'agent-not-called',
  'agent-not-understood',
  'agent-refuses',
  'agent-slow',
  'agent-too-long',
  'machine-unavailable',
  'no-positions',
  'no-source',
  // The simulated machine, and practice.
  'all-taken',
  'on-paper',
  'other-exercise',
  'switched-off',
  // The server itself.
  'busy',
  'too-long',
  'failed',
] as const
export type ProblemCode = (typeof PROBLEM_CODES)[number]

export const isProblemCode = (code: unknown): code is ProblemCode =>
  PROBLEM_CODES.some((each) => each === code)
