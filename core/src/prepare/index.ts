export { barStopProgram, barStopRests, barStopSituation } from './bar-stop.ts'
export { type BeforeStart, beforeStart } from './before-start.ts'
export {
  againstCode,
  codedOffset,
  codedWith,
  codeFor,
  codeRests,
  codeTools,
  sheetCase,
} from './coding.ts'
export { type Copy, type CopyDraft, type CopyField, copyDraft, readCopies, startingCopies } from './copies.ts'
export { startingAngle, startingDraft, usualMethod } from './drafts.ts'
export { type GaugeProgram, gaugeCase, gaugeProgram, gaugeProveCase, gaugeRests } from './gauge-case.ts'
export {
  jawLengthOf,
  startingGrip,
  startingLengths,
  startingPlace,
  startingSweep,
  startingUpright,
  viseInHand,
} from './hold-drafts.ts'
export {
  checkHindrance,
  isLoaded,
  programFor,
  restsOf,
  type StopHeight,
  stopHeight,
  wrongPart,
} from './load.ts'
export { probeProgramFor, probeSituation } from './probing.ts'
export {
  againstNumber,
  freeNumber,
  type NumberedProgram,
  numbersAt,
  programsAtControl,
  takesPlaceOf,
  whichProgram,
} from './program-numbers.ts'
export { type KeptProgram, programsOf } from './programs.ts'
export { proofAgainst, proofRests, proveCase, staleLayout, toolsUsed } from './prove-case.ts'
export { FOUND_BY, type FoundBy, type SearchWords, searchWords } from './search-words.ts'
export { againstTurning, rotationFor, turnedOutside, turningRests, whoTurns } from './turn.ts'
export {
  type BodyNumbers,
  jawsRound,
  type KnownBody,
  knownBody,
  type PartSizes,
  partSizes,
} from './work-area.ts'
export { asksSeatLength, moveHindrances, zeroAfter, zeroMoves } from './zero-moves.ts'
