import {
  computed,
  formOf,
  type KeptOf,
  length,
  name,
  number,
  oneOf,
  type TypedOf,
  words,
} from '../cycles/cycle/index.ts'
import type { OneCall, ProbeTask } from '../probe/index.ts'
import {
  convertLength,
  type DraftRead,
  type LengthUnit,
  roundTo,
  type TypedLength,
} from '../quantity/index.ts'
import { readSized } from './sized.ts'
import { readTolerance, type ToleranceEntry } from './tolerance.ts'

/** What can be gauged: all that a probe cycle measures, the distance between two of them, and what is measured by hand. */
export const FEATURE_KINDS = [
  'bore',
  'boss',
  'web',
  'pocket',
  'surface',
  'outside-corner',
  'inside-corner',
  'edge',
  'distance',
  'hand',
] as const
export type FeatureKind = (typeof FEATURE_KINDS)[number]

/** What is done with a result. */
const REACTIONS = ['record', 'stop', 'wear', 'offset', 'skip', 'right-part'] as const
export type Reaction = (typeof REACTIONS)[number]

export const FEATURE_NAMES: Record<FeatureKind, string> = {
  bore: 'bore',
  boss: 'boss',
  web: 'web',
  pocket: 'pocket',
  surface: 'one surface',
  'outside-corner': 'outside corner',
  'inside-corner': 'inside corner',
  edge: 'angle of an edge',
  distance: 'distance between two',
  hand: 'measured by hand',
}

export const REACTION_NAMES: Record<Reaction, string> = {
  record: 'only record it',
  stop: 'stop when out of tolerance',
  wear: 'correct the wear of a tool',
  offset: 'correct the work offset',
  skip: 'skip what follows when out of tolerance',
  'right-part': 'is it the right part?',
}

const anyLength = length()
const positive = (says: string) => length({ above: 0, says })

/** A nominal size: a length, or one with its tolerance (20 H7, 1.2500 to 1.2510). */
const nominal = {
  ...positive('A size must be more than zero.'),
  read: (typed: string, unit: LengthUnit) => {
    const sized = readSized(typed, unit)
    if (!sized?.tolerance || sized.value <= 0)
      return positive('A size must be more than zero.').read(typed, unit)
    return { ok: true as const, value: { text: sized.text, value: sized.value, unit } }
  },
}

const degrees = number({ least: -360, most: 360, says: 'Degrees, from -360 to 360.' })

const FIELDS = {
  name: words(20, 'Give it a name, such as BORE A.'),
  what: oneOf(FEATURE_KINDS),
  axis: oneOf(['X', 'Y', 'Z']),
  directionX: oneOf(['+', '-']),
  directionY: oneOf(['+', '-']),
  x: anyLength,
  y: anyLength,
  top: anyLength,
  depth: anyLength,
  nominal,
  angle: degrees,
  tolerance: { ...words(30, 'Type the tolerance: .0005, +.001 -.0005, or H7.'), blank: '0' },
  base: positive('The base must be more than zero.'),
  gap: positive('The gap must be more than zero.'),
  past: positive('It must search at least a little past the surface.'),
  from: name,
  to: name,
  along: oneOf(['X', 'Y', 'straight']),
  react: oneOf(REACTIONS),
  tool: computed(number({ least: 1, most: 200, whole: true, says: 'A tool number from 1 to 200.' })),
  share: number({ least: 0.01, most: 1, says: 'A share from 0.01 to 1 of the error.' }),
  deadBand: computed(length({ least: 0, says: 'A dead band is zero or more.' })),
  limit: computed(positive('The limit must be more than zero.')),
} as const
type Fields = typeof FIELDS
export type FeatureField = keyof Fields

const PLACE: readonly FeatureField[] = ['x', 'y', 'top', 'depth']
const APPROACH: readonly FeatureField[] = ['gap', 'past']

