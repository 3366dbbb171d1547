import {
  computed,
  formOf,
  type KeptOf,
  length,
  number,
  oneOf,
  type TypedOf,
  unanswered,
  yesNo,
} from '../cycle/index.ts'

const above = (says: string) => length({ above: 0, says })
const notBelow = (says: string) => length({ least: 0, says })
const turns = number({ least: 1, most: 100_000, says: 'Spindle speed in rpm, from 1.' })
const surface = number({ least: 1, most: 5_000, says: 'A speed over the surface, from 1.' })

/**
 * A groove outside, inside or in a face, as a drawing gives it, the insert, and how it is cut. Diameters outside and
 * inside, Z for what lies along the bar; in a face the walls are diameters and the bottom is a Z. A field that may stay
 * empty is computed.
 */
const fields = {
  where: oneOf(['outside', 'inside', 'face']),
  surface: length(),
  near: length(),
  far: length(),
  bottom: length(),
  widthTolerance: notBelow('A tolerance is zero or more, to each side.'),
  bottomTolerance: notBelow('A tolerance is zero or more, to each side.'),
  corner: notBelow('The radius in the corners is zero or more.'),
  edge: oneOf(['none', 'chamfer', 'round']),
  edgeSize: above('The size of the chamfer or radius is more than zero.'),
  count: number({
    least: 1,
    most: 200,
    whole: true,
    says: 'How many grooves: a whole number from 1 to 200.',
  }),
  pitch: above('From one groove to the next: more than zero.'),

  tool: number({ least: 1, most: 9999, whole: true, says: 'A tool number is a whole number from 1.' }),
  insertWidth: computed(above('The width of the insert is more than zero.')),
  insertCorner: notBelow('The corner radius of the insert is zero or more.'),
  /** The corner at the lower coordinate (towards the chuck; in a face towards the centre) or the other. */
  programmed: oneOf(['low', 'high']),
  reach: computed(above('How deep the insert can go: more than zero.')),
  minBore: computed(above('The smallest bore that the bar enters: more than zero.')),
  faceLeast: computed(above('The smallest diameter of a first cut: more than zero.')),
  faceMost: computed(above('The largest diameter of a first cut: more than zero.')),

  clearance: above('The clearance is more than zero.'),
  /** Z in front of the part, from where the bar goes into the bore: of its end, whichever corner is programmed. */
  front: length(),
  stepover: computed(above('The stepover is more than zero.')),
  pecking: yesNo,
  peck: computed(above('A peck is more than zero.')),
  peckRetreat: computed(above('How far a peck comes back: more than zero.')),
  start: computed(length()),
  last: computed(length()),
  finish: yesNo,
  wallStock: notBelow('What is left for the finishing pass is zero or more.'),
  floorStock: notBelow('What is left for the finishing pass is zero or more.'),
  feed: computed(above('The feed a turn is more than zero.')),
  finishFeed: computed(above('The feed a turn is more than zero.')),

  speed: oneOf(['surface', 'turns']),
  surfaceSpeed: computed(surface),
  turns,
  clamp: computed(turns),
  coolant: yesNo,
}

export type GrooveDraft = TypedOf<typeof fields>
export type GrooveParams = KeptOf<typeof fields>
export type GrooveField = keyof GrooveDraft

/** Whether the form asks for a field, as it stands. */
export function grooveFieldAsked(draft: GrooveDraft, field: GrooveField): boolean {
  switch (field) {
    case 'edgeSize':
      return draft.edge !== 'none'
    case 'pitch':
      return draft.count.trim() !== '1'
    case 'minBore':
    case 'front':
      return draft.where === 'inside'
    case 'faceLeast':
    case 'faceMost':
      return draft.where === 'face'
    case 'peck':
    case 'peckRetreat':
      return draft.pecking
    case 'wallStock':
    case 'floorStock':
    case 'finishFeed':
      return draft.finish
    case 'surfaceSpeed':
    case 'clamp':
      return draft.speed === 'surface'
    case 'turns':
      return draft.speed === 'turns'
    default:
      return true
  }
}

export const grooveForm = formOf(fields, (draft) => (field) => grooveFieldAsked(draft, field))

/** What a drawing says of a groove, and the corner of the insert, as an example has it. */
export function exampleGroove(unit: 'inch' | 'mm') {
  const inch = unit === 'inch'
  return {
    surface: inch ? '1.375' : '32',
    near: inch ? '-.42' : '-12',
    far: inch ? '-.607' : '-16.7',
    bottom: inch ? '1.155' : '26.4',
    widthTolerance: inch ? '.003' : '.1',
    bottomTolerance: inch ? '.002' : '.05',
    corner: inch ? '.01' : '.2',
    edgeSize: inch ? '.01' : '.3',
    pitch: inch ? '.5' : '12',
    insertCorner: inch ? '.008' : '.2',
  }
}

/** A new groove, in the setup's unit. */
export function newGroove(unit: 'inch' | 'mm'): GrooveDraft {
  const inch = unit === 'inch'
  return {
    ...unanswered(exampleGroove(unit)),
    where: 'outside',
    edge: 'none',
    count: '1',
    tool: '',
    insertWidth: '',
    programmed: 'low',
    reach: '',
    minBore: '',
    faceLeast: '',
    faceMost: '',
    clearance: inch ? '.1' : '2.5',
    front: inch ? '.1' : '2.5',
    stepover: '',
    pecking: true,
    peck: '',
    peckRetreat: '',
    start: '',
    last: '',
    finish: true,
    wallStock: inch ? '.005' : '.1',
    floorStock: inch ? '.005' : '.1',
    feed: '',
    finishFeed: '',
    speed: 'surface',
    surfaceSpeed: '',
    turns: '800',
    clamp: '2500',
    coolant: true,
  }
}
