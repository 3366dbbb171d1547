export { checkTap } from './check.ts'
export {
  exampleTap,
  newTap,
  type TapDraft,
  type TapField,
  type TapParams,
  tapFieldAsked,
  tapForm,
} from './params.ts'
export {
  bestMultiple,
  type FittedAcceleration,
  fitAcceleration,
  holeSeconds,
  kneeOf,
  mostMultiple,
  type RetractLimits,
  retractCurve,
  type Saving,
  savingOf,
  type TapStroke,
  type TimedHoles,
} from './retract.ts'
export { retractLimits, type TapSizes, tapSizes, threadOf, widest } from './sizes.ts'
export { type Below, type HoleSketch, holeSketch } from './sketch.ts'
export {
  findThread,
  formHole,
  percentFormed,
  percentOfThread,
  TAP_LEADS,
  THREADS,
  type Thread,
  type ThreadSeries,
  tapDrill,
  threadIn,
} from './threads.ts'
export { drillFor, type ToolForThread, tapFor } from './tools.ts'
export { tapWorking } from './working.ts'
export { tapOperations, writeTap } from './write.ts'
