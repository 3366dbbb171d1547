import {
  type Answer,
  combineDoubt,
  type Finding,
  finding,
  resolutionDoubt,
  type WorkingLine,
  worstFirst,
} from '../fact/index.ts'
import { fitLine, type LineFit } from '../geometry/index.ts'
import { fixedDigits, formatLength, formatLess, formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { formOf } from './jaw-form.ts'
import { DIAL_REPEATS, type PlainSweep, plainSweep, type Sweep, type SweptPoint } from './sweep.ts'

/** The tap that makes the jaw square: where, which way, and what the dial then shows. */
export interface Tap {
  /** The swept point at which the dial stands while tapping: the one farthest from the bolt. */
  at: number
  /** What it reads before the tap. */
  from: number
  /** What the dial must show when the jaw is square: not zero, unless the dial was zeroed over the bolt. */
  target: number
  /** True movement of the jaw there, always positive. */
  by: number
  /** 'left' or 'right' of the bolt. */
  side: 'left' | 'right'
  /** Which way the jaw goes there: towards the front (the operator, and the dial) or to the back. */
  way: 'front' | 'back'
}

export interface Squareness {
  ok: true
  sweep: PlainSweep
  fit: LineFit
  /** True slope of the jaw, per unit of length; positive where the right end stands nearer to the dial. */
  slope: number
  /** Degrees counter-clockwise seen from above (from +Z). */
  angle: number
  /** How far the part would be out over its length: value and doubt in the setup's unit, without sign. */
  outOfSquare: Answer<number>
  /** Whether that is within what the part allows. */
  within: boolean
  tap: Tap
  findings: Finding[]
}

export type Squared = Squareness | { ok: false; findings: Finding[] }

/** A slope with six digits, as it is written into the arithmetic. */
const slopeText = (slope: number) => fixedDigits(slope, 6)
const inParentheses = (text: string) => (text.startsWith('-') ? `(${text})` : text)

/** Two levers that differ by less of themselves are one and the same, whatever the rounding. */
const SAME_LEVER = 1e-9

/**
 * target = reading there - m (x - pivot): turning the jaw by -m about the bolt takes m (x - pivot) off the reading at x.
 * With the dial zeroed at x0 this is m (pivot - x0). Derived; small angles.
 */
function tapOf(sweep: PlainSweep, slope: number): Tap {
  const { pivot, points, cosine, towardsDial } = sweep
  // Of two that are as far from the bolt, the first one: not the one that rounding favours in this unit.
  const far = points.reduce((best, each) =>
    Math.abs(each.at - pivot) > Math.abs(best.at - pivot) * (1 + SAME_LEVER) ? each : best,
  )
  const lever = far.at - pivot
  const change = -slope * lever
  return {
    at: far.at,
    from: far.reading,
    target: far.reading + change,
    by: Math.abs(change) * cosine,
    side: lever > 0 ? 'right' : 'left',
    way: change * towardsDial > 0 ? 'front' : 'back',
  }
}

function workingOf(sweep: PlainSweep, fit: LineFit, tap: Tap | undefined): WorkingLine[] {
  const { unit, points, pivot, cosine, partLength } = sweep
  const length = (value: number) => formatLength(value, unit)
  const [first, last] = [points[0], points.at(-1)] as [SweptPoint, SweptPoint]
  const m = slopeText(fit.slope)
  const lines: WorkingLine[] = [
    points.length === 2
      ? {
          finds: 'slope m',
          arithmetic: `(${length(last.reading)} ${formatLess(first.reading, unit)}) / (${length(last.at)} ${formatLess(first.at, unit)})`,
          gives: m,
        }
      : { finds: 'slope m', arithmetic: `least squares line through ${points.length} readings`, gives: m },
  ]
  if (tap)
    lines.push({
      finds: 'target',
      arithmetic: `${length(tap.from)} - ${inParentheses(m)} x (${length(tap.at)} ${formatLess(pivot, unit)})`,
      means: 'the reading there, less what the turn takes off it',
      gives: formatLength(tap.target, unit, { plus: true }),
    })
  lines.push({
    finds: 'out of square',
    arithmetic: `|${m}| x ${length(partLength)}${cosine === 1 ? '' : ` x ${fixedDigits(cosine, 4)}`}`,
    means: `slope x part${cosine === 1 ? '' : ' x cosine of the stylus angle'}`,
    gives: length(Math.abs(fit.slope) * cosine * partLength),
  })
  return lines
}

function outOfSquareOf(sweep: PlainSweep, fit: LineFit, working: WorkingLine[]): Answer<number> {
  const { unit, cosine, partLength, dialStep } = sweep
  // Each part is brought from one reading to the slope, and from there to the length of the part.
  const share = (cosine * partLength) / Math.sqrt(fit.spreadOfX)
  return {
    value: Math.abs(fit.slope) * cosine * partLength,
    unit,
    working,
    doubt: combineDoubt([
      {
        from: `dial reads in steps of ${formatWithUnit(dialStep, unit)}`,
        value: resolutionDoubt(dialStep) * share,
      },
      { from: 'indicator repeats to', value: DIAL_REPEATS[unit] * share },
    ]),
  }
}

/** What each reading stands off the line by, in the setup's unit and the dial's sign; empty for two, which leave nothing over. */
export const offTheLine = ({ sweep: { points }, fit }: Pick<Squareness, 'sweep' | 'fit'>) =>
  points.length < 3 ? [] : points.map(({ at }, index) => ({ at, off: fit.residuals[index] ?? 0 }))

/** How far a single reading may stand off the line before something is the matter. */
const readingLimit = ({ dialStep, unit }: PlainSweep) =>
  Math.max(dialStep, 3 * Math.hypot(resolutionDoubt(dialStep), DIAL_REPEATS[unit]))

/** A coarse first sweep: turn the vise by eye first. [inch, mm] */
const COARSE = { inch: 0.1, mm: 2.5 }

/** Where the dial must come to, against zero: nearer to it, on the other side, or away from it. */
function pastZero({ from, target }: Tap): string {
  if (from === 0) return 'the target is past zero: where the dial shows nothing now'
  if (target * from < 0) return 'the target is past zero, on the other side'
  return Math.abs(target) <= Math.abs(from)
    ? 'the target is short of zero, on the near side'
    : 'the target is farther from zero than the dial stands now'
}

function guards(sweep: PlainSweep, tap: Tap): Finding[] {
  const { unit, points, pivot, partLength, cosine } = sweep
  const places = points.map(({ at }) => at)
  const [least, greatest] = [Math.min(...places), Math.max(...places)]
  const base = greatest - least
  const findings: Finding[] = []
  const loose = sweep.bolts === 'one'
  if (loose && pivot > least && pivot < greatest)
    findings.push(
      finding(
        'note',
        'pivot-between',
        'pivot',
        `The bolt lies between the swept points: ${pastZero(tap)}.`,
        'Both ends of the sweep move, in opposite directions. A bolt outside the sweep moves the dial further and shows more.',
      ),
    )
  if (base < partLength / 2)
    findings.push(
      finding(
        'look',
        'short-base',
        'points',
        `The sweep is ${formatWithUnit(base, unit)} long for a part of ${formatWithUnit(partLength, unit)}.`,
        'What the dial cannot tell over the sweep grows with the length of the part.',
        'Sweep as much of the jaw as there is.',
      ),
    )
  if (points.some(({ reading }) => Math.abs(reading) > COARSE[unit]))
    findings.push(
      finding(
        'look',
        'coarse',
        'points',
        `A reading of more than ${formatWithUnit(COARSE[unit], unit)} is a lot for a test indicator.`,
        'The stylus changes its angle over such a way, and a coarse angle shifts the jaw as it turns.',
        'Turn the vise by eye first, then sweep. Check the unit and the point.',
      ),
    )
  if (cosine < 0.5)
    findings.push(
      finding(
        'look',
        'steep-stylus',
        'stylusAngle',
        `At this angle the dial shows ${fixedDigits(1 / cosine, 1)} times what the jaw moves.`,
        'True movement = reading x cosine of the angle; a small error in the angle counts for much.',
        'Lay the stylus nearly flat along the jaw.',
      ),
    )
  return findings
}

function verdictOnSquare(
  { unit, allowed, bolts, partLength }: PlainSweep,
  { value, doubt }: Answer<number>,
): Finding[] {
  if (value > allowed)
    return [
      finding(
        'look',
        'not-square',
        'points',
        `Out of square by ${formatWithUnit(value, unit)} over the part; it allows ${formatWithUnit(allowed, unit)}.`,
        `Over ${formatWithUnit(partLength, unit)}, from the slope of the jaw.`,
        bolts === 'one'
          ? 'Tap to the target, zero the dial again, and sweep.'
          : 'Take one bolt out and square it again: it moved when it was tightened.',
      ),
    ]
  if (doubt.value > allowed)
    return [
      finding(
        'look',
        'cannot-tell',
        'points',
        `This sweep is good for ${formatWithUnit(doubt.value, unit)} over the part; it allows ${formatWithUnit(allowed, unit)}.`,
        'The doubt of two readings, brought to the length of the part.',
        'Sweep a longer base, take more readings, or use a finer dial.',
      ),
    ]
  return []
}

/** What a sweep says: slope, out of square over the part, the tap that squares it, and what looks wrong. */
export function squareness(from: Sweep, unit: LengthUnit): Squared {
  const sweep = plainSweep(from, unit)
  const fit = fitLine(sweep.points.map(({ at, reading }) => ({ x: at, y: reading })))
  if (!fit)
    return {
      ok: false,
      findings: [
        finding(
          'stop',
          'points-together',
          'points',
          'The swept points lie on top of each other.',
          'A slope needs two places along the jaw.',
          'Read the dial at two places far apart, and check the numbers.',
        ),
      ],
    }
  const tap = tapOf(sweep, fit.slope)
  const outOfSquare = outOfSquareOf(
    sweep,
    fit,
    workingOf(sweep, fit, sweep.bolts === 'one' ? tap : undefined),
  )
  const slope = fit.slope * sweep.cosine * sweep.towardsDial
  return {
    ok: true,
    sweep,
    fit,
    slope,
    // The dial stands in front of the jaw: a right end nearer to it is turned clockwise seen from above.
    angle: (-Math.atan(slope) * 180) / Math.PI,
    outOfSquare,
    within: outOfSquare.value <= sweep.allowed,
    tap,
    findings: worstFirst([
      ...verdictOnSquare(sweep, outOfSquare),
      ...guards(sweep, tap),
      ...formOf(sweep, fit, readingLimit(sweep)),
    ]),
  }
}
