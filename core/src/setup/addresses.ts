import { findOffset, isFinding, offsetNames, type Profile } from '../control/index.ts'
import { type Finding, finding } from '../fact/index.ts'
import type { Machine } from '../machine/index.ts'

/** Tools of a lathe that are offered; any number can be taken. */
const LATHE_TOOLS = 24

/** What zeros can be taken for: work offsets on a mill, the geometry of tools on a lathe. */
export const addressNames = (machine: Machine, profile: Profile): string[] =>
  machine.kind === 'mill' ? offsetNames(profile) : Array.from({ length: LATHE_TOOLS }, (_, i) => `T${i + 1}`)

/** What is wrong with an address on this machine: the control lacks it. */
export function addressProblems(name: string, machine: Machine, profile: Profile): Finding[] {
  if (machine.kind === 'mill') {
    const address = findOffset(profile, name)
    return isFinding(address) ? [address] : []
  }
  if (/^T\d/.test(name)) return []
  return [
    finding(
      'stop',
      'offset-not-on-control',
      'offset',
      `${name} is not the geometry of a tool.`,
      'On a lathe face and diameter are taken for a tool: T1, T2 and so on.',
      'Choose the tool.',
    ),
  ]
}
