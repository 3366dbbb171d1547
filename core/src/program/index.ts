export { type PlannedStep, type ProgramReading, readProgram, readsAs, type Step } from './interpret.ts'
export { type Diagnostic, type ProgramBlock, readBlocks, type Word } from './words.ts'
