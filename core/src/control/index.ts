export { BUILT_IN_PROFILES, USUAL_MACRO_LANGUAGE, USUAL_SETTING } from './builtin.ts'
export { offsetName } from './offset-name.ts'
export { findOffset, isFinding, type OffsetAddress, offsetNames } from './offsets.ts'
export { isOn, LONGEST_OWN_TEXT, type OwnCode } from './own-codes.ts'
export {
  type Driven,
  type Lettering,
  type Macros,
  type Positions,
  type Probing,
  type Profile,
  profile,
} from './profile.ts'
export { profiles } from './rows.ts'
export { movesTurned, turnedLine } from './turned-mark.ts'
export {
  type Block,
  clearUpBlocks,
  commentText,
  ownNumber,
  type ProgramLine,
  printedDigits,
  programLines,
  programName,
  type Word,
  writeComment,
  writeNumber,
  writeProgram,
} from './write.ts'
