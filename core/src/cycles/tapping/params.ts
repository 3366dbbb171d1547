import {
  chosen,
  computed,
  formOf,
  type KeptOf,
  length,
  number,
  oneOf,
  placeFieldAsked,
  placesForm,
  type TypedOf,
  unanswered,
  yesNo,
} from '../cycle/index.ts'

const above = (says: string) => length({ above: 0, says })
const turns = (says: string) => number({ least: 1, most: 100_000, says })
const toolNumber = number({
  least: 1,
  most: 9999,
  whole: true,
  says: 'A tool number is a whole number from 1.',
})

/**
 * Tapped holes and what belongs to them, as one set: a chamfer, the drilled hole, the thread. Depths count down from the
 * top of the part and are positive; a field that may stay empty is computed.
 */
const fields = {
  /** Id of the library, or 'own'. */
  thread: chosen('Choose the thread.'),
  ownMajor: above('The outside diameter of a thread is more than zero.'),
  ownPitch: above('The pitch is a length a turn, more than zero.'),
  hand: oneOf(['right', 'left']),
  tap: oneOf(['cut', 'form']),
  lead: oneOf(['plug', 'bottoming', 'taper']),
  holder: oneOf(['rigid', 'floating']),

  hole: oneOf(['blind', 'through']),
  top: length(),
  thickness: above('How thick the part is there, more than zero.'),
  threadDepth: above('How deep the full thread goes, more than zero.'),
  drillDiameter: computed(above('The diameter of the drill is more than zero.')),
  drillDepth: computed(above('How deep the full diameter goes, more than zero.')),
  tapDepth: computed(above('How deep the tip of the tap goes, more than zero.')),
  point: number({ least: 60, most: 180, says: 'The angle of a drill point, from 60 to 180 degrees.' }),

  chamfer: yesNo,
  chamferDiameter: computed(above('The diameter of the chamfer is more than zero.')),
  chamferAngle: number({ least: 60, most: 120, says: 'The angle of a countersink, from 60 to 120 degrees.' }),
  drill: yesNo,
  drillWay: oneOf(['peck', 'break', 'plain']),
  drillPeck: computed(above('How deep a peck goes, more than zero.')),
  tapping: yesNo,
  tapPeck: yesNo,
  tapPeckDepth: computed(above('How deep a peck goes, more than zero.')),

  ...placesForm,

  clearance: length({ above: 0, says: 'The clearance is above the part: more than zero.' }),
  rPlane: computed(above('The R plane is above the part: more than zero.')),
  returns: oneOf(['initial', 'r']),

  chamferTool: toolNumber,
  drillTool: toolNumber,
  tapTool: toolNumber,

  chamferTurns: computed(turns('Spindle speed in rpm, from 1.')),
  drillTurns: computed(turns('Spindle speed in rpm, from 1.')),
  drillFeed: computed(above('The feed a turn is more than zero.')),
  tapTurns: computed(turns('Spindle speed in rpm, from 1.')),
  feedMode: oneOf(['minute', 'turn']),
  coolant: yesNo,

  multiple: oneOf(['best', 'typed', 'left']),
  multipleTyped: number({ least: 1, most: 9, says: 'A multiple from 1 to 9.' }),
}

export type TapDraft = TypedOf<typeof fields>
export type TapParams = KeptOf<typeof fields>
export type TapField = keyof TapDraft

/** Whether the form asks for a field, as it stands. */
export function tapFieldAsked(draft: TapDraft, field: TapField): boolean {
  if (field in placesForm) return placeFieldAsked(draft.pattern, field)
  switch (field) {
    case 'ownMajor':
    case 'ownPitch':
      return draft.thread === 'own'
    case 'thickness':
      return draft.hole === 'through'
    case 'threadDepth':
      return draft.hole === 'blind'
    case 'chamferDiameter':
    case 'chamferAngle':
    case 'chamferTool':
    case 'chamferTurns':
      return draft.chamfer
    case 'drillWay':
    case 'drillTool':
    case 'drillTurns':
    case 'drillFeed':
      return draft.drill
    case 'drillPeck':
      return draft.drill && draft.drillWay !== 'plain'
    case 'tapTool':
    case 'tapTurns':
    case 'tapPeck':
    case 'multiple':
      return draft.tapping
    case 'tapPeckDepth':
      return draft.tapping && draft.tapPeck
    case 'multipleTyped':
      return draft.tapping && draft.multiple === 'typed'
    default:
      return true
  }
}

export const tapForm = formOf(fields, (draft) => (field) => tapFieldAsked(draft, field))

/** What a drawing says of tapped holes, as an example has it. */
export function exampleTap(unit: 'inch' | 'mm') {
  const inch = unit === 'inch'
  return {
    thread: inch ? '1/4-20 UNC' : 'M6x1',
    ownMajor: inch ? '.25' : '6',
    ownPitch: inch ? '.05' : '1',
    thickness: inch ? '.75' : '20',
    threadDepth: inch ? '.5' : '12',
    x: '0',
    y: '0',
    count: '4',
    spacing: inch ? '1' : '25',
    angle: '0',
    rows: '2',
    rowSpacing: inch ? '1' : '25',
    diameter: inch ? '2' : '50',
    span: '90',
  }
}

/** A new set of tapped holes, in the setup's unit. */
export function newTap(unit: 'inch' | 'mm', lathe: boolean): TapDraft {
  const inch = unit === 'inch'
  return {
    ...unanswered(exampleTap(unit)),
    hand: 'right',
    tap: 'cut',
    lead: 'plug',
    holder: 'rigid',
    hole: 'blind',
    top: '0',
    drillDiameter: '',
    drillDepth: '',
    tapDepth: '',
    point: '118',
    chamfer: !lathe,
    chamferDiameter: '',
    chamferAngle: '90',
    drill: true,
    drillWay: 'peck',
    drillPeck: '',
    tapping: true,
    tapPeck: false,
    tapPeckDepth: '',
    pattern: 'list',
    list: '',
    clearance: inch ? '1' : '25',
    rPlane: '',
    returns: 'initial',
    chamferTool: '',
    drillTool: '',
    tapTool: '',
    chamferTurns: '',
    drillTurns: '',
    drillFeed: '',
    tapTurns: '',
    feedMode: 'minute',
    coolant: true,
    multiple: 'best',
    multipleTyped: '4',
  }
}
