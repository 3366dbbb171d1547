import { defineRow } from '../rows/index.ts'
import { profile } from './profile.ts'

export const profiles = defineRow({
  noun: 'profiles',
  one: 'profile',
  schema: profile,
  upcast: [],
  inFile: { which: 'named', most: 1 },
})
