/**
 * How far off a value may be: its combined standard uncertainty (JCGM 100:2008, coverage factor 1), in the value's unit, and what it is
 * made of. The screens call it doubt; what is compared is called different beyond three times it.
 */
export interface Doubt {
  value: number
  parts: DoubtPart[]
}

export interface DoubtPart {
  /** Where it comes from: 'edge finder repeats to'. */
  from: string
  /** Its share, as a standard uncertainty in the result's unit, after any averaging. */
  value: number
}

/**
 * Combines independent parts by the root of the sum of their squares
 * (JCGM 100:2008, the GUM, 5.1.2, with sensitivity coefficients already applied).
 */
export function combineDoubt(parts: DoubtPart[]): Doubt {
  return { value: Math.hypot(...parts.map((part) => part.value)), parts }
}

/**
 * The doubt that a display's least step leaves: a rectangular distribution one step wide
 * has the standard uncertainty step / sqrt(12) (JCGM 100:2008, F.2.2.1).
 */
export const resolutionDoubt = (leastStep: number) => leastStep / Math.sqrt(12)

/** The doubt of the middle of two readings, each off by `each`: half of their sum in quadrature. */
export const middleDoubt = (each: number) => Math.hypot(each, each) / 2
