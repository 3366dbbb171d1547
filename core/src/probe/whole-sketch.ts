import { type LengthUnit, readLength } from '../quantity/index.ts'
import type { ProbeDraft, ProbeField } from './task.ts'

interface Spot {
  x: number
  y: number
}

/** What a field stands for in the picture while nothing is understood in it. [inch, mm] */
const STAND_INS: Partial<Record<ProbeField, Record<LengthUnit, number>>> = {
  size: { inch: 4, mm: 100 },
  sizeY: { inch: 2, mm: 50 },
  inset: { inch: 0.5, mm: 12 },
  depth: { inch: -0.25, mm: -6 },
  gap: { inch: 0.375, mm: 10 },
  within: { inch: 0.125, mm: 3 },
  clearance: { inch: 0.375, mm: 10 },
}

/**
 * A block, or a corner with its top, as it is touched: in plan and from the front, on the drawing, in the setup's unit. What is not typed
 * yet has a stand-in; `known` says what is real.
 */
export interface WholeSketch {
  /** Of a corner the material goes on past the far sides. */
  isCorner: boolean
  part: { x0: number; x1: number; y0: number; y1: number; top: number; bottom: number }
  /** The corner, or the middle. */
  at: Spot
  /** Where the top is touched, and the probe stands at the start. */
  over: Spot
  /** The ball's centre where each search begins, and where it meets its face, in the order of the work after the top. */
  touches: readonly { from: Spot; to: Spot; axis: 'X' | 'Y' }[]
  /** Z of the ball's centre beside the part, and of its lowest point where the probe stands. */
  beside: number
  stands: number
  within: number
  radius: number
  /** Lengths as they are typed, signed. */
  values: Partial<Record<ProbeField, number>>
  known: ReadonlySet<ProbeField>
}

/** Works out the picture of such a form, however much of it has been typed. */
export function wholeSketch(draft: ProbeDraft, unit: LengthUnit, stylus: number): WholeSketch {
  const known = new Set<ProbeField>()
  const values: WholeSketch['values'] = {}
  const length = (field: ProbeField) => {
    const read = readLength(draft[field], unit)
    if (!read.ok) return STAND_INS[field]?.[unit] ?? 0
    known.add(field)
    values[field] = read.value
    return read.value
  }
  const positive = (field: ProbeField) => Math.abs(length(field)) || (STAND_INS[field]?.[unit] ?? 0)
  const isCorner = draft.feature === 'corner-top'
  const [x, y, top] = [length('x'), length('y'), length('top')]
  const [gap, within, inset] = [positive('gap'), positive('within'), positive('inset')]
  const radius = stylus / 2
  const depth = length('depth')
  const far = 4 * (inset + gap)
  const side = (direction: '+' | '-') => (direction === '+' ? 1 : -1)
  const [sx, sy] = [side(draft.directionX), side(draft.directionY)]
  const span = (at: number, s: number, size: number): [number, number] =>
    isCorner ? [Math.min(at, at + s * far), Math.max(at, at + s * far)] : [at - size / 2, at + size / 2]
  const [x0, x1] = span(x, sx, positive('size'))
  const [y0, y1] = span(y, sy, positive('sizeY'))
  const off = gap + radius
  const over = isCorner ? { x: x + sx * inset, y: y + sy * inset } : { x, y }
  const touch = (axis: 'X' | 'Y', face: number, way: number, along: number) =>
    axis === 'X'
      ? { axis, from: { x: face - way * off, y: along }, to: { x: face - way * radius, y: along } }
      : { axis, from: { x: along, y: face - way * off }, to: { x: along, y: face - way * radius } }
  const touches = isCorner
    ? // From the start, as far off along each face as it stands off (as the reader's macro goes).
      [touch('X', x, sx, y + sy * off), touch('Y', y, sy, x + sx * off)]
    : [touch('X', x1, -1, y), touch('X', x0, 1, y), touch('Y', y1, -1, x), touch('Y', y0, 1, x)]
  return {
    isCorner,
    part: { x0, x1, y0, y1, top, bottom: top - Math.max(4 * Math.abs(depth), 0.35 * (y1 - y0)) },
    at: { x, y },
    over,
    touches,
    beside: top + depth,
    stands: top + positive('clearance'),
    within,
    radius,
    values,
    known,
  }
}
