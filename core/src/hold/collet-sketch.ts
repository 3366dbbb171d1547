import { type Collet, closingRatio } from './collet.ts'
import type { BarRange } from './grip.ts'
import { movingRatio, type StopKind } from './stop.ts'

/** The cutaway of a collet on a bar, in shares of the largest bar's radius; z plus away from the spindle. */
export interface ColletSketch {
  /** Radius of the bar as drawn. */
  radius: number
  /** Drawn angle of the cone per side, in degrees; undefined for jaws, which have none. */
  coneDegrees?: number
  /** How far the collet or jaws stand forward of where they stand on the smallest bar. */
  collet: number
  /** The same for the draw tube, and for the stopped end of the bar. */
  tube: number
  bar: number
  /** How many times the differences in diameter and place are drawn; the bar itself is drawn to scale. */
  exaggeration: number
}

/** Difference in radius that the whole spread is drawn as, in shares of the bar's radius. */
const DRAWN_SPREAD = 0.06

/**
 * What moves as the bar goes from the smallest (share 0) to the largest (share 1). Diameters and places are exaggerated
 * by the same factor, so that the cone and its ratio are drawn true.
 */
export function colletSketch(
  collet: Pick<Collet, 'closing' | 'ratio'>,
  stop: StopKind,
  range: BarRange,
  share: number,
): ColletSketch {
  const largest = range.greatest / 2 || 1
  const spread = range.greatest - range.least
  const exaggeration = spread > 0 ? (DRAWN_SPREAD * 2 * largest) / spread : 1
  // In shares of the largest radius: the drawn difference in diameter, and what each thing moves by for it.
  const drawn = spread > 0 ? 2 * DRAWN_SPREAD * share : 0
  const closes = closingRatio(collet).value
  const cone =
    collet.ratio.from === 'angle'
      ? collet.ratio.degreesPerSide
      : (Math.atan(1 / (2 * closes)) * 180) / Math.PI
  return {
    radius: 1 - DRAWN_SPREAD * (spread > 0 ? 1 - share : 0),
    ...(collet.closing === 'jaws' ? {} : { coneDegrees: cone }),
    collet: collet.closing === 'pull' ? closes * drawn : 0,
    tube: closes * drawn,
    bar: movingRatio(collet, stop).value * drawn,
    exaggeration,
  }
}
