export { combineDoubt, type Doubt, type DoubtPart, middleDoubt, resolutionDoubt } from './doubt.ts'
export type { Answer, Fact, Freshness, StaleCause, WorkingLine } from './fact.ts'
export { type Finding, finding, type Severity, type Verdict, verdictOf, worstFirst } from './finding.ts'
export { multiplied, sensitivities } from './propagate.ts'
