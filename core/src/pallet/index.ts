export { type PalletReading, readPallets } from './check.ts'
export { PALLETS, palleted, START, startChecked } from './entries.ts'
export { type MendedPallets, mendPallets } from './mend.ts'
export {
  draftOfPallets,
  newPalletPlan,
  type PalletPlan,
  type PalletPlanDraft,
  palletPlan,
  palletPlanDraft,
  readPalletPlan,
} from './plan.ts'
export { newPlay, type PalletAction, type PalletPlay, playPallets } from './play.ts'
export {
  type LaneState,
  type PalletWork,
  type Shift,
  type ShiftCase,
  type ShiftSpan,
  shiftCase,
  simulateShift,
  steadyCycle,
} from './shift.ts'
export {
  type BeforeStart,
  judgeStart,
  loadable,
  type StartHappens,
  type StartJudgement,
  startTable,
  type TableLine,
  tableToKey,
} from './start.ts'
export { numberOnly, type PalletControl, programNumberOf } from './trace.ts'
export { type PalletOption, type PalletRates, palletOptions } from './worth.ts'
