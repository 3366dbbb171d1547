import { z } from 'zod'
import {
  type Answer,
  combineDoubt,
  type Finding,
  finding,
  type WorkingLine,
  worstFirst,
} from '../fact/index.ts'
import {
  convertLength,
  fixedDigits,
  formatLength,
  formatWithUnit,
  type LengthUnit,
  typedLength,
} from '../quantity/index.ts'
import { bySize, type Collet, closingRatio } from './collet.ts'
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

/** Smallest and largest bar to count on, in one unit. */
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

export const seated = z.enum(['open', 'closing'])
type Seated = z.infer<typeof seated>

/** Whether how the part is seated decides if the ratio counts: jaws do not draw it in. */
export const asksSeated = ({ collet, stop }: { collet: Pick<Collet, 'closing'>; stop: StopKind }) =>
  collet.closing === 'jaws' && stop === 'draw-tube'

export interface Grip {
  collet: Collet
  stop: StopKind
  operation: Operation
  unit: LengthUnit
  range: BarRange
  /** First operation: stock left for facing. Second: the part's whole length tolerance. */
  allowed: number
  /**
   * With jaws and a stop in the draw tube: whether the part is pushed against the stop while the tube is open, or held
   * against it while the jaws close; null where nobody said.
   */
  seated?: Seated | null
  /** A ratio that was measured on this very chuck, in place of the library's. */
  measuredRatio?: { value: number; doubt: number }
}

export interface LengthSpread extends Answer<number> {
  ratio: number
  /** What it is held against: on a first operation stock to face, on a second a part of the tolerance. */
  toFace: Answer<number>
  /** How much of the stock or the tolerance it needs, with its doubt. */
  needs: number
  needsDoubt: number
  findings: Finding[]
}

/** The ratio that counts for a grip: measured where it was, else the library's. */
function ratioOf(grip: Grip) {
  const { collet, stop, measuredRatio } = grip
  // Jaws do not draw the part in: seated while the tube is open it stays where the open tube's stop was, whatever the bar.
  if (asksSeated(grip) && grip.seated === 'open') return { value: 0, doubt: 0 }
  const library = movingRatio(collet, stop)
  return measuredRatio && library.value > 0 ? measuredRatio : library
}

const ratioText = (ratio: number) => fixedDigits(ratio, 3)

/** What must come off the shortest bar besides, so that a sawn or sheared end cleans up; by judgement. */
const CLEANS_UP: Record<LengthUnit, number> = { inch: 0.01, mm: 0.25 }
/** How much of a length tolerance the spread from bar to bar may take; the rest is for the tool and its wear. By judgement. */
const SHARE_OF_TOLERANCE = 0.5

function judge(
  grip: Grip,
  { spread, needs, needsDoubt }: { spread: number; needs: number; needsDoubt: number },
): Finding[] {
  const { unit, allowed, operation, range } = grip
  const stop = STOPS[grip.stop]
  const size = bySize(grip.collet, range, unit)
  const findings: Finding[] = size.filter(({ severity }) => severity === 'stop')
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
  if (asksSeated(grip) && !grip.seated)
    findings.push(
      finding(
        'look',
        'seated-unknown',
        'seated',
        'Is the part pushed against the stop while the tube is open, or held against it while the jaws close?',
        'Jaws do not draw the part in. Seated with the tube open it stays where it is, and nothing moves; held against the stop it goes with the tube, and the ratio counts, as it is calculated here.',
        'Look, and say which.',
      ),
    )
  if (needs > allowed)
    findings.push(
      operation === 'first'
        ? finding(
            'look',
            'facing-short',
            'allowed',
            `Leave at least ${length(needs)} to face; ${length(allowed)} is not enough.`,
            `The shortest bar would not clean up: ${length(spread)} from bar to bar, and ${length(CLEANS_UP[unit])} that a sawn end takes (by judgement).`,
            'Leave more stock, or choose a stop that does not move.',
          )
        : finding(
            'look',
            'length-too-wide',
            'allowed',
            spread > allowed
              ? `The length will wander by ${length(spread)}; the part allows ${length(allowed)}.`
              : `The length will wander by ${length(spread)}: more than half of the ${length(allowed)} that the part allows.`,
            'On a second operation the whole spread is in the length of the part. Half of the tolerance is left for the tool and its wear (by judgement).',
            'Use dead-length, a stop that does not move, or one operation from bar with a cut-off or a sub-spindle.',
          ),
    )
  else if (needs + needsDoubt > allowed)
    findings.push(
      finding(
        'look',
        'length-close',
        'allowed',
        operation === 'first'
          ? `Up to ${length(needs + needsDoubt)} may be needed to face; ${length(allowed)} is left.`
          : `The spread may be up to ${length((needs + needsDoubt) * SHARE_OF_TOLERANCE)}; half of ${length(allowed)} is for it.`,
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
  return [...findings, ...size.filter(({ severity }) => severity === 'note')]
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
  const first = grip.operation === 'first'
  const needs = first ? value + CLEANS_UP[unit] : value / SHARE_OF_TOLERANCE
  const needsDoubt = first ? doubt.value : doubt.value / SHARE_OF_TOLERANCE
  const working: WorkingLine[] = [
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
  ]
  return {
    value,
    unit,
    ratio: ratio.value,
    doubt,
    working,
    toFace: {
      value: needs,
      unit,
      doubt,
      working: [
        ...working.slice(0, -1),
        {
          finds: 'stock to face',
          arithmetic: `${ratioText(ratio.value)} x ${length(diameterSpread)} + ${length(repeats)} + ${length(CLEANS_UP[unit])}`,
          means: 'ratio x spread, the stop, and what a sawn end takes (by judgement)',
          gives: length(needs),
        },
      ],
    },
    needs,
    needsDoubt,
    findings: worstFirst(judge(grip, { spread: value, needs, needsDoubt })),
  }
}
