export { adviseMethod, type MethodAdvice, type MethodOffer } from './choose-method.ts'
export {
  CARRIED,
  type DraftReading,
  draftOf,
  isUntouched,
  type PickupDraft,
  pickupDraft,
  readDraft,
  readToolNumber,
} from './draft.ts'
export {
  checked,
  checkSubject,
  identified,
  isXOrY,
  measuredLength,
  PART,
  pickup,
  pickupSubject,
  setter,
  shifted,
  stock,
  stockSubject,
  toolOf,
  WORK_SHIFT,
} from './entries.ts'
export type { EarlierValue, Expectation } from './expectation.ts'
export {
  type ComparedDistance,
  type Identification,
  type Identified,
  type IdentifiedAs,
  identification,
  identify,
  readIdentification,
} from './identify.ts'
export { judgePickup } from './judge.ts'
export {
  type AxisToLoad,
  checkLoad,
  type LoadOffset,
  type LoadPlan,
  planLoad,
  readsBack,
  type WrittenOffset,
  writeLoad,
} from './load-offset.ts'
export {
  type ChoiceName,
  type Field,
  type FieldName,
  METHODS,
  type Method,
  type MethodChoice,
  methodName,
  methodsFor,
  type PickupMethod,
} from './methods.ts'
export { outsideTravel } from './outside.ts'
export { pickUp, readingIn, unitIn } from './pick-up.ts'
export { type PlanSketch, planSketch } from './plan-sketch.ts'
export {
  meanOf,
  type PositionReading,
  positionReading,
  readPosition,
  understoodPosition,
  valuesOf,
} from './position.ts'
export { isHeight, type Reading, type ReadingOf, reading } from './reading.ts'
export { partWords, pointWords, readingDetail } from './reading-words.ts'
export { REPEATABILITY } from './repeatability.ts'
export { readToolList, type WrittenLengths, writeSetLengths } from './set-lengths.ts'
export {
  judgeSetter,
  readSetterDraft,
  SETTER_FIELDS,
  type SetterDraft,
  type SetterField,
  type SetterReading,
  setterAge,
  setterDraft,
  setterHeight,
  setterReading,
  startingSetter,
} from './setter.ts'
export { type Sketch, type SpindlePlace, sketch } from './sketch.ts'
export {
  FACE_NAMES,
  finishedZero,
  measureStock,
  type Stock,
  type StockAsked,
  type StockAxis,
  stockAsked,
  stockHeight,
  type TouchedStock,
  ZERO_WORDS,
  type ZeroAlong,
  type ZeroUp,
  zeroAlong,
  zeroUp,
} from './stock.ts'
export {
  readStockDraft,
  type StockDraft,
  type StockField,
  startingStock,
  stockDraft,
  stockDraftOf,
} from './stock-draft.ts'
export { takenText } from './taken.ts'
export {
  judgeToolLength,
  readToolLengthDraft,
  type SetterInUse,
  type ToolLengthDraft,
  type ToolLengthField,
  type ToolLengthReading,
  toolLength,
  toolLengthDraft,
  toolLengthReading,
} from './tool-length.ts'
export { type ToolSketch, toolSketch } from './tool-length-sketch.ts'
export { SHIFT_TAKEN } from './tools-together.ts'
export { plannedTop, type Top, topOf } from './top.ts'
export { type Side, touchedAt, zeroMoved } from './touched.ts'
export {
  difference,
  display,
  inParentheses,
  type Mean,
  meanReading,
  type Pickup,
  type PickupSettings,
  part,
  pickupSettings,
} from './words.ts'
export {
  judgeWorkShift,
  readWorkShift,
  type ShiftFrom,
  type WorkShiftDraft,
  type WorkShiftReading,
  workShift,
  workShiftDraft,
  workShiftReading,
} from './work-shift.ts'
