import { viseIn, viseOpening } from '../hold/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import type { HoldState } from './hold.ts'

/** The vise that holds the part, as far as it was said which; it is the same vise wherever it stands. */
export function jawsIn(
  { clearance }: HoldState,
  unit: LengthUnit,
): { jaws?: { name: string; opening: number } } {
  const vise = clearance && viseIn(clearance.vise, unit)
  const opening = vise && viseOpening(vise)
  return vise && opening !== undefined ? { jaws: { name: vise.name, opening } } : {}
}
