import type { Macros } from '../control/index.ts'
import type { Quantity } from './characteristic.ts'
import type { FeatureParams } from './feature.ts'

/** Any radius: how large the cutter is does not count. */
const CUTTER = 0.25

/**
 * What the same feature of the next part would measure, with nothing changed but a variable of the control by `by`: computed
 * from where the cutter goes, not from the rule by which corrections are written. The control keeps the cutter's middle as
 * far from the wall as its table says (radius and wear); the cutter cuts as far as it is wide. A length that is longer by
 * some wear stands the tip that much higher. An offset that is larger makes every place count that much less.
 */
export function nextValue(
  of: FeatureParams,
  quantity: Quantity,
  value: number,
  by: number,
  wearAs: Macros['wearAs'],
): number {
  if (of.react === 'offset') return value - by
  if (of.what === 'surface' && quantity === 'Z') return value + by
  const kept = CUTTER + (wearAs === 'diameter' ? by / 2 : by)
  const inside = of.what === 'bore' || of.what === 'pocket'
  if (of.what === 'surface') {
    const direction = (quantity === 'Y' ? of.directionY : of.directionX) === '+' ? 1 : -1
    // The material begins at the wall and goes on in the direction of the touch; the cutter runs before it.
    const middle = value - direction * kept
    return middle + direction * CUTTER
  }
  // Half of the size from its middle to one wall; the cutter runs within, or round it.
  const middle = inside ? value / 2 - kept : value / 2 + kept
  return 2 * (inside ? middle + CUTTER : middle - CUTTER)
}
