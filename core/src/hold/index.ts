export {
  beforeItStands,
  type Clearance,
  type ClearanceCase,
  clearance,
  type Gap,
  libraryFit,
  worseEnd,
} from './clearance.ts'
export {
  barsTakenBy,
  bySize,
  type Closing,
  type Collet,
  closing,
  closingRatio,
  collet,
  type RatioFrom,
  USUAL_COLLETS,
} from './collet.ts'
export { type ColletSketch, colletSketch, SAMPLE_BARS } from './collet-sketch.ts'
export { type Convergence, convergence } from './convergence.ts'
export {
  CLEARANCE,
  cleared,
  GRIP,
  gripped,
  lengths,
  lengthsSubject,
  swept,
  UPRIGHT,
  upright,
} from './entries.ts'
export {
  asksSeated,
  type BarRange,
  type Bars,
  barRange,
  bars,
  type Grip,
  type LengthSpread,
  lengthSpread,
  type Operation,
  operation,
} from './grip.ts'
export {
  type GripDraft,
  type Gripped,
  gripChoice,
  gripDraft,
  type LengthsDraft,
  lengthsDraft,
  measuredLengths,
  readGripDraft,
  readGripPart,
  readLengthsDraft,
} from './grip-draft.ts'
export { offTheJaw } from './jaw-form.ts'
export { type BoltSide, dialRange, type JawSketch, jawSketch } from './jaw-sketch.ts'
export { type MeasuredPair, readDiameters, readPairs } from './measured.ts'
export { byStop, type Place, type Ranked, type RankedStop, rankPairs } from './ranking.ts'
export {
  chartOfRatio,
  fitRatio,
  type LengthMeasured,
  type MeasuredPairs,
  type RatioFit,
} from './ratio-fit.ts'
export { collets, vises } from './rows.ts'
export { type SideBox, type SideSketch, sideSketch, viseBoxes } from './side-sketch.ts'
export { JAW_BEARERS, type JawBearer, type SquareOrTurn, squareOrTurn } from './square-or-turn.ts'
export { offTheLine, type Squared, type Squareness, squareness, type Tap } from './squaring.ts'
export { type Moving, movingRatio, STOPS, type Stop, type StopKind, stopKind } from './stop.ts'
export {
  type Bolts,
  bolts,
  type PlainSweep,
  type PlusMeans,
  plainSweep,
  plusMeans,
  type Sweep,
  sweep,
} from './sweep.ts'
export { readSweepDraft, type SweepDraft, sweepDraft, withPartLength } from './sweep-draft.ts'
export {
  type JawUpright,
  jawUpright,
  readUprightDraft,
  type UprightDraft,
  type Uprightness,
  uprightDraft,
  uprightness,
} from './upright.ts'
export {
  isSampleVise,
  jawsOf,
  movesIn,
  SAMPLE_VISES,
  type Vise,
  type VisePart,
  type ViseState,
  vise,
  viseIn,
  viseOpening,
  viseReach,
} from './vise.ts'
export {
  middleOfTable,
  type Placed,
  type PlacedDraft,
  placedDraft,
  placeWanted,
  readPlacedDraft,
  visePlace,
} from './vise-place.ts'
