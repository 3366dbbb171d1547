export { type BarStopSituation, barStopWorking, checkBarStop } from './check.ts'
export { type BarStopSketch, barStopSketch } from './sketch.ts'
export {
  type BarStopDraft,
  type BarStopField,
  type BarStopTask,
  type BarWay,
  barStopDraft,
  barWay,
  DIAMETERS_OUT,
  readBarStop,
  startingBarStop,
  stopAt,
} from './task.ts'
export { type WrittenBarStop, writeBarStop } from './write.ts'
