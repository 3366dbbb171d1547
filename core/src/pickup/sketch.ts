import type { LengthUnit } from '../quantity/index.ts'
import type { PickupDraft } from './draft.ts'
import type { ChoiceName, FieldName, PickupMethod } from './methods.ts'
import { meanOf, readPosition } from './position.ts'

/** What is drawn: which picture a method has. */
type SketchKind = 'face' | 'plane' | 'middle' | 'sweep' | 'height' | 'turned' | 'faced' | 'shown'

/** Where the spindle axis (for Z: the gauge line) stands, in machine positions along the axis. */
export interface SpindlePlace {
  at: number
  field: FieldName
}

/**
 * What a pickup looks like along its axis, in machine positions in the setup's unit: the picture behind the numbers.
 * Fields not yet typed have stand-ins, so that the picture means something from the start; `known` says which are real.
 */
export interface Sketch {
  axis: 'X' | 'Y' | 'Z'
  kind: SketchKind
  spindles: SpindlePlace[]
  /** The touched face or plane, the middle of two, a centre. */
  feature: number
  /** The faces that were touched, where there are two. */
  faces: readonly number[]
  /** Whether they were touched from inside. */
  inside: boolean
  zero: number
  /** The part along the axis, as far as it is drawn. */
  bodies: readonly { from: number; to: number }[]
  /** Finder diameter, or twice the indicator's swing; 0 where there is none. */
  tip: number
  /** Way that the spindle moved into the face. */
  direction: '+' | '-'
  toolLength: number
  blockHeight: number
  /** Lowest and highest place that the picture must show. */
  least: number
  greatest: number
  known: ReadonlySet<FieldName | ChoiceName>
  /** The lengths that were typed and understood. */
  values: Partial<Record<FieldName, number>>
}

type LengthField = Exclude<FieldName, 'tool' | 'points' | 'pointsX' | 'pointsY' | 'cornerAngle'>

const STAND_INS: Record<LengthField, Record<LengthUnit, number>> = {
  diameter: { inch: 0.2, mm: 5 },
  machinePosition: { inch: 0, mm: 0 },
  minusSide: { inch: -1, mm: -25 },
  plusSide: { inch: 1, mm: 25 },
  low: { inch: -1, mm: -25 },
  high: { inch: 1, mm: 25 },
  width: { inch: 2, mm: 50 },
  plusDial: { inch: 0, mm: 0 },
  minusDial: { inch: 0, mm: 0 },
  nominal: { inch: 1, mm: 25 },
  toolLength: { inch: 4, mm: 100 },
  blockHeight: { inch: 1, mm: 25 },
  shown: { inch: 0, mm: 0 },
  size: { inch: 2, mm: 50 },
  measured: { inch: 1, mm: 25 },
  drawingPosition: { inch: 0, mm: 0 },
  drawingX: { inch: 0, mm: 0 },
  drawingY: { inch: 0, mm: 0 },
}

const KINDS: Partial<Record<PickupMethod, SketchKind>> = {
  'edge-finder': 'face',
  probe: 'face',
  sensor: 'face',
  indicator: 'plane',
  middle: 'middle',
  swept: 'sweep',
  'tool-on-block': 'height',
  'tool-on-feeler': 'height',
  'sensor-down': 'height',
  'probe-down': 'height',
  skimmed: 'turned',
  faced: 'faced',
}

/** Reads the fields of a form, with a stand-in for each that is not understood. */
function reader(draft: PickupDraft, unit: LengthUnit) {
  const known = new Set<FieldName | ChoiceName>()
  const values: Partial<Record<FieldName, number>> = {}
  const typed = (field: FieldName) => {
    const entry = readPosition(draft.fields[field] ?? '', unit)
    return entry.ok ? meanOf(entry.value) : undefined
  }
  const length = (field: LengthField, standIn = STAND_INS[field][unit]) => {
    const value = typed(field)
    if (value === undefined) return standIn
    known.add(field)
    values[field] = value
    return value
  }
  /** Two positions of which one may be missing: the other then stands apart from it as usual. */
  const pair = (low: LengthField, high: LengthField): [number, number] => {
    const [a, b] = [typed(low), typed(high)]
    const apart = STAND_INS[high][unit] - STAND_INS[low][unit]
    return [
      length(low, b === undefined ? undefined : b - apart),
      length(high, a === undefined ? undefined : a + apart),
    ]
  }
  return { known, values, length, pair }
}

