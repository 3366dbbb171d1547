import type { Macros } from '../control/index.ts'
import type { FeatureParams } from './feature.ts'

/** What a correction is written into: a variable of the control, what is added for an error of one, and its name. */
export interface CorrectionTarget {
  variable: number
  /** To be added to the variable for an error (measured less middle) of one, at a full share. */
  factor: number
  name: string
  /** Its name in a log file. */
  printed: string
}

/** The name of a tool's wear in a log file. */
const wearName = (tool: number, of: 'DIA' | 'LENGTH') => `T${tool} ${of} WEAR`

/**
 * Where a tool's wear is corrected, and how much for an error of one (measured less wanted), lengths in the unit of the
 * program. By common practice wear is added to what the table holds: with a cutter on the programmed path by its radius
 * (G41, G42), a larger radius keeps it further from the wall. A bore or pocket that is too large wants more of it, a boss or
 * web that is too large less; a face that is too far in the direction of the touch wants the cutter further back, more of it.
 * A length that is longer cuts higher: a top that is too high wants less of it.
 */
export function wearTarget(of: FeatureParams, tool: number, macros: Macros): CorrectionTarget {
  const length = of.what === 'surface' && of.axis === 'Z'
  if (length)
    return {
      variable: macros.lengthWear + tool - 1,
      factor: -1,
      name: `wear of length, T${tool}`,
      printed: wearName(tool, 'LENGTH'),
    }
  const perRadius = macros.wearAs === 'diameter' ? 2 : 1
  const common = {
    variable: macros.diameterWear + tool - 1,
    name: `wear of ${macros.wearAs}, T${tool}`,
    printed: wearName(tool, 'DIA'),
  }
  if (of.what === 'bore' || of.what === 'pocket') return { ...common, factor: perRadius / 2 }
  if (of.what === 'boss' || of.what === 'web') return { ...common, factor: -perRadius / 2 }
  const direction = of.axis === 'Y' ? of.directionY : of.directionX
  return { ...common, factor: direction === '+' ? perRadius : -perRadius }
}

/** Where a work offset is corrected: part zero moves with what was measured. Undefined for offsets that have no variable. */
export function offsetTarget(
  offset: string,
  axis: 'X' | 'Y' | 'Z',
  standard: readonly string[],
  macros: Macros,
): CorrectionTarget | undefined {
  const index = standard.indexOf(offset)
  if (index < 0) return undefined
  const { first, step } = macros.offsets
  return {
    variable: first + index * step + 'XYZ'.indexOf(axis),
    factor: 1,
    name: `${axis} of ${offset}`,
    printed: `${offset} ${axis}`,
  }
}
