import { computedLength, convertLength, type LengthUnit, type TypedLength } from '../quantity/index.ts'
import type { Reading } from './reading.ts'

/** Which side of a place of the drawing the part lies on, by what was touched there; 'round' where it lies on both. */
export type Side = 'plus' | 'minus' | 'round'

/** Where a reading touched the part, on the drawing, and which way the part lies from there; undefined where it does not tell. */
export function touchedAt(reading: Reading, unit: LengthUnit): { at: number; side: Side } | undefined {
  const own = (of: TypedLength) => convertLength(of.value, of.unit, unit)
  // The spindle goes over the part into the face: towards plus, into a face that looks towards minus.
  const beyond = (direction: '+' | '-'): Side => (direction === '+' ? 'plus' : 'minus')
  switch (reading.method) {
    case 'edge-finder':
    case 'probe':
      return { at: own(reading.drawingPosition), side: beyond(reading.direction) }
    case 'corner':
      return reading.axis === 'X'
        ? { at: own(reading.drawingX), side: beyond(reading.directionX) }
        : { at: own(reading.drawingY), side: beyond(reading.directionY) }
    case 'middle':
      return reading.side === 'web' ? { at: own(reading.drawingPosition), side: 'round' } : undefined
    case 'probe-set': {
      const { axis, size, drawingPosition } = reading
      if (!drawingPosition) return undefined
      return axis === 'Z'
        ? { at: own(drawingPosition), side: 'minus' }
        : size && { at: own(drawingPosition), side: 'round' }
    }
    case 'tool-on-block':
    case 'tool-on-feeler':
    case 'sensor-down':
    case 'probe-down':
    case 'faced':
      return { at: own(reading.drawingPosition), side: 'minus' }
    default:
      return undefined
  }
}

/**
 * The same reading with part zero elsewhere on the drawing: every place of the drawing is by `by` (in `unit`) further along the axis
 * than it was, so that zero goes the other way by as much. What was read at the machine stays as it was typed; the place on the drawing
 * is written out.
 */
export function zeroMoved<Of extends Reading>(reading: Of, by: number, unit: LengthUnit): Of {
  const added = (of: TypedLength | undefined, more: number): TypedLength => {
    return computedLength((of ? convertLength(of.value, of.unit, unit) : 0) + more, unit)
  }
  if (reading.method === 'probe-set')
    return {
      ...reading,
      ...(reading.drawingPosition ? { drawingPosition: added(reading.drawingPosition, by) } : {}),
      shift: added(reading.shift, -by),
    }
  if (reading.method === 'from-offset') return { ...reading, shift: added(reading.shift, -by) }
  if (reading.method === 'circle' || reading.method === 'corner') {
    const name = reading.axis === 'X' ? 'drawingX' : 'drawingY'
    return { ...reading, [name]: added(reading[name], by) }
  }
  return 'drawingPosition' in reading
    ? { ...reading, drawingPosition: added(reading.drawingPosition, by) }
    : reading
}
