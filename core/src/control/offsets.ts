import { type Finding, finding } from '../fact/index.ts'
import type { Profile } from './profile.ts'

/** A work offset of the control: the name that selects it, and where it stands. */
export interface OffsetAddress {
  /** 'G54', or 'G154 P3'. */
  name: string
  /** Its number among its kind, from 1: the P word of the loading block. */
  p: number
  /** Whether it is one of the further offsets. */
  extended: boolean
}

/** The names of every offset that the control has, in order. */
export function offsetNames(profile: Profile): string[] {
  const { standard, extended } = profile.offsets
  const further = extended
    ? Array.from({ length: extended.count }, (_, i) => `${extended.code} P${i + 1}`)
    : []
  return [...standard, ...further]
}

/** Finds an offset by name, or a finding that says which ones the profile has. */
export function findOffset(profile: Profile, name: string): OffsetAddress | Finding {
  const { standard, extended } = profile.offsets
  const index = standard.indexOf(name)
  if (index >= 0) return { name, p: index + 1, extended: false }
  const [code, p] = name.split(' P')
  const number = Number(p)
  if (
    extended &&
    code === extended.code &&
    Number.isInteger(number) &&
    number >= 1 &&
    number <= extended.count
  )
    return { name, p: number, extended: true }
  const has = extended
    ? `${standard[0]} to ${standard.at(-1)} and ${extended.code} P1 to P${extended.count}`
    : `${standard[0]} to ${standard.at(-1)}`
  return finding(
    'stop',
    'offset-not-on-control',
    'offset',
    `${name} is not an offset of this control.`,
    `The profile ${profile.name} has ${has}.`,
    'Choose one of these, or correct the profile.',
  )
}

export const isFinding = (found: OffsetAddress | Finding): found is Finding => 'severity' in found
