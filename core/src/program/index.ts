export { type ListedCode, listedCodes, type Standing } from './codes.ts'
export { type Diagnostic, type Mend, MOST_DIAGNOSTICS } from './diagnose.ts'
export { explainWord } from './explain.ts'
export {
  alongArc,
  arcLength,
  type Extents,
  endOf,
  extents,
  FLAG,
  type InStep,
  isArc,
  type ModalState,
  type Motion,
  type MotionEvent,
  type OnFace,
  PLANE_AXES,
  type Point,
  ROW,
  type SpindleDirection,
} from './motion.ts'
export type { LengthMeasured, OffsetWritten, VariableSet } from './offset-written.ts'
export type { Alarm, ProbeCallRun, Probed, ProbeMacro, ResultRead } from './probed.ts'
export { type Program, read } from './read.ts'
export { boxStandIn, type ReadOptions, type StandIn } from './read-options.ts'
export { notReadBack, type PlannedStep, readSteps, readsAs, type Step } from './steps.ts'
export { rpmAlong, rpmAtRadius, rpmRound, type SurfaceSpeed } from './surface-speed.ts'
export { HOW_TAKEN, type TakenOnWord } from './taken.ts'
export { together } from './together.ts'
export { type ProgramBlock, readBlocks, type Word } from './words.ts'
export { MOST_WORK } from './work.ts'
