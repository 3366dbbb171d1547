import type { Finding } from '../fact/index.ts'
import type { Profile } from './profile.ts'

/** How one work offset is selected, and where G10 finds it. */
export interface OffsetAddress {
  /** 'G54', or 'G154 P3'. */
  name: string
  /** L word of the loading block. */
  l: number
  /** P word of the loading block. */
  p: number
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
  if (index >= 0) return { name, l: profile.loadOffset?.standardL ?? 2, p: index + 1 }
  const [code, p] = name.split(' P')
  const number = Number(p)
  if (
    extended &&
    code === extended.code &&
    Number.isInteger(number) &&
    number >= 1 &&
    number <= extended.count
  )
    return { name, l: profile.loadOffset?.extendedL ?? 20, p: number }
  const has = extended
    ? `${standard[0]} to ${standard.at(-1)} and ${extended.code} P1 to P${extended.count}`
    : `${standard[0]} to ${standard.at(-1)}`
  return {
    severity: 'stop',
    code: 'offset-not-on-control',
    where: 'offset',
    says: `${name} is not an offset of this control.`,
    why: `The profile ${profile.name} has ${has}.`,
    fix: 'Choose one of these, or correct the profile.',
  }
}

export const isFinding = (found: OffsetAddress | Finding): found is Finding => 'severity' in found
