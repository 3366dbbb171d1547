export { BUILT_IN_PROFILES } from './builtin.ts'
export { findOffset, isFinding, type OffsetAddress, offsetNames } from './offsets.ts'
export { type Lettering, type Probing, type Profile, profile } from './profile.ts'
export {
  type Block,
  clearUpBlocks,
  commentText,
  type ProgramLine,
  printedDigits,
  programLines,
  type Word,
  writeComment,
  writeNumber,
  writeProgram,
} from './write.ts'
