export { checkGroove, grooveLeft, ringsBetween } from './check.ts'
export {
  exampleGroove,
  type GrooveDraft,
  type GrooveField,
  type GrooveParams,
  grooveFieldAsked,
  grooveForm,
  newGroove,
} from './params.ts'
export { cutsOf, grooveMoves, type Move, plungePlaces } from './plan.ts'
export { type GroovePlay, type GrooveScene, groovePlay, grooveScene } from './play.ts'
export {
  type Cut,
  cutOutline,
  type Insert,
  type Left,
  leftStanding,
  lowEnd,
  type Ring,
  type Section,
  type UV,
  wantedDepth,
} from './section.ts'
export { type GrooveSizes, grooveSizes, onMachine, rpmAt } from './sizes.ts'
export { grooveWorking } from './working.ts'
export { asWritten, grooveOperation, writeGroove } from './write.ts'
