export { BUILT_IN_PROFILES } from './builtin.ts'
export { findOffset, isFinding, type OffsetAddress, offsetNames } from './offsets.ts'
export { type Profile, profile } from './profile.ts'
export { type Block, commentText, printedDigits, writeNumber, writeProgram } from './write.ts'
