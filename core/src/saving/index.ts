export type { Risk } from './case.ts'
export { findSavings, LONGEST_LOOKED, type SavingOffer, type Savings } from './find.ts'
