import { type LengthUnit, readLength } from '../quantity/index.ts'
import type { FieldName, PickupDraft } from './draft.ts'
import type { PickupMethod } from './reading.ts'

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
  method: PickupMethod
  spindles: SpindlePlace[]
  /** The touched face or plane. */
  feature: number
  zero: number
  /** The part's extent along the axis, as far as it is drawn. */
  body: { from: number; to: number }
  /** Finder diameter, or twice the indicator's swing; 0 where there is none. */
  tip: number
  /** Way that the spindle moved into the face. */
  direction: '+' | '-'
  toolLength: number
  blockHeight: number
  /** Lowest and highest place that the picture must show. */
  least: number
  greatest: number
  known: ReadonlySet<FieldName | 'direction'>
}

const STAND_INS: Record<Exclude<FieldName, 'tool'>, Record<LengthUnit, number>> = {
  diameter: { inch: 0.2, mm: 5 },
  machinePosition: { inch: 0, mm: 0 },
  minusSide: { inch: -1, mm: -25 },
  plusSide: { inch: 1, mm: 25 },
  toolLength: { inch: 4, mm: 100 },
  blockHeight: { inch: 1, mm: 25 },
  drawingPosition: { inch: 0, mm: 0 },
}

/** Works out the picture of a form as it stands, however much of it has been typed. */
export function sketch(draft: PickupDraft, unit: LengthUnit): Sketch {
  const known = new Set<FieldName | 'direction'>()
  const length = (field: Exclude<FieldName, 'tool'>, standIn = STAND_INS[field][unit]) => {
    const entry = readLength(draft.fields[field] ?? '', unit)
    if (!entry.ok) return standIn
    known.add(field)
    return entry.value
  }
  if (draft.direction) known.add('direction')
  const direction = draft.direction ?? '+'
  const drawing = length('drawingPosition')
  const common = { axis: draft.axis, method: draft.method, direction, known }

  if (draft.method === 'edge-finder') {
    const s = direction === '+' ? 1 : -1
    const tip = Math.abs(length('diameter')) || STAND_INS.diameter[unit]
    const at = length('machinePosition')
    const feature = at + (s * tip) / 2
    const zero = feature - drawing
    const reach = Math.max(6 * tip, 1.3 * Math.abs(drawing))
    return {
      ...common,
      spindles: [{ at, field: 'machinePosition' }],
      feature,
      zero,
      body: s > 0 ? { from: feature, to: feature + reach } : { from: feature - reach, to: feature },
      tip,
      toolLength: 0,
      blockHeight: 0,
      ...extent([at - 2.5 * tip, at + 2.5 * tip, zero, feature + s * reach]),
    }
  }

  if (draft.method === 'indicator') {
    const minusTyped = readLength(draft.fields.minusSide ?? '', unit)
    const plusTyped = readLength(draft.fields.plusSide ?? '', unit)
    const apart = 2 * STAND_INS.plusSide[unit]
    const minus = length('minusSide', plusTyped.ok ? plusTyped.value - apart : undefined)
    const plus = length('plusSide', minusTyped.ok ? minusTyped.value + apart : undefined)
    const tip = Math.abs(plus - minus) || apart
    const feature = (minus + plus) / 2
    const zero = feature - drawing
    const reach = Math.max(1.2 * tip, 1.2 * Math.abs(drawing))
    return {
      ...common,
      spindles: [
        { at: minus, field: 'minusSide' },
        { at: plus, field: 'plusSide' },
      ],
      feature,
      zero,
      body: { from: feature, to: feature + reach },
      tip,
      toolLength: 0,
      blockHeight: 0,
      ...extent([minus, plus, feature - 0.8 * tip, feature + 0.8 * tip, zero]),
    }
  }

  const at = length('machinePosition')
  const toolLength = length('toolLength')
  const blockHeight = length('blockHeight')
  const feature = at - toolLength - blockHeight
  const zero = feature - drawing
  const span = Math.max(Math.abs(toolLength) + Math.abs(blockHeight), STAND_INS.blockHeight[unit])
  return {
    ...common,
    spindles: [{ at, field: 'machinePosition' }],
    feature,
    zero,
    body: { from: Math.min(feature, zero) - 0.25 * span, to: feature },
    tip: 0,
    toolLength,
    blockHeight,
    ...extent([
      at + 0.2 * span,
      at - toolLength,
      feature - 0.25 * span,
      zero - 0.05 * span,
      zero + 0.05 * span,
    ]),
  }
}

const extent = (places: number[]) => ({ least: Math.min(...places), greatest: Math.max(...places) })
