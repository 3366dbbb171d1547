import type { TypedNumbers } from './typed-form.ts'

/** The numbers of a vise that are typed. */
export const VISE_NUMBERS: TypedNumbers = {
  jawLength: 'length',
  'parts.*.open.*': 'length',
  'parts.*.closed.*': 'length',
  'parts.*.bottom': 'length',
  'parts.*.top': 'length',
}

/** The numbers of a collet that are typed. */
export const COLLET_NUMBERS: TypedNumbers = {
  'ratio.degreesPerSide': 'number',
  'ratio.ratio': 'number',
  'ratio.doubt': 'number',
  ruleOfThumb: 'number',
  'takes.least': 'length',
  'takes.greatest': 'length',
}

/** The numbers of a tool that are typed. */
export const TOOL_NUMBERS: TypedNumbers = {
  number: 'number',
  diameter: 'length',
  flute: 'length',
  stickOut: 'length',
  holderDiameter: 'length',
  holderLength: 'length',
  pitch: 'length',
  nose: 'length?',
  'onLathe.bar': 'length',
}

/** The numbers of a material that are typed. */
export const MATERIAL_NUMBERS: TypedNumbers = {
  drilling: 'number',
  tapping: 'number',
  forming: 'number',
  grooving: 'number',
  drillFeed: 'number',
  grooveFeed: 'length',
}