type Part = Pick<Sketch, 'spindles' | 'feature' | 'bodies'> &
  Partial<Pick<Sketch, 'faces' | 'inside' | 'tip' | 'toolLength' | 'blockHeight' | 'direction'>> & {
    /** Places that the picture must show besides part zero. */
    shows: readonly number[]
    zero?: number
  }

type Reader = ReturnType<typeof reader>

function faceSketch(
  { method, choices }: PickupDraft,
  { known, length }: Reader,
  drawing: number,
  unit: LengthUnit,
): Part {
  const direction = choices.direction === '-' ? '-' : '+'
  if (choices.direction) known.add('direction')
  const s = direction === '+' ? 1 : -1
  const standIn = STAND_INS.diameter[unit]
  const tip = method === 'sensor' ? 0 : Math.abs(length('diameter')) || standIn
  const at = length('machinePosition')
  const feature = at + (s * tip) / 2
  const size = tip || standIn
  const reach = Math.max(6 * size, 1.3 * Math.abs(drawing))
  return {
    spindles: [{ at, field: 'machinePosition' }],
    feature,
    direction,
    tip,
    bodies: [s > 0 ? { from: feature, to: feature + reach } : { from: feature - reach, to: feature }],
    shows: [at - 2.5 * size, at + 2.5 * size, feature + s * reach],
  }
}

function planeSketch({ pair }: Reader, drawing: number, unit: LengthUnit): Part {
  const [minus, plus] = pair('minusSide', 'plusSide')
  const tip = Math.abs(plus - minus) || 2 * STAND_INS.plusSide[unit]
  const feature = (minus + plus) / 2
  const reach = Math.max(1.2 * tip, 1.2 * Math.abs(drawing))
  return {
    spindles: [
      { at: minus, field: 'minusSide' },
      { at: plus, field: 'plusSide' },
    ],
    feature,
    tip,
    bodies: [{ from: feature, to: feature + reach }],
    shows: [minus, plus, feature - 0.8 * tip, feature + 0.8 * tip],
  }
}

function middleSketch({ choices }: PickupDraft, { known, length, pair }: Reader): Part {
  for (const name of ['side', 'device'] as const) if (choices[name]) known.add(name)
  const inside = choices.side === 'pocket'
  const [low, high] = pair('low', 'high')
  const point = choices.device === 'sensor' || choices.device === 'indicator'
  const tip = point ? 0 : Math.abs(length('diameter'))
  const out = inside ? -tip / 2 : tip / 2
  const faces = [low + out, high - out] as const
  const wall = 0.3 * Math.abs(high - low) || 1
  return {
    spindles: [
      { at: low, field: 'low' },
      { at: high, field: 'high' },
    ],
    feature: (low + high) / 2,
    faces,
    inside,
    tip,
    bodies: inside
      ? [
          { from: faces[0] - wall, to: faces[0] },
          { from: faces[1], to: faces[1] + wall },
        ]
      : [{ from: faces[0], to: faces[1] }],
    shows: [faces[0] - wall, faces[1] + wall, low - tip, high + tip],
  }
}

/** The walls stand off the centre by a stand-in: how large the bore is makes no difference. */
function sweepSketch({ choices }: PickupDraft, { known, length }: Reader, unit: LengthUnit): Part {
  if (choices.side) known.add('side')
  const inside = choices.side !== 'boss'
  const at = length('machinePosition')
  const off = (length('plusDial') - length('minusDial')) / 2
  const feature = at + (inside ? -off : off)
  const radius = Math.max(STAND_INS.nominal[unit] / 2, 6 * Math.abs(off))
  const faces = [feature - radius, feature + radius] as const
  return {
    spindles: [{ at, field: 'machinePosition' }],
    feature,
    faces,
    inside,
    bodies: [],
    shows: [feature - 1.6 * radius, feature + 1.6 * radius],
  }
}

