import { convertLength, type LengthUnit } from '../quantity/index.ts'
import { fromIndicator, fromMiddle, fromSensor, fromSweep, fromTouch } from './faces.ts'
import { fromCentreLine, fromFace, fromHeight, fromOffset, fromProbeSet, fromSkim } from './heights.ts'
import { fromCircle, fromCorner } from './plane.ts'
import { isHeight, type Reading } from './reading.ts'
import type { Pickup, PickupSettings } from './words.ts'

const isLength = (of: object): of is { value: number; unit: LengthUnit } => 'unit' in of && 'value' in of

/** The same value with every length in it brought into one unit (exactly, rounded once each). */
function lengthsIn(part: unknown, unit: LengthUnit): unknown {
  if (Array.isArray(part)) return part.map((each) => lengthsIn(each, unit))
  if (typeof part !== 'object' || part === null) return part
  const own =
    isLength(part) && part.unit !== unit ? { value: convertLength(part.value, part.unit, unit), unit } : {}
  return {
    ...Object.fromEntries(Object.entries(part).map(([name, each]) => [name, lengthsIn(each, unit)])),
    ...own,
  }
}

/** A reading, or any part of one, with all of its lengths in one unit. */
export const readingIn = <T extends object>(from: T, unit: LengthUnit) => lengthsIn(from, unit) as T

/** The unit of the first length in a reading, or in any part of an entry; undefined where there is none. */
export function unitIn(part: unknown): LengthUnit | undefined {
  if (typeof part !== 'object' || part === null) return undefined
  if (isLength(part)) return part.unit
  for (const each of Object.values(part)) {
    const unit = unitIn(each)
    if (unit) return unit
  }
  return undefined
}

function found(from: Reading, settings: PickupSettings): Pickup {
  if (isHeight(from)) return fromHeight(from, settings)
  switch (from.method) {
    case 'edge-finder':
    case 'probe':
      return fromTouch(from, settings)
    case 'sensor':
      return fromSensor(from, settings)
    case 'indicator':
      return fromIndicator(from, settings)
    case 'middle':
      return fromMiddle(from, settings)
    case 'swept':
      return fromSweep(from, settings)
    case 'circle':
      return fromCircle(from, settings)
    case 'corner':
      return fromCorner(from, settings)
    case 'probe-set':
      return fromProbeSet(from, settings)
    case 'from-offset':
      return fromOffset(from, settings)
    case 'centre-line':
      return fromCentreLine(from, settings)
    case 'skimmed':
      return fromSkim(from, settings)
    case 'faced':
      return fromFace(from, settings)
  }
}

/**
 * Finds where the spindle stands over part zero on one axis (on a lathe the tool's geometry), as a machine position in
 * the setup's unit, with the working and the doubt.
 */
export const pickUp = (from: Reading, settings: PickupSettings): Pickup =>
  found(readingIn(from, settings.unit), settings)
