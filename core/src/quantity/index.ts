export { readDegrees } from './degrees.ts'
export {
  type DurationEntry,
  type DurationOf,
  formatDuration,
  formatHours,
  formatShort,
  readDuration,
  writeDuration,
} from './duration.ts'
export {
  asTyped,
  computedLength,
  describeTyped,
  type LengthEntry,
  readLength,
  type TypedLength,
  typedInOther,
  typedLength,
} from './entry.ts'
export { type DraftRead, draftRead, type FieldProblems, lengthFields } from './field-problems.ts'
export {
  type FormatOptions,
  fixedDigits,
  formatAsMeant,
  formatLength,
  formatLess,
  formatTerm,
  formatWithUnit,
  roundTo,
} from './format.ts'
export { decimalPoints, plainText } from './plain.ts'
export { type Row, type RowsEntry, type RowsWanted, readRows, readsTwoWays } from './rows.ts'
export { STEPS, stepped } from './step.ts'
export {
  convertLength,
  digitsOfStep,
  type LengthUnit,
  lengthUnit,
  MM_PER_INCH,
  unitSymbol,
  usualDigits,
} from './unit.ts'
