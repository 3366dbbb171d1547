import { z } from 'zod'
import { type DraftRead, type FieldProblems, type LengthUnit, lengthFields } from '../quantity/index.ts'

export const probeFeature = z.enum([
  'surface',
  'web',
  'pocket',
  'bore',
  'boss',
  'outside-corner',
  'inside-corner',
  'edge',
  'block',
  'corner-top',
])
export type ProbeFeature = z.infer<typeof probeFeature>

const way = z.enum(['+', '-'])

/** What stands in the form of a probe call: everything as typed, nothing promised. */
export const probeDraft = z.object({
  feature: probeFeature,
  axis: z.enum(['X', 'Y', 'Z']),
  directionX: way,
  directionY: way,
  x: z.string(),
  y: z.string(),
  top: z.string(),
  depth: z.string(),
  size: z.string(),
  gap: z.string(),
  search: z.string(),
  clearance: z.string(),
  sizeY: z.string().default(''),
  inset: z.string().default(''),
  within: z.string().default(''),
  startX: z.string().default(''),
  startY: z.string().default(''),
  startZ: z.string().default(''),
  probeLength: z.string().default(''),
})
export type ProbeDraft = z.infer<typeof probeDraft>
export type ProbeField = Exclude<keyof ProbeDraft, 'feature' | 'axis' | 'directionX' | 'directionY'>

/** Where the probe was put by hand before a program that finds the zero from there. */
export interface ProbeStart {
  /** Machine positions, over the middle of a block or over the place on a corner's top. */
  X: number
  Y: number
  Z: number
  /** Of the probe, in the machine's own convention. */
  length: number
}

/** A feature to be probed: places on the drawing in the work offset, lengths in one unit. */
export interface ProbeTask {
  feature: ProbeFeature
  /** The axis that the probe moves along to touch; of a web or pocket the axis across it; Z for a top. */
  axis: 'X' | 'Y' | 'Z'
  directionX: '+' | '-'
  directionY: '+' | '-'
  /** The touched place, the centre or the corner. */
  x: number
  y: number
  /** Z of the top of the feature. */
  top: number
  /** Centre of the ball from the top, signed: below is minus. */
  depth: number
  /** Width, diameter, or the base between two touches of an edge. */
  size: number
  /** From the stylus to the surface where the search begins. */
  gap: number
  /** How far it goes at most from there. */
  search: number
  /** Above the top, for moving sideways; where the probe stands at the start, if it was put there. */
  clearance: number
  /** Of a block: its width along Y; `size` is that along X. */
  sizeY?: number
  /** Of a corner with its top: from both faces to where the top is touched. */
  inset?: number
  /** Of both: how far a face, or the place where the probe stands, may lie from where it is said to be. */
  within?: number
  start?: ProbeStart
}

export interface FeatureForm {
  name: string
  /** The fields that it asks for, in the order of the work. */
  fields: readonly ProbeField[]
  /** Axes that it can be touched along; empty where it takes X and Y. */
  axes: readonly ('X' | 'Y' | 'Z')[]
  /** Axes whose direction into the face must be told; 'axis' for that of the feature. */
  asksDirection: 'axis' | 'both' | 'none'
  /** It is touched from within, so that the gap follows from its size. */
  inside: boolean
}

const PLACE = ['x', 'y', 'top', 'depth'] as const
const FROM_OUTSIDE: readonly ProbeField[] = [...PLACE, 'gap', 'search', 'clearance']
const FROM_INSIDE: readonly ProbeField[] = ['size', ...PLACE, 'search', 'clearance']
const SIZED: readonly ProbeField[] = ['size', ...FROM_OUTSIDE]
const corner = { fields: FROM_OUTSIDE, axes: [], asksDirection: 'both', inside: false } as const
const PLACED: readonly ProbeField[] = ['x', 'y', 'top']
const APPROACHED: readonly ProbeField[] = ['gap', 'within', 'clearance']
const PUT_THERE: readonly ProbeField[] = ['probeLength', 'startX', 'startY', 'startZ']

