import {
  computed,
  formOf,
  type KeptOf,
  length,
  number,
  oneOf,
  type TypedOf,
  unanswered,
  words,
  yesNo,
} from '../cycle/index.ts'

const above = (says: string) => length({ above: 0, says })
const serialNumber = (least: number, says: string) => number({ least, most: 999_999_999, whole: true, says })

/** Longest text of one cycle. */
export const LONGEST_TEXT = 60

/**
 * A text as it is meant: what it says and where it sits. # stands for a digit of a serial number. Depth counts down from the
 * top of the part and is positive; a field that may stay empty is computed.
 */
const fields = {
  text: words(LONGEST_TEXT, 'Type what is to be engraved.'),
  sits: oneOf(['box', 'line', 'start', 'arc']),
  /** The lower left corner of the box, the start of the line, that of the text, or the centre of the arc. */
  x: length(),
  y: length(),
  /** Degrees counter-clockwise; on an arc where the middle of the text stands. */
  angle: number({ least: -360, most: 360, says: 'Degrees, from -360 to 360.' }),
  boxWidth: above('The box is wider than zero.'),
  boxHeight: above('The box is taller than zero.'),
  toX: length(),
  toY: length(),
  align: oneOf(['middle', 'left', 'right']),
  diameter: above('The circle that the text stands on is more than zero.'),
  reads: oneOf(['outside', 'inside']),
  height: computed(above('The height of a capital is more than zero.')),

  way: oneOf(['cycle', 'moves']),
  top: length(),
  clearance: above('The clearance is above the part: more than zero.'),
  rPlane: computed(above('The R plane is above the part: more than zero.')),
  surface: oneOf(['flat', 'along', 'across']),
  surfaceDiameter: above('The diameter of the round face is more than zero.'),

  tool: number({ least: 1, most: 9999, whole: true, says: 'A tool number is a whole number from 1.' }),
  toolAngle: number({ least: 10, most: 150, says: 'The angle of the point, from 10 to 150 degrees.' }),
  tip: length({ least: 0, says: 'The flat of the tip is zero or more.' }),
  by: oneOf(['width', 'depth']),
  lineWidth: computed(above('The width of the line is more than zero.')),
  depth: computed(above('The depth is more than zero.')),

  turns: computed(number({ least: 1, most: 100_000, says: 'Spindle speed in rpm, from 1.' })),
  feed: computed(above('The feed is more than zero.')),
  plungeFeed: computed(above('The feed down is more than zero.')),
  coolant: yesNo,
  sharp: yesNo,
  tolerance: computed(above('The path tolerance is more than zero.')),

  /** The number of this part. */
  serial: serialNumber(0, 'A serial number is a whole number from 0.'),
  step: serialNumber(1, 'From one to the next: a whole number from 1.'),
  /** What the control's own counter shows. */
  counter: computed(serialNumber(0, 'What the counter shows: a whole number from 0.')),
}

export type EngraveDraft = TypedOf<typeof fields>
export type EngraveParams = KeptOf<typeof fields>
export type EngraveField = keyof EngraveDraft

/** Whether a text carries a serial number. */
export const hasSerial = (text: string) => text.includes('#')

/** Whether the form asks for a field, as it stands. */
export function engraveFieldAsked(draft: EngraveDraft, field: EngraveField): boolean {
  switch (field) {
    case 'angle':
      return draft.sits !== 'line'
    case 'boxWidth':
    case 'boxHeight':
      return draft.sits === 'box'
    case 'toX':
    case 'toY':
    case 'align':
      return draft.sits === 'line'
    case 'diameter':
    case 'reads':
      return draft.sits === 'arc'
    case 'surfaceDiameter':
      return draft.surface !== 'flat'
    case 'lineWidth':
      return draft.by === 'width'
    case 'depth':
      return draft.by === 'depth'
    case 'tolerance':
      return draft.sharp
    case 'serial':
    case 'step':
    case 'counter':
      return hasSerial(draft.text)
    default:
      return true
  }
}

export const engraveForm = formOf(fields, (draft) => (field) => engraveFieldAsked(draft, field))

/** What a drawing says of where a text sits, and the point of the tool, as an example has it. */
export function exampleEngraving(unit: 'inch' | 'mm') {
  const inch = unit === 'inch'
  return {
    x: '0',
    y: '0',
    boxWidth: inch ? '2' : '50',
    boxHeight: inch ? '.25' : '6',
    toX: inch ? '2' : '50',
    toY: '0',
    diameter: inch ? '2' : '50',
    surfaceDiameter: inch ? '4' : '100',
    serial: '1',
    toolAngle: '60',
    tip: inch ? '.005' : '.1',
  }
}

/** A new text, in the setup's unit. */
export function newEngraving(unit: 'inch' | 'mm'): EngraveDraft {
  const inch = unit === 'inch'
  return {
    ...unanswered(exampleEngraving(unit)),
    text: '',
    sits: 'box',
    angle: '0',
    align: 'middle',
    reads: 'outside',
    height: '',
    way: 'cycle',
    top: '0',
    clearance: inch ? '1' : '25',
    rPlane: '',
    surface: 'flat',
    tool: '',
    by: 'width',
    lineWidth: '',
    depth: '',
    turns: '',
    feed: '',
    plungeFeed: '',
    coolant: true,
    sharp: true,
    tolerance: '',
    step: '1',
    counter: '',
  }
}
