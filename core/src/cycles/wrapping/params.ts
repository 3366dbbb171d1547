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
const atLeast = (says: string) => length({ least: 0, says })
const count = (most: number, says: string) => number({ least: 1, most, whole: true, says })
const every = number({
  least: 0,
  most: 1000,
  whole: true,
  says: 'Every how many lines: a whole number, 0 for none.',
})
const degrees = number({ least: -360, most: 360, says: 'Degrees, from -360 to 360.' })

/** Most characters of a program that is wrapped: it is kept in the log with its form. */
export const LONGEST_FLAT = 40_000

/**
 * A flat layout on a cylinder whose axis lies along X: X along it from the part's end, Y round it, flat Y zero where the
 * turning begins. Depth counts down from the surface and is positive; a field that may stay empty is computed.
 */
const fields = {
  what: oneOf(['scale', 'text', 'slots', 'holes', 'program']),

  diameter: above('The diameter of the cylinder is more than zero.'),
  /** Which circle the lengths round it are true on. */
  trueAt: oneOf(['surface', 'bottom']),
  zZero: oneOf(['top', 'centre']),
  /** Where the layout's X zero lies, and the degrees that its Y zero lies at. */
  x: length(),
  turn: degrees,
  way: oneOf(['mapping', 'moves']),
  slash: yesNo,

  /** A scale: lines along the axis, at even steps round it. */
  divisions: count(3_600, 'How many divisions: a whole number from 1 to 3600.'),
  covers: oneOf(['turn', 'part']),
  span: number({ least: 0.01, most: 3600, says: 'Degrees, from 0.01.' }),
  shortLine: above('The short line is more than zero.'),
  middleLine: above('The middle line is more than zero.'),
  longLine: above('The long line is more than zero.'),
  middleEvery: every,
  longEvery: every,
  numeralEvery: every,
  numeralFirst: number({ least: -999_999, most: 999_999, whole: true, says: 'A whole number.' }),
  numeralStep: number({ least: -99_999, most: 99_999, whole: true, says: 'A whole number.' }),
  numeralHeight: above('The height of a numeral is more than zero.'),
  numeralsRun: oneOf(['round', 'along']),
  numeralGap: atLeast('The gap between a line and its numeral is zero or more.'),

  text: words(60, 'Type what is to be engraved.'),
  runs: oneOf(['along', 'round']),
  textHeight: above('The height of a capital is more than zero.'),

  slotsRun: oneOf(['along', 'round']),
  slots: count(360, 'How many slots: a whole number from 1 to 360.'),
  /** Of a slot along; of one round, its degrees. */
  slotLength: above('A slot is longer than zero.'),
  slotSpan: number({ least: 0.01, most: 3600, says: 'Degrees, from 0.01.' }),
  slotPitch: length(),

  holes: count(3_600, 'How many holes round: a whole number from 1.'),
  rows: count(200, 'How many rows: a whole number from 1.'),
  rowSpacing: length(),

  program: words(LONGEST_FLAT, 'Paste a flat program, or open one.'),

  tool: number({ least: 1, most: 9999, whole: true, says: 'A tool number is a whole number from 1.' }),
  depth: above('The depth is more than zero.'),
  stepDown: computed(above('A step down is more than zero.')),
  turns: computed(number({ least: 1, most: 100_000, says: 'Spindle speed in rpm, from 1.' })),
  feed: above('The feed is more than zero.'),
  plungeFeed: computed(above('The feed down is more than zero.')),
  rPlane: computed(above('The R plane is above the part: more than zero.')),
  clearance: above('The clearance is above the part: more than zero.'),
  /** How far chords may lie off an arc. */
  chord: computed(above('The tolerance of chords is more than zero.')),
  coolant: yesNo,
}

export type WrapDraft = TypedOf<typeof fields>
export type WrapParams = KeptOf<typeof fields>
export type WrapField = keyof WrapDraft