/** What each feature asks for. */
export const FEATURES: Record<ProbeFeature, FeatureForm> = {
  surface: {
    name: 'one surface',
    fields: FROM_OUTSIDE,
    axes: ['X', 'Y', 'Z'],
    asksDirection: 'axis',
    inside: false,
  },
  web: { name: 'web', fields: SIZED, axes: ['X', 'Y'], asksDirection: 'none', inside: false },
  pocket: { name: 'pocket', fields: FROM_INSIDE, axes: ['X', 'Y'], asksDirection: 'none', inside: true },
  bore: { name: 'bore', fields: FROM_INSIDE, axes: [], asksDirection: 'none', inside: true },
  boss: { name: 'boss', fields: SIZED, axes: [], asksDirection: 'none', inside: false },
  'outside-corner': { name: 'outside corner', ...corner },
  'inside-corner': { name: 'inside corner', ...corner },
  edge: { name: 'angle of an edge', fields: SIZED, axes: ['X', 'Y'], asksDirection: 'axis', inside: false },
  block: {
    name: 'block, middle and top',
    fields: ['size', 'sizeY', 'depth', ...PLACED, ...APPROACHED, ...PUT_THERE],
    axes: [],
    asksDirection: 'none',
    inside: false,
  },
  'corner-top': {
    name: 'corner and top',
    fields: ['inset', 'depth', ...PLACED, ...APPROACHED, ...PUT_THERE],
    axes: [],
    asksDirection: 'both',
    inside: false,
  },
}

/** Whether a feature gives X, Y and Z in one program, from where the probe was put by hand. */
export const isWhole = ({ feature }: Pick<ProbeTask, 'feature'>) =>
  feature === 'block' || feature === 'corner-top'

const PLACE_NAMES: Partial<Record<ProbeFeature, string>> = {
  surface: 'touch',
  edge: 'first touch',
  block: 'middle',
}
const SIZE_NAMES: Partial<Record<ProbeFeature, string>> = {
  web: 'Width',
  pocket: 'Width',
  edge: 'Base between the touches',
}

interface FieldWords {
  label: string
  hint: string
}

/** The words of a field of a block or a corner with its top: three share a row. */
const WHOLE_WORDS: Record<Exclude<ProbeField, 'x' | 'y' | 'search'>, FieldWords> = {
  size: { label: 'Length along X', hint: 'As it was sawn.' },
  sizeY: { label: 'Width along Y', hint: 'As it was sawn.' },
  inset: { label: 'Top touched in', hint: 'From both faces.' },
  top: { label: 'Z of the top', hint: '0: it is part zero.' },
  depth: { label: 'Depth from top', hint: 'Below is minus.' },
  gap: { label: 'Gap at the start', hint: 'Stylus to face.' },
  within: { label: 'Known within', hint: 'Sizes and place.' },
  clearance: { label: 'Stands above', hint: '3/8 in or 10 mm.' },
  probeLength: { label: 'Probe length', hint: 'As in the tool table.' },
  startX: { label: 'Machine X', hint: '' },
  startY: { label: 'Machine Y', hint: '' },
  startZ: { label: 'Machine Z', hint: '' },
}

/** The words of a field for a feature. */
export function labelOf(feature: ProbeFeature, field: ProbeField): FieldWords {
  const place = PLACE_NAMES[feature] ?? (feature.includes('corner') ? 'corner' : 'centre')
  const whole = isWhole({ feature })
  if (field === 'x' || field === 'y')
    return {
      label: `${field.toUpperCase()} of the ${place}`,
      hint: whole ? '0: it is part zero.' : 'On the drawing.',
    }
  if (field === 'search') return { label: 'Search at most', hint: 'Gap and a margin.' }
  if (whole) return WHOLE_WORDS[field]
  switch (field) {
    case 'top':
      return { label: 'Z of the top', hint: 'On the drawing.' }
    case 'depth':
      return { label: 'Depth from the top', hint: 'Signed: below is minus.' }
    case 'size':
      return {
        label: SIZE_NAMES[feature] ?? 'Diameter',
        hint: feature === 'edge' ? 'As long as the edge allows.' : 'On the drawing.',
      }
    case 'gap':
      return { label: 'Gap at the start', hint: 'Stylus to surface.' }
    case 'clearance':
      return { label: 'Clear above the top', hint: 'For moving sideways.' }
    default:
      return WHOLE_WORDS[field]
  }
}

