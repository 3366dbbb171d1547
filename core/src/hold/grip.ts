import { z } from 'zod'
import { type Answer, combineDoubt, type Finding, finding, worstFirst } from '../fact/index.ts'
import {
  convertLength,
  fixedDigits,
  formatLength,
  formatWithUnit,
  type LengthUnit,
  typedLength,
} from '../quantity/index.ts'
import { type Collet, closingRatio } from './collet.ts'
import { movingRatio, STOPS, type StopKind } from './stop.ts'

export const operation = z.enum(['first', 'second'])
/** 'first': the face is still to be cut, and stock is left for it. 'second': the length is made from the stopped face. */
export type Operation = z.infer<typeof operation>

/** What is known of the bars: their size and tolerance, or what some of them measured. */
export const bars = z.discriminatedUnion('known', [
  z
    .object({
      known: z.literal('tolerance'),
      diameter: typedLength.refine(({ value }) => value > 0, { error: 'A bar has a diameter above zero.' }),
      spread: typedLength.refine(({ value }) => value >= 0, {
        error: 'Largest less smallest cannot be negative. Type 0 for ground bar of one size.',
      }),
    })
    .refine(
      ({ diameter, spread }) =>
        diameter.value <= 0 || convertLength(spread.value, spread.unit, diameter.unit) < diameter.value,
      {
        error: 'Bars that differ by more than their size: check the decimal point and the unit.',
        path: ['spread'],
      },
    ),
  z.object({
    known: z.literal('measured'),
    diameters: z
      .array(typedLength.refine(({ value }) => value > 0, { error: 'A bar has a diameter above zero.' }))
      .min(2, 'Measure two bars at least; ten are better.')
      .max(200),
  }),
])
export type Bars = z.infer<typeof bars>

/** Smallest and largest bar to reckon with, in one unit. */
export interface BarRange {
  least: number
  greatest: number
  /** How many were measured; undefined for a tolerance. */
  measured?: number
  /** Standard deviation of what was measured. */
  deviation?: number
}

/** The range of the bars in the unit asked for. A tolerance is taken as lying half on each side of the size. */
export function barRange(from: Bars, unit: LengthUnit): BarRange {
  if (from.known === 'tolerance') {
    const diameter = convertLength(from.diameter.value, from.diameter.unit, unit)
    const spread = convertLength(from.spread.value, from.spread.unit, unit)
    return { least: diameter - spread / 2, greatest: diameter + spread / 2 }
  }
  const sizes = from.diameters.map(({ value, unit: own }) => convertLength(value, own, unit))
  const mean = sizes.reduce((sum, each) => sum + each, 0) / sizes.length
  const squares = sizes.reduce((sum, each) => sum + (each - mean) ** 2, 0)
  return {
    least: Math.min(...sizes),
    greatest: Math.max(...sizes),
    measured: sizes.length,
    deviation: Math.sqrt(squares / (sizes.length - 1)),
  }
}

export interface Grip {
  collet: Collet
  stop: StopKind
  operation: Operation
  unit: LengthUnit
  range: BarRange
  /** First operation: stock left for facing. Second: the part's whole length tolerance. */
  allowed: number
  /** A ratio that was measured on this very chuck, in place of the library's. */
  measuredRatio?: { value: number; doubt: number }
}

export interface LengthSpread extends Answer<number> {
  ratio: number
  findings: Finding[]
}

/** The ratio that counts for a grip: measured where it was, else the library's. */
function ratioOf({ collet, stop, measuredRatio }: Grip) {
  const library = movingRatio(collet, stop)
  return measuredRatio && library.value > 0 ? measuredRatio : library
}

const ratioText = (ratio: number) => fixedDigits(ratio, 3)

