export {
  type DraftReading,
  draftOf,
  type FieldName,
  METHOD_FIELDS,
  type PickupDraft,
  pickupDraft,
  readDraft,
} from './draft.ts'
export type { EarlierValue, Expectation } from './expectation.ts'
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
  type Pickup,
  type PickupSettings,
  pickUp,
  pickupSettings,
  REPEATABILITY,
  readingIn,
} from './pick-up.ts'
export { METHOD_NAMES, methodsFor, type PickupMethod, type Reading, reading } from './reading.ts'
export { type Sketch, type SpindlePlace, sketch } from './sketch.ts'