/** Common practice: stand about 3/8 in or 10 mm off, search that and an eighth more. */
const USUAL: Record<
  LengthUnit,
  Pick<ProbeDraft, 'gap' | 'search' | 'clearance' | 'depth' | 'inset' | 'within'>
> = {
  inch: { gap: '.375', search: '.500', clearance: '1.000', depth: '-.250', inset: '.500', within: '.125' },
  mm: { gap: '10', search: '13', clearance: '25', depth: '-6', inset: '12', within: '3' },
}
/** How high a probe stands over a block or corner at the start, where it is put by hand. Common practice. */
const USUAL_START: Record<LengthUnit, string> = { inch: '.375', mm: '10' }

/** What the clear height of a form is, as it comes with a feature; undefined where it is the person's own. */
export function usualClearance(
  draft: ProbeDraft,
  feature: ProbeFeature,
  unit: LengthUnit,
): string | undefined {
  const own = draft.clearance.trim()
  const [before, after] = isWhole({ feature })
    ? [USUAL[unit].clearance, USUAL_START[unit]]
    : [USUAL_START[unit], USUAL[unit].clearance]
  return own === before ? after : undefined
}

/** The form as it comes: how the probe goes about it as is usual; where the feature is, only the drawing knows. */
export const startingProbeDraft = (unit: LengthUnit): ProbeDraft => ({
  feature: 'surface',
  axis: 'X',
  directionX: '+',
  directionY: '+',
  x: '',
  y: '',
  top: '0',
  size: '',
  sizeY: '',
  startX: '',
  startY: '',
  startZ: '',
  probeLength: '',
  ...USUAL[unit],
})

/** Whether a task comes down on its surface: no depth, no direction. */
export const isTop = ({ feature, axis }: Pick<ProbeTask, 'feature' | 'axis'>) =>
  feature === 'surface' && axis === 'Z'

/** The fields that a form asks for as it stands. */
export const fieldsOf = (draft: Pick<ProbeDraft, 'feature' | 'axis'>): readonly ProbeField[] =>
  FEATURES[draft.feature].fields.filter((field) => !(field === 'depth' && isTop(draft)))

/** Turns the form into a task, or says what each field still needs. Lengths are read in `unit`. */
export function readProbeDraft(draft: ProbeDraft, unit: LengthUnit, stylus: number): DraftRead<ProbeTask> {
  const form = FEATURES[draft.feature]
  const problems: FieldProblems = {}
  const length = lengthFields(unit, problems)
  const typed: Partial<Record<ProbeField, number>> = {}
  for (const field of fieldsOf(draft)) {
    const value = length(field, draft[field])?.value
    if (value !== undefined) typed[field] = value
  }
  if (Object.keys(problems).length > 0) return { ok: false, problems }
  const value = (field: ProbeField) => typed[field] ?? 0
  const axis = form.axes.length > 0 && !form.axes.includes(draft.axis) ? 'X' : draft.axis
  return {
    ok: true,
    value: {
      feature: draft.feature,
      axis,
      directionX: draft.directionX,
      directionY: draft.directionY,
      x: value('x'),
      y: value('y'),
      top: value('top'),
      depth: value('depth'),
      size: value('size'),
      gap: form.inside ? (value('size') - stylus) / 2 : value('gap'),
      search: isWhole(draft) ? value('gap') + value('within') : value('search'),
      clearance: value('clearance'),
      ...(isWhole(draft)
        ? {
            ...(draft.feature === 'block' ? { sizeY: value('sizeY') } : { inset: value('inset') }),
            within: value('within'),
            start: {
              X: value('startX'),
              Y: value('startY'),
              Z: value('startZ'),
              length: value('probeLength'),
            },
          }
        : {}),
    },
  }
}
