export { combineDoubt, type Doubt, type DoubtPart, middleDoubt, resolutionDoubt } from './doubt.ts'
export {
  type Answer,
  type Fact,
  type Freshness,
  howStale,
  type StaleCause,
  type WorkingLine,
} from './fact.ts'
export { ALL_AXES, FACT_KINDS, type FactKind } from './fact-kinds.ts'
export { doubtOfMean } from './few-readings.ts'
export {
  type Finding,
  finding,
  KEPT_FINDINGS,
  type Severity,
  type Verdict,
  verdictOf,
  worstFirst,
} from './finding.ts'
export { multiplied, sensitivities } from './propagate.ts'
export { VERDICT_WORDS } from './verdict-words.ts'
