import { type Block, clearUpBlocks, type Profile, printedDigits, writeNumber } from '../../control/index.ts'
import { type Machine, travelIn } from '../../machine/index.ts'
import { type LengthUnit, roundTo } from '../../quantity/index.ts'

/** The spindle to the top; on a lathe the turret home, X first. */
export function homeBlocks(machine: Machine, unit: LengthUnit, profile: Profile): Block[] {
  const byReturn = profile.clearUp.way === 'home-return'
  if (machine.kind === 'mill')
    return clearUpBlocks(
      byReturn ? 'home' : roundTo(travelIn(machine, 'Z', unit).greatest, printedDigits(profile, unit)),
      unit,
      profile,
    )
  const number = (value: number) => writeNumber(value, unit, profile)
  return byReturn
    ? [{ words: `G28 U${number(0)}`, does: 'turret home, X first' }, { words: `G28 W${number(0)}` }]
    : [
        { words: `G53 G0 X${number(travelIn(machine, 'X', unit).greatest)}`, does: 'turret home, X first' },
        { words: `G53 G0 Z${number(travelIn(machine, 'Z', unit).greatest)}` },
      ]
}
