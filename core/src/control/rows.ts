import { defineRow } from '../rows/index.ts'
import { usualOwnCodes } from './builtin.ts'
import { profile } from './profile.ts'

export const profiles = defineRow({
  noun: 'profiles',
  one: 'profile',
  schema: profile,
  // The first had no list of the machine's own codes: it gets the usual one of its kind of control.
  upcast: [(older) => ({ ...older, ownCodes: usualOwnCodes(older) })],
  inFile: { which: 'named', most: 1 },
})
