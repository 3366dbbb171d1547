import { type Closing, type Collet, closingRatio } from './collet.ts'
import type { BarRange } from './grip.ts'
import { movingRatio, type StopKind } from './stop.ts'

/** The cutaway of a collet on a bar, in shares of the largest bar's radius; z plus away from the spindle. */
export interface ColletSketch {
  closing: Closing
  /** Radius of the bar as drawn, and of the smallest bar. */
  radius: number
  smallest: number
  /** Drawn angle of the cone per side, in degrees; undefined where nothing is drawn into a cone. */
  coneDegrees?: number
  /** How far the collet or jaws stand forward of where they stand on the smallest bar. */
  collet: number
  /** The same for the draw tube (of a collet at dead length: it pushes a sleeve forward), and for the stopped end of the bar. */
  tube: number
  bar: number
  /** How many times the differences in diameter and place are drawn; the bar itself is drawn to scale. */
  exaggeration: number
  /** The bar's true diameter, and how far its face truly stands from that of the smallest, in the unit of the range. */
  diameter: number
  moved: number
}

/** Bars that are drawn while none are known: a size and a usual tolerance, of which only the proportion shows. */
export const SAMPLE_BARS: BarRange = { least: 0.998, greatest: 1.002 }

/** Difference in radius that the whole spread is drawn as, and the most that anything may be drawn to move, in shares of the bar's radius. */
const DRAWN_SPREAD = 0.06
const DRAWN_MOVE = 0.5

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
  const closes = closingRatio(collet).value
  const { value: moving, way } = movingRatio(collet, stop)
  // In shares of the largest radius: the whole difference in diameter as drawn.
  const whole = spread > 0 ? 2 * Math.min(DRAWN_SPREAD, DRAWN_MOVE / (2 * Math.max(closes, 1e-9))) : 0
  const drawn = whole * share
  const cone =
    collet.ratio.from === 'angle'
      ? collet.ratio.degreesPerSide
      : (Math.atan(1 / (2 * closes)) * 180) / Math.PI
  return {
    closing: collet.closing,
    radius: 1 - (whole - drawn) / 2,
    smallest: 1 - whole / 2,
    ...(collet.closing === 'jaws' ? {} : { coneDegrees: cone }),
    collet: collet.closing === 'pull' ? closes * drawn : 0,
    // A sleeve that is pushed forward to close stops the earlier the larger the bar.
    tube: (collet.closing === 'dead-length' ? -1 : 1) * closes * drawn,
    bar: way * moving * drawn,
    exaggeration: spread > 0 ? (whole * largest) / spread : 1,
    diameter: range.least + spread * share,
    moved: way * moving * spread * share,
  }
}
