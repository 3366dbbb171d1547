import { type ShiftCase, simulateShift } from './shift.ts'

/** Another way to run the same pallets, and what it comes to. */
export interface PalletOption {
  what: 'faster-load' | 'more-hands' | 'even-split'
  says: string
  of: ShiftCase
  /** Parts by the end of the shift, and how many more than now. */
  parts: number
  gained: number
  /** Machine hours a month that the same parts would no longer need; null where shifts a month are not known. */
  hoursAMonth: number | null
  moneyAMonth: number | null
}

export interface PalletRates {
  shiftsAMonth: number | null
  anHour: number | null
}

/** Parts a second that a case makes once it is steady, or by the count of the shift where that is too short to tell. */
function rate(of: ShiftCase): { parts: number; perSecond: number } {
  const { parts, cycle } = simulateShift(of)
  const round = of.pallets.reduce((sum, pallet) => sum + (pallet.finishes ? pallet.parts : 0), 0)
  return { parts, perSecond: cycle === undefined ? parts / of.length : round / cycle }
}

const withLoad = (of: ShiftCase, share: number): ShiftCase => ({
  ...of,
  pallets: of.pallets.map((pallet) => ({
    ...pallet,
    load: pallet.load * share,
    unload: pallet.unload * share,
  })),
})

/** The same cutting, shared evenly between the pallets. */
function evenly(of: ShiftCase): ShiftCase {
  const mean = of.pallets.reduce((sum, { cut }) => sum + cut, 0) / of.pallets.length
  return { ...of, pallets: of.pallets.map((pallet) => ({ ...pallet, cut: mean })) }
}

/**
 * What loading faster (to `share` of the time), another person, and the operations split evenly would be worth, each by
 * itself: parts of the shift, and machine time at the steady rate. The longest gain first.
 */
export function palletOptions(of: ShiftCase, share: number, rates: PalletRates): PalletOption[] {
  const now = rate(of)
  const options: [PalletOption['what'], string, ShiftCase][] = [
    ['faster-load', `Unloading and loading in ${Math.round(100 * share)} % of the time`, withLoad(of, share)],
    [
      'more-hands',
      of.hands === 1 ? 'A second person' : `${of.hands + 1} people`,
      { ...of, hands: of.hands + 1 },
    ],
    ['even-split', 'Operations split so that each pallet is cut as long as the other', evenly(of)],
  ]
  return options
    .map(([what, says, next]): PalletOption => {
      const { parts, perSecond } = rate(next)
      const less = perSecond > 0 ? Math.max(0, 1 - now.perSecond / perSecond) : 0
      const hoursAMonth =
        rates.shiftsAMonth === null ? null : ((of.length * less) / 3600) * rates.shiftsAMonth
      return {
        what,
        says,
        of: next,
        parts,
        gained: parts - now.parts,
        hoursAMonth,
        moneyAMonth: hoursAMonth === null || rates.anHour === null ? null : hoursAMonth * rates.anHour,
      }
    })
    .sort((a, b) => (b.hoursAMonth ?? b.gained) - (a.hoursAMonth ?? a.gained))
}