function judge(grip: Grip, spread: number, doubt: number): Finding[] {
  const { unit, allowed, operation, range } = grip
  const stop = STOPS[grip.stop]
  const findings: Finding[] = []
  const length = (value: number) => formatWithUnit(value, unit)
  if (stop.never)
    findings.push(
      finding(
        'stop',
        'never-stop',
        'stop',
        'Never stop a bar on the back of the actuator.',
        stop.never,
        'Choose another stop.',
      ),
    )
  if (!stop.fits.includes(grip.collet.closing))
    findings.push(
      finding(
        'stop',
        'does-not-fit',
        'stop',
        `${stop.name}: not with ${grip.collet.name}.`,
        grip.collet.closing === 'jaws' ? 'It belongs to a collet.' : 'It belongs to jaws.',
        'Choose another stop.',
      ),
    )
  if (stop.lastResort)
    findings.push(
      finding('look', 'last-resort', 'stop', 'Callipers are the last resort as a stop.', stop.lastResort),
    )
  if (spread > allowed)
    findings.push(
      operation === 'first'
        ? finding(
            'look',
            'facing-short',
            'allowed',
            `Leave at least ${length(spread)} to face; ${length(allowed)} is not enough.`,
            'The shortest bar would not clean up.',
            'Leave more stock, or choose a stop that does not move.',
          )
        : finding(
            'look',
            'length-too-wide',
            'allowed',
            `The length will wander by ${length(spread)}; the part allows ${length(allowed)}.`,
            'On a second operation the whole spread is in the length of the part.',
            'Use dead-length, a stop that does not move, or one operation from bar with a cut-off or a sub-spindle.',
          ),
    )
  else if (spread + doubt > allowed)
    findings.push(
      finding(
        'look',
        'length-close',
        'allowed',
        `The spread may be up to ${length(spread + doubt)}; ${length(allowed)} is allowed.`,
        'The ratio is not known well enough.',
        'Measure the ratio: a few bars of different diameters, and the lengths that come out.',
      ),
    )
  if (range.measured !== undefined && range.measured < 5)
    findings.push(
      finding(
        'note',
        'few-bars',
        'bars',
        `${range.measured} bars were measured; ten tell more.`,
        'The largest and the smallest of a batch lie further apart than those of a few.',
      ),
    )
  else if (range.deviation !== undefined && 6 * range.deviation > 1.5 * (range.greatest - range.least))
    findings.push(
      finding(
        'note',
        'batch-is-wider',
        'bars',
        `A whole batch may spread over ${length(6 * range.deviation)}.`,
        'Six standard deviations of what was measured, if the bars vary evenly.',
      ),
    )
  return findings
}

/** How far the usual figures for how well a stop repeats may be off, as a share of them. By judgement. */
const REPEATS_DOUBT = 0.5

/**
 * How far the length wanders from bar to bar: ratio x diameter spread, where stop or grip moves, plus what the stop
 * itself leaves (common practice). Value and doubt in the grip's unit.
 */
export function lengthSpread(grip: Grip): LengthSpread {
  const { unit, range, collet } = grip
  const ratio = ratioOf(grip)
  const diameterSpread = range.greatest - range.least
  const repeats = STOPS[grip.stop].repeats[unit]
  const moves = ratio.value * diameterSpread
  const value = moves + repeats
  const length = (each: number) => formatLength(each, unit)
  const doubt = combineDoubt([
    ...(ratio.doubt === 0
      ? []
      : [{ from: `ratio known to ${ratioText(ratio.doubt)}`, value: ratio.doubt * diameterSpread }]),
    { from: 'how well this stop repeats, a usual figure', value: repeats * REPEATS_DOUBT },
  ])
  const closes = closingRatio(collet)
  const from = collet.ratio
  return {
    value,
    unit,
    ratio: ratio.value,
    doubt,
    working: [
      ratio.value === 0
        ? {
            finds: 'ratio',
            arithmetic: STOPS[grip.stop].movesWith === 'nothing' ? 'the stop stays' : 'nothing moves along',
            gives: '0',
          }
        : grip.measuredRatio
          ? { finds: 'ratio', arithmetic: 'measured on this chuck', gives: ratioText(ratio.value) }
          : from.from === 'angle'
            ? {
                finds: 'ratio',
                arithmetic: `1 / (2 x tan ${from.degreesPerSide}°)`,
                gives: ratioText(closes.value),
              }
            : {
                finds: 'ratio',
                arithmetic: from.from === 'rule' ? 'rule of thumb' : 'measured',
                gives: ratioText(closes.value),
              },
      {
        finds: 'diameter spread',
        arithmetic: `${length(range.greatest)} - ${length(range.least)}`,
        gives: length(diameterSpread),
      },
      {
        finds: 'length spread',
        arithmetic: `${ratioText(ratio.value)} x ${length(diameterSpread)} + ${length(repeats)}`,
        means: 'ratio times diameter spread, plus what the stop itself leaves',
        gives: length(value),
      },
    ],
    findings: worstFirst(judge(grip, value, doubt.value)),
  }
}