const OF: Partial<Record<WrapField, WrapDraft['what']>> = {
  divisions: 'scale',
  covers: 'scale',
  span: 'scale',
  shortLine: 'scale',
  middleLine: 'scale',
  longLine: 'scale',
  middleEvery: 'scale',
  longEvery: 'scale',
  numeralEvery: 'scale',
  numeralFirst: 'scale',
  numeralStep: 'scale',
  numeralHeight: 'scale',
  numeralsRun: 'scale',
  numeralGap: 'scale',
  text: 'text',
  runs: 'text',
  textHeight: 'text',
  slotsRun: 'slots',
  slots: 'slots',
  slotLength: 'slots',
  slotSpan: 'slots',
  slotPitch: 'slots',
  holes: 'holes',
  rows: 'holes',
  rowSpacing: 'holes',
  program: 'program',
}

const none = (typed: string) => /^0*$/.test(typed.trim())

/** Whether the form asks for a field, as it stands. */
export function wrapFieldAsked(draft: WrapDraft, field: WrapField): boolean {
  const of = OF[field]
  if (of !== undefined && of !== draft.what) return false
  switch (field) {
    case 'span':
      return draft.covers === 'part'
    case 'middleLine':
      return !none(draft.middleEvery)
    case 'longLine':
      return !none(draft.longEvery)
    case 'numeralFirst':
    case 'numeralStep':
    case 'numeralHeight':
    case 'numeralsRun':
    case 'numeralGap':
      return !none(draft.numeralEvery)
    case 'slotLength':
      return draft.slotsRun === 'along'
    case 'slotSpan':
      return draft.slotsRun === 'round'
    case 'slotPitch':
      return draft.slotsRun === 'round' && draft.slots.trim() !== '1'
    case 'rowSpacing':
      return draft.rows.trim() !== '1'
    case 'depth':
    case 'stepDown':
    case 'plungeFeed':
    case 'feed':
      return draft.what !== 'program'
    default:
      return true
  }
}

export const wrapForm = formOf(fields, (draft) => (field) => wrapFieldAsked(draft, field))

/** What a drawing says of a layout on a cylinder, as an example has it. */
export function exampleWrap(unit: 'inch' | 'mm') {
  const inch = unit === 'inch'
  return {
    diameter: inch ? '1.5' : '40',
    x: inch ? '-.5' : '-12',
    divisions: '50',
    span: '90',
    shortLine: inch ? '.06' : '1.5',
    middleLine: inch ? '.09' : '2.2',
    longLine: inch ? '.12' : '3',
    middleEvery: '5',
    longEvery: '10',
    numeralEvery: '10',
    numeralFirst: '0',
    numeralStep: '10',
    numeralHeight: inch ? '.1' : '2.5',
    textHeight: inch ? '.125' : '3.5',
    slots: '6',
    slotLength: inch ? '.75' : '20',
    slotSpan: '90',
    slotPitch: inch ? '.25' : '6',
    holes: '6',
    rowSpacing: inch ? '.5' : '12',
    depth: inch ? '.006' : '.15',
  }
}

/** A new layout on a cylinder, in the setup's unit. */
export function newWrap(unit: 'inch' | 'mm'): WrapDraft {
  const inch = unit === 'inch'
  return {
    ...unanswered(exampleWrap(unit)),
    what: 'scale',
    trueAt: 'surface',
    zZero: 'top',
    turn: '0',
    way: 'mapping',
    slash: false,
    covers: 'turn',
    numeralsRun: 'round',
    numeralGap: inch ? '.03' : '.8',
    text: '',
    runs: 'along',
    slotsRun: 'along',
    rows: '1',
    program: '',
    tool: '',
    stepDown: '',
    turns: '',
    feed: inch ? '8' : '200',
    plungeFeed: '',
    rPlane: '',
    clearance: inch ? '1' : '25',
    chord: '',
    coolant: true,
  }
}
