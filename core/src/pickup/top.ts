import { type Profile, printedDigits } from '../control/index.ts'
import { type Machine, travelIn } from '../machine/index.ts'
import type { PlannedStep } from '../program/index.ts'
import { type LengthUnit, roundTo } from '../quantity/index.ts'

/** The top of Z, in machine positions, or 'home' by a home return. */
export type Top = number | 'home'

/** How this control sends the spindle to the top of this machine, as it will print it. */
export const topOf = (profile: Profile, machine: Machine, unit: LengthUnit): Top =>
  profile.clearUp.way === 'home-return'
    ? 'home'
    : roundTo(travelIn(machine, 'Z', unit).greatest, printedDigits(profile, unit))

/** The step that the reader must find for it. */
export const plannedTop = (top: Top): PlannedStep =>
  top === 'home'
    ? { does: 'rapid', frame: 'home', axes: { Z: 0 } }
    : { does: 'rapid', frame: 'machine', axes: { Z: top } }