/** What each kind asks for, before what is done with the result. */
const ASKS: Record<FeatureKind, readonly FeatureField[]> = {
  bore: ['nominal', 'tolerance', ...PLACE, 'past'],
  pocket: ['axis', 'nominal', 'tolerance', ...PLACE, 'past'],
  boss: ['nominal', 'tolerance', ...PLACE, ...APPROACH],
  web: ['axis', 'nominal', 'tolerance', ...PLACE, ...APPROACH],
  surface: ['axis', 'tolerance', ...PLACE, ...APPROACH],
  'outside-corner': ['directionX', 'directionY', 'tolerance', ...PLACE, ...APPROACH],
  'inside-corner': ['directionX', 'directionY', 'tolerance', ...PLACE, ...APPROACH],
  edge: ['axis', 'angle', 'tolerance', 'base', ...PLACE, ...APPROACH],
  distance: ['from', 'to', 'along', 'nominal', 'tolerance'],
  hand: ['nominal', 'tolerance'],
}

const SIZED: readonly FeatureKind[] = ['bore', 'boss', 'web', 'pocket']

/** Whether it has a size of its own, measured from both sides. */
export const isSized = (what: FeatureKind) => SIZED.includes(what)
/** Whether a probe measures it itself. */
export const isProbed = (what: FeatureKind) => what !== 'distance' && what !== 'hand'
export const isCorner = (what: FeatureKind) => what === 'outside-corner' || what === 'inside-corner'

/** What can be done with a result of each kind. */
export function reactionsOf(what: FeatureKind): readonly Reaction[] {
  if (what === 'hand') return ['record']
  if (what === 'distance') return ['record', 'stop', 'skip', 'right-part']
  if (isSized(what)) return ['record', 'stop', 'wear', 'skip', 'right-part']
  if (what === 'surface') return ['record', 'stop', 'wear', 'offset', 'skip']
  return isCorner(what) ? ['record', 'stop', 'offset', 'skip'] : ['record', 'stop', 'skip']
}

/** Which axis a kind is measured along; corners, bores and bosses take two. */
export const axesFor = (what: FeatureKind): readonly ('X' | 'Y' | 'Z')[] =>
  what === 'surface' ? ['X', 'Y', 'Z'] : ASKS[what].includes('axis') ? ['X', 'Y'] : []

/** The fields that a feature asks for as its form stands, in the order of the work. */
export function featureFields(of: Pick<TypedOf<Fields>, 'what' | 'axis' | 'react'>): readonly FeatureField[] {
  const { what, axis } = of
  const react = reactionsOf(what).includes(of.react) ? of.react : 'record'
  const top = what === 'surface' && axis === 'Z'
  const direction: readonly FeatureField[] =
    (what === 'surface' || what === 'edge') && !top ? [axis === 'Y' ? 'directionY' : 'directionX'] : []
  const asked = ASKS[what].filter((field) => !(top && field === 'depth'))
  const correction = ['share', 'deadBand', 'limit'] as const
  const reaction: readonly FeatureField[] = react === 'wear' || react === 'offset' ? correction : []
  const cutBy: readonly FeatureField[] = what === 'distance' ? [] : ['tool']
  return ['name', 'what', ...direction, ...asked, ...cutBy, 'react', ...reaction]
}

const form = formOf(FIELDS, (draft) => {
  const asked = new Set<FeatureField>(featureFields(draft))
  return (field) => asked.has(field as FeatureField)
})

export const featureParams = form.params
export type FeatureParams = KeptOf<Fields>
export const featureDraft = form.draft
export type FeatureDraft = TypedOf<Fields>
export const draftOfFeature = form.write
/** A size that says its tolerance too (`20 H7`, `1.2500 to 1.2510`) answers both fields, in whichever of the two it was typed. */
function bothAnswered(draft: FeatureDraft, unit: LengthUnit): FeatureDraft {
  const { nominal: size, tolerance } = draft
  if (tolerance.trim() === '') {
    const own = readSized(size, unit)?.tolerance
    return own ? { ...draft, tolerance: own } : draft
  }
  const sized = size.trim() === '' ? readSized(tolerance, unit) : undefined
  return sized?.tolerance ? { ...draft, nominal: sized.text, tolerance: sized.tolerance } : draft
}

