import { type Finding, finding } from '../fact/index.ts'
import { fitLine, type LineFit } from '../geometry/index.ts'
import { formatLength, formatWithUnit } from '../quantity/index.ts'
import type { PlainSweep } from './sweep.ts'

/** A share of the residuals' squares that a bow must explain before it is called one. */
const BOW_EXPLAINS = 0.8

/** What a bow leaves of the residuals, and how much its middle stands off the line through its ends. */
function bowOf(sweep: PlainSweep, fit: LineFit): { sag: number; left: number[] } | undefined {
  const places = sweep.points.map(({ at }) => at)
  const middle = (Math.max(...places) + Math.min(...places)) / 2
  // Least squares of a parabola: what of the square is no straight line already, on what the line left (Frisch and Waugh).
  const square = fitLine(places.map((at) => ({ x: at, y: (at - middle) ** 2 })))
  if (!square) return undefined
  const size = square.residuals.reduce((sum, each) => sum + each ** 2, 0)
  if (size === 0) return undefined
  const curve = square.residuals.reduce((sum, each, n) => sum + each * (fit.residuals[n] ?? 0), 0) / size
  const half = (Math.max(...places) - Math.min(...places)) / 2
  return {
    sag: -curve * half ** 2,
    left: fit.residuals.map((each, n) => each - curve * (square.residuals[n] ?? 0)),
  }
}

const squares = (all: readonly number[]) => all.reduce((sum, each) => sum + each ** 2, 0)

/** The reading without which the others lie best on a line, with the fit of the others: each is left out in turn. */
function oddOneOut(sweep: PlainSweep) {
  const tries = sweep.points.flatMap((point, left) => {
    const others = fitLine(
      sweep.points.filter((_, index) => index !== left).map(({ at, reading }) => ({ x: at, y: reading })),
    )
    return others
      ? [{ at: point.at, off: point.reading - (others.intercept + others.slope * point.at), others }]
      : []
  })
  return tries.sort((a, b) => squares(a.others.residuals) - squares(b.others.residuals))[0]
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
  const odd = oddOneOut(sweep)
  const bow = bowOf(sweep, fit)
  const within = (left: readonly number[]) => left.every((each) => Math.abs(each) <= limit)
  const oddFits = odd !== undefined && within(odd.others.residuals)
  const bowFits = bow !== undefined && within(bow.left)
  // One reading left out and a bow take a number each: where only one of them explains all, it is that.
  if (oddFits && bowFits)
    return [
      finding(
        'look',
        'bow-or-chip',
        'points',
        `The readings stand up to ${worst} off a straight line: a bow, or a chip at ${formatLength(odd.at, unit)}.`,
        `${why} Both explain these ${points.length} readings. Without that one the jaw is out by ${formatWithUnit(Math.abs(odd.others.slope) * sweep.cosine * sweep.partLength, unit)} over the part.`,
        'Wipe that place and read it again, and take two more readings between the others.',
      ),
    ]
  if (oddFits)
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
  const bowed = bow && squares(bow.left) <= (1 - BOW_EXPLAINS) * squares(fit.residuals)
  if (bowed && (bowFits || squares(bow.left) < squares(odd?.others.residuals ?? [])))
    return [
      finding(
        'look',
        'bowed',
        'points',
        `The jaw is bowed: its middle stands ${formatWithUnit(Math.abs(bow.sag) * sweep.cosine, unit)} off the line of its ends.`,
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
      'stop',
      'off-the-jaw',
      'points',
      `The place ${formatLength(off.at, unit)} lies off the jaw, which is ${formatWithUnit(jawLength, unit)} long.`,
      'Places are counted along the jaw from its left end.',
      'Correct the place, or choose the vise that is swept.',
    ),
  ]
}
