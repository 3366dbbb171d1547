export { checkProbe, type ProbeSituation, shapeIn } from './check.ts'
export { MACRO, measuringWords, startOf } from './plan.ts'
export { type ProbeSketch, probeSketch } from './sketch.ts'
export {
  FEATURES,
  fieldsOf,
  isTop,
  labelOf,
  type ProbeDraft,
  type ProbeFeature,
  type ProbeField,
  type ProbeTask,
  probeDraft,
  probeFeature,
  readProbeDraft,
  startingProbeDraft,
} from './task.ts'
export { type WrittenProbe, writeProbe } from './write.ts'
