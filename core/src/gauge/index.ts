export { type Arranged, arrange, type GaugeStep, usualClearance } from './arrange.ts'
export { type Capability, capability, LEAST_FOR_CAPABILITY, type Ratio } from './capability.ts'
export { type GaugeCase, needsProbe, printedLimits, targetOf } from './case.ts'
export { type CaseKind, type Expected, type TriedCase, tryCases } from './cases.ts'
export {
  type Characteristic,
  characteristicsOf,
  correctionOf,
  type Feature,
  halfTolerance,
  isOut,
  keyOf,
  type Quantity,
} from './characteristic.ts'
export { checkFeatures, checkPlan, type PlanFacts } from './check.ts'
export { type Correction, correctionFor, type Held, heldWithin, simulate } from './corrected.ts'
export { type Drift, driftOf, LEAST_FOR_DRIFT } from './drift.ts'
export {
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
  lenientFeature,
  probeTaskOf,
  REACTION_NAMES,
  REACTIONS,
  type Reaction,
  reactionsOf,
  readFeature,
  startingFeature,
} from './feature.ts'
export { type Individuals, individuals } from './individuals.ts'
export { classDeviations } from './iso286.ts'
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
  measuredPart,
  measuredParts,
  type ResultsRead,
  readResults,
  readTypedPart,
} from './results.ts'
export { type Chart, chartOf, RANGE_LIMIT, RULES, type RuleName, type Signal, signals } from './rules.ts'
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
export { readTolerance } from './tolerance.ts'
export { type Corrected, nextErrors, type Tried, tryProgram } from './try.ts'
export type { GaugeVariables } from './variables.ts'
export { type WrittenGauge, writeGauge } from './write.ts'
