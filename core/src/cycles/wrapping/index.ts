export { checkWrap } from './check.ts'
export { chordsOf, type FlatMove, type Layout, layoutOf } from './flat.ts'
export { outlineProgram } from './outline.ts'
export {
  exampleWrap,
  LONGEST_FLAT,
  newWrap,
  type WrapDraft,
  type WrapField,
  type WrapParams,
  wrapFieldAsked,
  wrapForm,
} from './params.ts'
export { cylinderOutline, flatLines, onCylinder, seen, turningArrow } from './picture.ts'
export { degreesRound, shareOfFeed, type WrapSizes, wrapSizes } from './sizes.ts'
export { wrapWorking } from './working.ts'
export { wrapOperation, writeWrap } from './write.ts'
