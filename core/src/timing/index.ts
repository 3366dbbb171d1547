export { noTime, type TimeSection, type ToolTime, totalOf, whereTimeGoes } from './breakdown.ts'
export {
  type Calibration,
  calibrate,
  type LearntValue,
  learntValues,
  offBy,
  oneCycle,
  predict,
  type TimedCycle,
} from './calibrate.ts'
export { type CycleTime, cycleTime, rapidSeconds, type TimeParts } from './cycle-time.ts'
export { secondsTaken, timed } from './entries.ts'
export { type MachineSpeeds, speedsOf } from './machine-speeds.ts'
export { type SavedTime, type ShopRates, savedTime } from './saved-time.ts'
export { cornerSpeedSquared, restToRest, turnsFromRest } from './trapezoid.ts'