const valueIn = ({ value, unit }: TypedLength, to: LengthUnit) => convertLength(value, unit, to)

/** The nominal value that a tolerance counts from, in `unit`; of an angle degrees. */
const nominalOf = (of: FeatureParams, unit: LengthUnit): number =>
  of.what === 'edge' ? of.angle : valueIn(of.nominal, unit)

/** Deviations of a feature in `unit`, or in degrees. */
export function deviationsOf(of: FeatureParams, unit: LengthUnit): ToleranceEntry {
  return readTolerance(of.tolerance, nominalOf(of, unit), of.what === 'edge' ? 'deg' : unit)
}

/** What a feature's form comes to, or what each field still needs. */
export function readFeature(draft: FeatureDraft, unit: LengthUnit): DraftRead<FeatureParams> {
  const read = form.read(bothAnswered(draft, unit), unit)
  if (!read.ok) return read
  const tolerance = deviationsOf(read.value, unit)
  if (!tolerance.ok)
    return { ok: false, problems: { tolerance: { says: tolerance.says, empty: tolerance.empty } } }
  const react = reactionsOf(read.value.what).includes(read.value.react) ? read.value.react : 'record'
  if (react === 'wear' && read.value.tool === null)
    return {
      ok: false,
      problems: { tool: { says: 'Which tool cuts it? Its wear is corrected.', empty: true } },
    }
  const axes = axesFor(read.value.what)
  const axis = axes.length === 0 || axes.includes(read.value.axis) ? read.value.axis : 'X'
  return { ok: true, value: { ...read.value, react, axis } }
}

/** Common practice: stand about 3/8 in or 10 mm off and search a little past the surface. */
const USUAL: Record<LengthUnit, Pick<FeatureDraft, 'gap' | 'past' | 'depth'>> = {
  inch: { gap: '.375', past: '.100', depth: '-.250' },
  mm: { gap: '10', past: '2.5', depth: '-6' },
}

/** A feature's form as it comes. */
export const startingFeature = (what: FeatureKind, called: string, unit: LengthUnit): FeatureDraft => ({
  ...USUAL[unit],
  name: called,
  what,
  axis: what === 'surface' ? 'Z' : 'X',
  directionX: '+',
  directionY: '+',
  x: '',
  y: '',
  top: '0',
  nominal: '',
  angle: '0',
  tolerance: '',
  base: '',
  from: '',
  to: '',
  along: 'straight',
  react: 'record',
  tool: '',
  share: '0.5',
  deadBand: '',
  limit: '',
})

/** Another feature like one that stands: all of it but its place, which is nowhere yet. */
export const anotherFeature = (like: FeatureDraft, called: string): FeatureDraft => ({
  ...like,
  name: called,
  x: '',
  y: '',
})

/** A feature as the probe is told of it, in the setup's unit. `clear` is the height at which it moves sideways. */
export function probeTaskOf(
  of: FeatureParams,
  unit: LengthUnit,
  stylus: number,
  clear: number,
): ProbeTask & { feature: OneCall } {
  const value = (field: 'x' | 'y' | 'top' | 'depth' | 'gap' | 'past') => valueIn(of[field], unit)
  const size = of.what === 'edge' ? valueIn(of.base, unit) : isSized(of.what) ? valueIn(of.nominal, unit) : 0
  const inside = of.what === 'bore' || of.what === 'pocket'
  const gap = inside ? (size - stylus) / 2 : value('gap')
  const top = value('top')
  return {
    feature: of.what as OneCall,
    axis: of.axis,
    directionX: of.directionX,
    directionY: of.directionY,
    x: value('x'),
    y: value('y'),
    top,
    depth: value('depth'),
    size,
    gap,
    search: roundTo(gap + value('past'), 9),
    clearance: clear - top,
  }
}
