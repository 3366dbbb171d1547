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
  type StepState,
  type Unreadable,
} from './derive.ts'
export { type Description, describeEntry } from './describe.ts'
export { startingDraft, usualMethod } from './drafts.ts'
export { type Entry, type EntryOf, entry, initials } from './entries.ts'
export { HAPPENINGS, type HappeningKind, happeningKind } from './happenings.ts'
export { checkHindrance, programFor, restsOf } from './load.ts'
export { type NextPlace, type NextThing, nextFor } from './next.ts'
export { effectiveStrikes } from './strikes.ts'
export { type SetupSummary, summarise } from './summary.ts'
export { whatIf } from './what-if.ts'
