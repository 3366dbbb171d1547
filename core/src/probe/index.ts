export { checkProbe, shapeIn } from './check.ts'
export {
  emptyFound,
  type FoundDraft,
  type FoundField,
  foundDraft,
  foundFields,
  judgeFound,
  readFound,
} from './found.ts'
export { MACRO, measuringWords, type OneCall, startOf } from './plan.ts'
export type { ProbeSituation } from './situation.ts'
export { type ProbeSketch, probeSketch } from './sketch.ts'
export {
  FEATURES,
  fieldsOf,
  isTop,
  isWhole,
  labelOf,
  type ProbeDraft,
  type ProbeFeature,
  type ProbeField,
  type ProbeStart,
  type ProbeTask,
  probeDraft,
  probeFeature,
  readProbeDraft,
  startingProbeDraft,
  usualClearance,
} from './task.ts'
export { type WholeSketch, wholeSketch } from './whole-sketch.ts'
export { type WrittenProbe, writeProbe } from './write.ts'
