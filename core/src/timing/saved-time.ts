/** How the shop runs a part, and what its machine costs; null where nobody said. */
export interface ShopRates {
  partsAShift: number | null
  shiftsAMonth: number | null
  /** Money a machine hour. */
  anHour: number | null
}

/** Time that is saved, in seconds, and what it is worth. */
export interface SavedTime {
  perPart: number
  perShift: number | null
  perMonth: number | null
  moneyAMonth: number | null
}

/** What seconds saved on a part come to: times parts a shift, times shifts a month, at the price of a machine hour (trade.md 10). */
export function savedTime(perPart: number, rates: ShopRates): SavedTime {
  const perShift = rates.partsAShift === null ? null : perPart * rates.partsAShift
  const perMonth = perShift === null || rates.shiftsAMonth === null ? null : perShift * rates.shiftsAMonth
  return {
    perPart,
    perShift,
    perMonth,
    moneyAMonth: perMonth === null || rates.anHour === null ? null : (perMonth / 3600) * rates.anHour,
  }
}
