export { checkEngrave } from './check.ts'
export { between, holeUnder, pointsAlong } from './fits.ts'
export {
  type EngraveDraft,
  type EngraveField,
  type EngraveParams,
  engraveFieldAsked,
  engraveForm,
  exampleEngraving,
  hasSerial,
  LONGEST_TEXT,
  newEngraving,
} from './params.ts'
export {
  askedRoom,
  type CutLetter,
  cutLetters,
  depthFor,
  type EngraveSizes,
  engraveSizes,
  fallOff,
  lineWidthAt,
  rowSpan,
  STROKE_A,
  STROKE_B,
  WIDTH_DOUBT,
  widthFactorFrom,
  withNumber,
} from './sizes.ts'
export { engraveWorking } from './working.ts'
export { engraveOperation, writeEngrave } from './write.ts'
