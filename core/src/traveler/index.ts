export {
  type MachineGlance,
  type SetupSummary,
  type ShopBoard,
  shopBoard,
  type WaitingNote,
} from './board.ts'
export { lengthsNeeded, type NeededLength, toolsNeeded } from './needs.ts'
export { type CorrectionDue, correctionsDue } from './run-tasks.ts'
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
