export { type Arranged, type GaugeStep, usualClearance } from './arrange.ts'
export { type Capability, capability, type Ratio } from './capability.ts'
export { type GaugeCase, needsProbe, targetOf } from './case.ts'
export type { CaseKind, Expected, TriedCase } from './cases.ts'
export {
  type Characteristic,
  characteristicsOf,
  correctionOf,
  digitsOf,
  type Feature,
  isOut,
  keyOf,
  type Quantity,
} from './characteristic.ts'
export { checkFeatures, checkPlan, type PlanFacts } from './check.ts'
export { type Correction, correctionFor, type Held, heldWithin } from './corrected.ts'
export { type Drift, driftOf } from './drift.ts'
export {
  correctedAfter,
  gauged,
  gauging,
  SETTLED_NAMES,
  type SettledAs,
  settled,
  settledAs,
} from './entries.ts'
export {
  anotherFeature,
  axesFor,
  FEATURE_KINDS,
  FEATURE_NAMES,
  type FeatureDraft,
  type FeatureField,
  type FeatureKind,
  type FeatureParams,
  featureDraft,
  featureFields,
  isProbed,
  REACTION_NAMES,
  type Reaction,
  reactionsOf,
  startingFeature,
} from './feature.ts'
export { type Individuals, individuals } from './individuals.ts'
export { nextValue } from './next-part.ts'
export { partWith, valuesOf } from './part-with.ts'
export {
  characteristicsIn,
  draftOfPlan,
  type GaugePlan,
  type GaugePlanDraft,
  gaugePlan,
  gaugePlanDraft,
  MOST_FEATURES,
  newPlan,
  type PlanRead,
  readPlan,
} from './plan.ts'
export { type PlayPoint, placeAt, playOf } from './play.ts'
export { type GaugeProof, proveGauge } from './prove-gauge.ts'
export { labelAfter, type ReportedPart, resultsCsv, resultsJson } from './reports.ts'
export {
  LONGEST_RESULTS,
  type MeasuredPart,
  type MeasuredParts,
  MOST_PARTS,
  measuredParts,
  type ResultsRead,
  readResults,
  readTypedPart,
} from './results.ts'
export { type Chart, chartOf, RULES, type RuleName, type Signal, signals } from './rules.ts'
export { readSized } from './sized.ts'
export {
  approachOf,
  type DecisionSketch,
  decisionSketch,
  type FeatureSketch,
  type GaugeSketch,
  gaugeSketch,
  sliderOf,
} from './sketch.ts'
export { type ActualPart, standInOf } from './stand-in.ts'
export { resultSuspicions } from './suspicions.ts'
export { type GaugeTime, gaugeTime } from './time.ts'
export { type Corrected, nextErrors, type Tried, tryProgram } from './try.ts'
export type { GaugeVariables } from './variables.ts'
export { type WrittenGauge, writeGauge } from './write.ts'
