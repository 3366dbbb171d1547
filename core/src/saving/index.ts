export { saved } from './entries.ts'
export { findSavings, LONGEST_LOOKED, type SavingOffer, type Savings } from './find.ts'
