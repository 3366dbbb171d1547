import { type Finding, finding } from '../fact/index.ts'
import { formatLength, formatWithUnit } from '../quantity/index.ts'
import type { Squareness } from './squaring.ts'

/** What became of a tap: the share of the slope that is left, and where the vise really turned. */
export interface Convergence {
  /** Slope now over slope before: 0 is square, 1 unchanged, 2 twice as bad, negative gone past. */
  left: number
  /** The place about which the jaw turned, if the dial was brought to the target; undefined where it did not turn. */
  turnedAbout?: number
  findings: Finding[]
}

/** Shares of the slope that is left between which a tap has done something, but not what it should. */
const HARDLY_MOVED = 0.8
const WORSE = 1.2
const GONE_PAST = -0.2

/**
 * What is left of the slope when the readings were written down with the wrong sign and the target was followed on the
 * dial: the dial went from -r to the target of +r. Derived from the same small-angle line as the target itself.
 */
function leftIfReversed({ fit, tap, sweep }: Squareness): number | undefined {
  if (fit.slope === 0) return undefined
  return Math.abs(1 - (tap.target + tap.from) / (fit.slope * (tap.at - sweep.pivot)))
}

/**
 * Compares a sweep with the one before it, after a tap to the target with one bolt. With the dial brought from `from`
 * to `target` at x, and the slope gone from m1 to m2, the jaw turned about x - (target - from) / (m2 - m1). Derived.
 */
export function convergence(before: Squareness, now: Squareness): Convergence | undefined {
  const { tap } = before
  const m1 = before.fit.slope
  const m2 = now.fit.slope
  if (before.sweep.bolts !== 'one' || m1 === 0) return undefined
  const left = m2 / m1
  const turned = m2 - m1
  const result: Convergence = { left, findings: [] }
  const { outOfSquare } = now
  const { unit, allowed, partLength, cosine } = now.sweep
  // Whatever lies within the tolerance, or within what the dial can show, needs no explanation.
  if (outOfSquare.value <= Math.max(allowed, 3 * outOfSquare.doubt.value)) return result
  if (Math.abs(m1) * cosine * partLength <= 3 * before.outOfSquare.doubt.value) return result
  if (turned !== 0) result.turnedAbout = tap.at - (tap.target - tap.from) / turned
  const reversed = leftIfReversed(before)
  const margin = (3 * outOfSquare.doubt.value) / (Math.abs(m1) * cosine * partLength) + 0.05
  if (left > WORSE)
    result.findings.push(
      finding(
        'look',
        'worse',
        'points',
        'Worse than before: the jaw was turned the wrong way.',
        `The slope grew ${left.toFixed(1)} times. The sign of the readings is most likely reversed, or the tap went the other way.`,
        'Turn the dial by hand and see which way is plus, correct the sign, and tap until the dial shows the target.',
      ),
    )
  else if (reversed !== undefined && reversed > 0.15 && Math.abs(Math.abs(left) - reversed) < margin)
    result.findings.push(
      finding(
        'look',
        'sign-reversed',
        'points',
        'It looks as if the readings before the tap were written down with the sign reversed.',
        `A target of the wrong sign leaves ${(100 * reversed).toFixed(0)} % of the slope, and ${(100 * Math.abs(left)).toFixed(0)} % is left.`,
        'Look which way the dial counts, and tap to the new target.',
      ),
    )
  else if (left > HARDLY_MOVED)
    result.findings.push(
      finding(
        'look',
        'hardly-moved',
        'points',
        'The jaw hardly turned.',
        `${(100 * left).toFixed(0)} % of the slope is left.`,
        'Bring the dial to the target while tapping. If it springs back, the bolt is too tight or grit holds the base.',
      ),
    )
  else if (result.turnedAbout !== undefined)
    result.findings.push(
      finding(
        'look',
        left < GONE_PAST ? 'gone-past' : 'not-there-yet',
        'pivot',
        left < GONE_PAST
          ? 'The jaw went past square.'
          : 'The jaw came nearer, but not as far as the target should have brought it.',
        `If the dial was brought to ${formatLength(tap.target, unit, { plus: true })}, the vise turned about ${formatWithUnit(result.turnedAbout, unit)}, not ${formatLength(before.sweep.pivot, unit)}.`,
        'Check where the bolt is; the vise may turn about a tight corner of its base. Tap to the new target.',
      ),
    )
  return result
}
