export { clearanceLow, cutsTooLittle, tooFast, toolUnknown } from './checks.ts'
export {
  type Field,
  type Fields,
  type Form,
  formOf,
  type KeptOf,
  length,
  name,
  number,
  oneOf,
  reckoned,
  type TypedOf,
  words,
  yesNo,
} from './fields.ts'
export {
  ANGLE_DIGITS,
  type CycleCase,
  meantAt,
  type Operation,
  type PlacedHole,
  type PlanBody,
  placed,
  printed,
  programAngle,
  type Spindle,
  toolOf,
  turnsByCode,
  type WrittenCycle,
} from './operation.ts'
export {
  asList,
  circlesByDiameter,
  type DrawnCircle,
  doublePlace,
  type HolePlace,
  MOST_PLACES,
  noPlaces,
  type Pattern,
  type Places,
  type PlacesDraft,
  placeFieldAsked,
  places,
  placesForm,
  placesOf,
} from './places.ts'
export { type Place, type PlannedRow, plannedDiffers } from './planned.ts'
export { type Pen, penOf } from './written.ts'
