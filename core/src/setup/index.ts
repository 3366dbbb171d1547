export { addressNames } from './addresses.ts'
export type { CodedFact, CodeState, TakenFact } from './code-facts.ts'
export { deriveSetup, type PartFact, type Setup } from './derive.ts'
export { describeEntry, logDescriber, namesIn } from './describe.ts'
export {
  type GaugedPart,
  type GaugeSeries,
  type GaugeState,
  type GaugingFact,
  outOf,
  partLabel,
  reportedParts,
  seriesDrift,
  toMiddle,
  type ValueSeries,
  valueSeries,
} from './gauging.ts'
export { acknowledgementOf, handOverState, lastHandedOver } from './hand-over.ts'
export { HAPPENINGS, type HappeningKind, happeningKind } from './happenings.ts'
export {
  asksUpright,
  type ClearanceFact,
  type GripFact,
  type HoldCheck,
  type HoldState,
  isSquare,
  type LengthsFact,
  measuredRatios,
  type SweepFact,
  type UprightFact,
} from './hold.ts'
export { jawsIn } from './jaws.ts'
export {
  type Entry,
  type EntryOf,
  entryIssues,
  KINDS,
  type Logged,
  readEntry,
  readEntryText,
  shapeNow,
  slimmed,
} from './kinds.ts'
export { isUnreadable, type LogLine, type Unreadable } from './log-lines.ts'
export {
  LOG_GROUP_NAMES,
  LOG_GROUPS,
  type LogGroup,
  type LogSearch,
  logCsv,
  logMatches,
} from './log-table.ts'
export { NOUNS, type Noun } from './nouns.ts'
export { type OffsetRow, offsetTable } from './offset-table.ts'
export {
  type AngleFact,
  type AxisFact,
  angleQuestion,
  expectationOf,
  type OffsetState,
  offsetOf,
  type ProgramFact,
  zerosOf,
} from './offsets.ts'
export { needsItsLog, SAID_LAST, saidOfMachine, WORKED_ON_LAST } from './on-machine.ts'
export { type ProgramKind, TAKEN_HOW } from './own-kinds.ts'
export {
  isProved,
  type LayoutFact,
  LONGEST_SAYING,
  type Look,
  looksNotKept,
  looksOf,
  type ProofFact,
  type ProveState,
  proofHolds,
  standsFor,
} from './proof.ts'
export { putAwayBy, workedOnLast } from './put-away.ts'
export {
  deriveReady,
  type EarlierTime,
  earlierTime,
  lastPause,
  type ReadyCase,
  type ReadyLine,
  type ReadyState,
  type ShiftNote,
  STOOD_HOURS,
  surelyThere,
} from './ready.ts'
export { type Reference, type RetiredRow, type Row, readRow, rowKind } from './reference.ts'
export { type Repeating, repeatJob } from './repeat-job.ts'
export { jobOf, REPEATS, type RepeatHistory, repeatHistory } from './repeats.ts'
export { inForce, referenceFrom } from './retired.ts'
export {
  asEarlierCentre,
  asEarlierFlat,
  type CentreFact,
  type FlatFact,
  lineUnderTop,
  onCentreLine,
  rotaryNotHomed,
} from './rotary.ts'
export {
  behindOnPallets,
  cyclesAShift,
  machineCalibration,
  otherAtControl,
  type PalletFact,
  palletProgramRests,
  palletRests,
  palletsStand,
  type RunState,
  type StartFact,
  savedSoFar,
  textOnPallet,
  type UnprovedPallet,
  unprovedOnPallets,
  unprovedPallets,
} from './run.ts'
export {
  againstSerials,
  givenOut,
  leftOutBefore,
  nextSerial,
  numbersGiven,
  numbersWritten,
  type SerialLine,
  type SerialList,
  SHOWN_GAPS,
  serialList,
  seriesIn,
  seriesOf,
} from './serials.ts'
export { STEP_NAMES, STEPS, type Step, type StepState, stepsOf } from './steps.ts'
export { type StockFact, stockOf, touchedBlock } from './stock.ts'
export { againstTable, deriveSetter, deriveTools, type SetterFact, type ToolFact } from './tools.ts'
export { nameStaleFacts, whatIf, wouldGoStale } from './what-if.ts'
export { inWorkShift, type ShiftFact, shiftTools } from './work-shift.ts'
