export {
  type MachineGlance,
  type SetupSummary,
  type ShopBoard,
  shopBoard,
  type WaitingNote,
} from './board.ts'
export { lengthsNeeded, type NeededLength } from './needs.ts'
export { type CorrectionDue, correctionsDue } from './run-tasks.ts'
export { makeSetupFile, readSetupFile, type SetupFile, setupFile, type WrittenFile } from './setup-file.ts'
export { openFindings, type SetupSheet, setupSheet } from './sheet.ts'
export type { SheetLine, Stated } from './sheet-stated.ts'
export { type Around, type InHand, NOTHING_LEFT, type Task, type TaskPart } from './task.ts'
export {
  type Foot,
  footOf,
  inWords,
  type StepGlance,
  stateOfPart,
  type Traveler,
  travelerOf,
} from './traveler.ts'
