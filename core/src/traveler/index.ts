export { lastFirst, machineGlance, setupLine, shopBoard } from './board.ts'
export { boardNow } from './board-now.ts'
export {
  type MachineGlance,
  type SetupSummary,
  type ShopBoard,
  setupSummary,
  shopBoardSchema,
  type Task,
  type TaskPart,
  type ToldBoard,
  toldBoard,
  type WaitingNote,
} from './board-schema.ts'
export { lengthsNeeded, type NeededLength, toolsNeeded } from './needs.ts'
export { readyMatters } from './ready-tasks.ts'
export { type CorrectionDue, correctionsDue } from './run-tasks.ts'
export { type Around, type InHand, NOTHING_LEFT } from './task.ts'
export {
  type Foot,
  footOf,
  inWords,
  type StepGlance,
  stateOfPart,
  type Traveler,
  travelerOf,
} from './traveler.ts'
export { type Went, type WentLine, wentOf, wentSchema } from './went.ts'
