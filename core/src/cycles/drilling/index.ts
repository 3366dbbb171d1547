export { DRILL_SIZES, type DrillSize, drillName, nearestDrill } from './drill-sizes.ts'
export {
  dwellWord,
  type Holes,
  type HoleWay,
  type HoleWork,
  peckDepths,
  writeCentreHole,
  writeHoles,
} from './holes.ts'
