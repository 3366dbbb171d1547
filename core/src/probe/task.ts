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
})
export type ProbeDraft = z.infer<typeof probeDraft>
export type ProbeField = 'x' | 'y' | 'top' | 'depth' | 'size' | 'gap' | 'search' | 'clearance'

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
  /** Above the top, for moving sideways. */
  clearance: number
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
}

/** The words of a field for a feature. */
export function labelOf(feature: ProbeFeature, field: ProbeField): { label: string; hint: string } {
  const place =
    feature === 'surface'
      ? 'touch'
      : feature.endsWith('corner')
        ? 'corner'
        : feature === 'edge'
          ? 'first touch'
          : 'centre'
  const size =
    feature === 'web' || feature === 'pocket'
      ? 'Width'
      : feature === 'edge'
        ? 'Base between the touches'
        : 'Diameter'
  switch (field) {
    case 'x':
      return { label: `X of the ${place}`, hint: 'On the drawing.' }
    case 'y':
      return { label: `Y of the ${place}`, hint: 'On the drawing.' }
    case 'top':
      return { label: 'Z of the top', hint: 'On the drawing.' }
    case 'depth':
      return { label: 'Depth from the top', hint: 'Signed: below is minus.' }
    case 'size':
      return { label: size, hint: feature === 'edge' ? 'As long as the edge allows.' : 'On the drawing.' }
    case 'gap':
      return { label: 'Gap at the start', hint: 'Stylus to surface.' }
    case 'search':
      return { label: 'Search at most', hint: 'Gap and a margin.' }
    case 'clearance':
      return { label: 'Clear above the top', hint: 'For moving sideways.' }
  }
}

/** Common practice: stand about 3/8 in or 10 mm off, search that and an eighth more. */
const USUAL: Record<LengthUnit, Pick<ProbeDraft, 'gap' | 'search' | 'clearance' | 'depth'>> = {
  inch: { gap: '.375', search: '.500', clearance: '1.000', depth: '-.250' },
  mm: { gap: '10', search: '13', clearance: '25', depth: '-6' },
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
      search: value('search'),
      clearance: value('clearance'),
    },
  }
}
