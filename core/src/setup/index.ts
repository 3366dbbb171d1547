export {
  type MachineGlance,
  type SetupSummary,
  type ShopBoard,
  shopBoard,
  type WaitingNote,
} from './board.ts'
export {
  type AxisFact,
  deriveSetup,
  expectationOf,
  inOrder,
  isUnreadable,
  type LogLine,
  type OffsetState,
  offsetOf,
  type Reference,
  type Setup,
  type Standing,
  type Unreadable,
} from './derive.ts'
export { type Description, describeEntry, namesIn } from './describe.ts'
export { startingDraft, usualMethod } from './drafts.ts'
export { type Entry, type EntryOf, entry, initials } from './entries.ts'
export { HAPPENINGS, type HappeningKind, happeningKind } from './happenings.ts'
export {
  type ClearanceFact,
  type GripFact,
  type HoldCheck,
  type HoldState,
  isSquare,
  type LengthsFact,
  measuredRatios,
  type SweepFact,
} from './hold.ts'
export {
  jawLengthOf,
  startingGrip,
  startingLengths,
  startingPlace,
  startingSweep,
  viseInHand,
} from './hold-drafts.ts'
export { checkHindrance, programFor, restsOf } from './load.ts'
export { type NextPlace, type NextThing, nextFor } from './next.ts'
export { type HoldPlace, type NextHold, nextHold } from './next-hold.ts'
export { deriveReady, type ReadyLine, type ReadyState, type ShiftNote, STOOD_HOURS } from './ready.ts'
export { STEP_NAMES, STEPS, type Step, type StepState, stepsOf } from './steps.ts'
export { effectiveStrikes } from './strikes.ts'
export { whatIf, wouldGoStale } from './what-if.ts'
