import { type Finding, finding } from '../fact/index.ts'
import { fitLine, type LineFit } from '../geometry/index.ts'
import { formatLength, formatWithUnit } from '../quantity/index.ts'
import type { PlainSweep } from './sweep.ts'

/** A share of the residuals' squares that a bow must explain before it is called one. */
const BOW_EXPLAINS = 0.8

/** The bow of a jaw: how much its middle stands off the line through its ends, when that explains the residuals. */
function bow(sweep: PlainSweep, fit: LineFit): number | undefined {
  const middle = sweep.points.reduce((sum, { at }) => sum + at, 0) / sweep.points.length
  const parabola = fitLine(
    sweep.points.map(({ at }, index) => ({ x: (at - middle) ** 2, y: fit.residuals[index] ?? 0 })),
  )
  if (!parabola) return undefined
  const total = fit.residuals.reduce((sum, each) => sum + each ** 2, 0)
  const left = parabola.residuals.reduce((sum, each) => sum + each ** 2, 0)
  if (left > (1 - BOW_EXPLAINS) * total) return undefined
  const half = Math.max(...sweep.points.map(({ at }) => Math.abs(at - middle)))
  return -parabola.slope * half ** 2
}

/** The one reading without which the others lie on a line, with the fit of the others. */
function oddOneOut(sweep: PlainSweep, fit: LineFit, limit: number) {
  const worst = fit.residuals.reduce(
    (best, each, index) => (Math.abs(each) > Math.abs(fit.residuals[best] ?? 0) ? index : best),
    0,
  )
  const others = fitLine(
    sweep.points.filter((_, index) => index !== worst).map(({ at, reading }) => ({ x: at, y: reading })),
  )
  const point = sweep.points[worst]
  if (!point || !others || others.residuals.some((each) => Math.abs(each) > limit)) return undefined
  return { at: point.at, off: point.reading - (others.intercept + others.slope * point.at), others }
}

/**
 * What the readings say about the jaw itself, with three or more: a bow (sprung jaw, loose plate), one place
 * that stands out (chip, burr, slip of the pen), or just too much scatter. `limit`: how far a good reading may be off.
 */
export function formOf(sweep: PlainSweep, fit: LineFit, limit: number): Finding[] {
  const { unit, points } = sweep
  if (points.length < 3 || fit.residuals.every((each) => Math.abs(each) <= limit)) return []
  const worst = formatWithUnit(Math.max(...fit.residuals.map(Math.abs)), unit)
  const why = `A reading may stand ${formatWithUnit(limit, unit)} off the line: the step of the dial and how well an indicator repeats.`
  if (points.length === 3)
    return [
      finding(
        'look',
        'three-off-line',
        'points',
        `The three readings stand up to ${worst} off a straight line.`,
        `${why} Three readings cannot tell a sprung jaw from a chip at one place.`,
        'Wipe the jaw and take two more readings between these.',
      ),
    ]
  const odd = oddOneOut(sweep, fit, limit)
  if (odd)
    return [
      finding(
        'look',
        'one-stands-out',
        'points',
        `The reading at ${formatLength(odd.at, unit)} stands ${formatWithUnit(Math.abs(odd.off), unit)} off the line of the others.`,
        `${why} Without it the jaw is out by ${formatWithUnit(Math.abs(odd.others.slope) * sweep.cosine * sweep.partLength, unit)} over the part.`,
        'A chip or a burr sits there, or the number was misread: wipe, stone, and read that place again.',
      ),
    ]
  const sag = bow(sweep, fit)
  if (sag !== undefined)
    return [
      finding(
        'look',
        'bowed',
        'points',
        `The jaw is bowed: its middle stands ${formatWithUnit(Math.abs(sag) * sweep.cosine, unit)} off the line of its ends.`,
        `${why} The readings follow a bow: a sprung jaw, a jaw plate over a chip, or unequal bolts.`,
        'Take the jaw plate off, clean behind it, and tighten it evenly.',
      ),
    ]
  return [
    finding(
      'look',
      'rough',
      'points',
      `The readings stand up to ${worst} off a straight line.`,
      `${why} They follow neither a bow nor one bad place: dirt, a burred jaw, or a loose indicator.`,
      'Wipe and stone the jaw, check the indicator and its holder, and sweep again.',
    ),
  ]
}

/** A place that was swept beyond the ends of the jaw: a slip of the pen, or another vise. `jawLength` in the sweep's unit. */
export function offTheJaw({ points, unit }: PlainSweep, jawLength: number): Finding[] {
  const off = points.find(({ at }) => at < 0 || at > jawLength)
  if (!off) return []
  return [
    finding(
      'look',
      'off-the-jaw',
      'points',
      `The place ${formatLength(off.at, unit)} lies off the jaw, which is ${formatWithUnit(jawLength, unit)} long.`,
      'Places are counted along the jaw from its left end.',
      'Check the place, and which vise is chosen.',
    ),
  ]
}