function heightSketch({ method }: PickupDraft, { length }: Reader, drawing: number, unit: LengthUnit): Part {
  const at = length('machinePosition')
  const toolLength = length('toolLength')
  const between = method === 'tool-on-block' || method === 'tool-on-feeler'
  const blockHeight = between ? length('blockHeight') : 0
  const feature = at - toolLength - blockHeight
  const span = Math.max(Math.abs(toolLength) + Math.abs(blockHeight), STAND_INS.blockHeight[unit])
  const zero = feature - drawing
  return {
    spindles: [{ at, field: 'machinePosition' }],
    feature,
    toolLength,
    blockHeight,
    bodies: [{ from: Math.min(feature, zero) - 0.25 * span, to: feature }],
    shows: [at + 0.2 * span, at - toolLength, feature - 0.25 * span, zero - 0.05 * span, zero + 0.05 * span],
  }
}

/** In diameters: the bar lies about its centre line, and the tool stands at its upper edge. */
function turnedSketch({ length }: Reader): Part {
  const at = length('machinePosition')
  const measured = length('measured')
  return {
    spindles: [{ at, field: 'machinePosition' }],
    feature: at,
    zero: at - measured,
    bodies: [{ from: at - 2 * measured, to: at }],
    shows: [at - 2.3 * Math.abs(measured), at + 0.5 * Math.abs(measured)],
  }
}

function facedSketch({ length }: Reader, drawing: number, unit: LengthUnit): Part {
  const at = length('machinePosition')
  const reach = Math.max(STAND_INS.measured[unit], 3 * Math.abs(drawing))
  return {
    spindles: [{ at, field: 'machinePosition' }],
    feature: at,
    bodies: [{ from: at - reach, to: at }],
    shows: [at - reach, at + 0.4 * reach],
  }
}

function shownSketch({ known, length }: Reader, unit: LengthUnit): Part {
  const at = length('shown')
  length('width')
  const size = length('size')
  const reach = STAND_INS.width[unit]
  // Touched on both sides it is a middle; else it is drawn as the face that it usually is.
  const [from, to] = known.has('size') ? [at - size / 2, at + size / 2] : [at, at + reach]
  return {
    spindles: [],
    feature: at,
    zero: at,
    faces: known.has('size') ? [from, to] : [],
    bodies: [{ from, to }],
    shows: [Math.min(from, at - reach / 2), to],
  }
}

function partOf(kind: SketchKind, draft: PickupDraft, read: Reader, drawing: number, unit: LengthUnit): Part {
  switch (kind) {
    case 'face':
      return faceSketch(draft, read, drawing, unit)
    case 'plane':
      return planeSketch(read, drawing, unit)
    case 'middle':
      return middleSketch(draft, read)
    case 'sweep':
      return sweepSketch(draft, read, unit)
    case 'height':
      return heightSketch(draft, read, drawing, unit)
    case 'turned':
      return turnedSketch(read)
    case 'faced':
      return facedSketch(read, drawing, unit)
    case 'shown':
      return shownSketch(read, unit)
  }
}

/** Works out the picture of a form as it stands, however much of it has been typed. */
export function sketch(draft: PickupDraft, unit: LengthUnit): Sketch {
  const read = reader(draft, unit)
  const kind = KINDS[draft.method] ?? 'shown'
  const drawing = read.length('drawingPosition')
  const part = partOf(kind, draft, read, drawing, unit)
  const zero = part.zero ?? part.feature - drawing
  const { shows, ...rest } = part
  return {
    axis: draft.axis,
    kind,
    direction: '+',
    faces: [],
    inside: false,
    tip: 0,
    toolLength: 0,
    blockHeight: 0,
    known: read.known,
    values: read.values,
    ...rest,
    zero,
    least: Math.min(...shows, zero),
    greatest: Math.max(...shows, zero),
  }
}
