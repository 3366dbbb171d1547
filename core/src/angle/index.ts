export {
  type AngleDraft,
  type AngleField,
  type AngleProblems,
  angleDraft,
  angleDraftOf,
  emptyAngleDraft,
  readAngleDraft,
} from './draft.ts'
export { angled, angleSubject } from './entries.ts'
export { fitsOffset, type OffsetAndAngle, type ZeroTaken } from './fits-offset.ts'
export { type AngleChoice, type AngleJudgement, type AngleQuestion, judgeAngle } from './judge-angle.ts'
export { ANGLE_DIGITS, type Angle, costAt, formatAngle, measureAngle } from './measure.ts'
export {
  ANGLE_METHODS,
  type AngleAsked,
  type AngleMethod,
  type AngleReading,
  angleAsked,
  angleReading,
} from './reading.ts'
export { type Rotation, type WrittenRotation, writeRotation } from './rotation.ts'
export { type AngleSketch, angleSketch } from './sketch.ts'
export { type ProgramTurn, type TurnedProgram, turnProgram } from './turn-program.ts'
