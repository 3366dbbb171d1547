export { act, advance, switchOn } from './act.ts'
export { type SimulatedAction, simulatedAction } from './actions.ts'
export { isMill } from './contact.ts'
export { FINDER_RPM, finderOf, WHEEL_STEPS } from './devices.ts'
export { doubleOf, positionsOf, SEEDS } from './double.ts'
export {
  type AnswerField,
  type Answers,
  answerProblems,
  type Exercise,
  type Figure,
  type Judged,
  type PracticeResult,
  practiceResult,
  type Task,
} from './exercise.ts'
export { EXERCISES, exerciseOf, goodHandAt } from './exercises.ts'
export { boxOf, type Hand, handOn, probeOver, toolOnBlock, touchByFinder, touchByProbe } from './hand.ts'

export { probeDownOn, probeOverRotary, probeSideOf, turnTo } from './hand-rotary.ts'
export { squareVise, touchSetter } from './hand-setting.ts'
export { type AgainstHidden, againstHidden, hiddenOf } from './hidden.ts'
export { byExercise, errorsInWords, goodHandErrors, peopleOf } from './results.ts'
export { onRotary } from './rotary.ts'
export {
  barSketch,
  type EndSketch,
  endSketch,
  type SketchBox,
  type TableSketch,
  tableSketch,
} from './sketch.ts'
export type { SimulatedState } from './state.ts'
export type { Alarm, BoltState, FinderKind, Looks } from './state-schema.ts'
export { levelOf } from './true-rotary.ts'
export { positionsShown, viewOf } from './view.ts'
export {
  type HiddenTruth,
  hiddenTruth,
  type SeenBody,
  type SimulatedMachine,
  type SimulatedView,
  simulatedMachine,
} from './view-schema.ts'
export {
  blockMiddle,
  latheWorld,
  type MillWorld,
  millWorld,
  partZeroOf,
  practiceMachine,
  type World,
  type WorldOptions,
} from './world.ts'
