import { z } from 'zod'
import { type Finding, finding, type WorkingLine, worstFirst } from '../fact/index.ts'
import type { LinearAxis } from '../machine/index.ts'
import { formatLength, formatWithUnit, type LengthUnit, MM_PER_INCH, typedLength } from '../quantity/index.ts'
import { meanOf, type PositionReading, positionReading } from './position.ts'
import type { Reading } from './reading.ts'
import type { Side } from './touched.ts'
import { difference, inParentheses } from './words.ts'

/** Where part zero stands on the finished part: along the table at its low face, its middle or its high face; Z at one of two tops. */
export const zeroAlong = z.enum(['low', 'middle', 'high'])
export type ZeroAlong = z.infer<typeof zeroAlong>
export const zeroUp = z.enum(['stock-top', 'finished-top'])
export type ZeroUp = z.infer<typeof zeroUp>

const above = (says: string) => typedLength.refine(({ value }) => value > 0, { error: says })
const notNegative = (says: string) => typedLength.refine(({ value }) => value >= 0, { error: says })
const COMES_OFF = 'What comes off a face is zero or more.'

/** What is asked of a block of stock: the part that should come out of it, and where its zero is to be. */
export const stockAsked = z.object({
  finished: z.object({
    X: above('A finished length must be more than zero.'),
    Y: above('A finished width must be more than zero.'),
    Z: above('A finished height must be more than zero.').optional(),
  }),
  offTop: notNegative(COMES_OFF).describe('to come off the top'),
  offLow: z
    .object({ X: notNegative(COMES_OFF).optional(), Y: notNegative(COMES_OFF).optional() })
    .describe('to come off the left and the front face; half of what is there where it is not said'),
  zero: z.object({ X: zeroAlong, Y: zeroAlong, Z: zeroUp }),
  seat: positionReading
    .optional()
    .describe('machine Z with the same tool on what the block stands on, for its height'),
  seatLength: typedLength
    .optional()
    .describe('length of the probe, where Z was set by its cycle: that shows no machine position'),
})
export type StockAsked = z.infer<typeof stockAsked>

/** What is known of a block along an axis, by what was touched: in the setup's unit. */
export interface TouchedStock {
  /** Where the touched place lies on the drawing, and which way the block lies from there. */
  at: number
  side: Side
  /** Its size along the axis and how far off that may be, where both sides were touched. */
  size?: { value: number; doubt: number }
}

/** Along one axis of the table. */
export interface StockAxis {
  axis: 'X' | 'Y'
  finished: number
  measured?: { value: number; doubt: number }
  /** What comes off the face on the minus and on the plus side; undefined where nobody can know. */
  low?: number
  high?: number
  /** Where the touched place must lie on the drawing for that, and where it lies now; undefined where nothing was touched that tells. */
  wanted?: number
  now?: number
  working: WorkingLine[]
}

export interface Stock {
  unit: LengthUnit
  X: StockAxis
  Y: StockAxis
  Z: {
    top: number
    finished?: number
    measured?: number
    bottom?: number
    wanted?: number
    now?: number
    working: WorkingLine[]
  }
  findings: Finding[]
}

/**
 * The height of a block: the machine position at its top less that of the same tool on what it stands on. A zero that a probe cycle has
 * set shows no machine position: it is the offset, the top's place on the drawing and the probe's length. In the unit of what is given,
 * which must be one; undefined where it is not known.
 */
export function stockHeight(
  seat: PositionReading,
  length: number | undefined,
  top: { reading: Reading; value: number; position: number; at: number },
): number | undefined {
  const set = top.reading.method === 'probe-set'
  if (set && length === undefined) return undefined
  return (set ? top.value + top.at + (length ?? 0) : top.position) - meanOf(seat)
}

/** Less than this off a sawn face does not clean it up. By judgement. [inch, mm] */
const THIN = { inch: 0.01, mm: 0.25 }
/** More than this off a face is worth a second look: another block, or a slip. By judgement. [inch, mm] */
const THICK = { inch: 0.5, mm: 12 }

/** Where part zero stands, in words. */
export const ZERO_WORDS = {
  X: { low: 'left face', middle: 'middle', high: 'right face' },
  Y: { low: 'front face', middle: 'middle', high: 'back face' },
  Z: { 'finished-top': 'finished face', 'stock-top': 'stock top' },
} as const satisfies Record<'X' | 'Y', Record<ZeroAlong, string>> & { Z: Record<ZeroUp, string> }

export const FACE_NAMES = { X: ['left', 'right'], Y: ['front', 'back'] } as const

/** Where the low face of the finished part lies on the drawing. */
const finishedLow = (zero: ZeroAlong, finished: number) =>
  zero === 'low' ? 0 : zero === 'middle' ? -finished / 2 : -finished

/** What comes off both faces. Where only one was touched, what is said counts for that one, and the other is not known. */
function offFaces(
  finished: number,
  off: number | undefined,
  touched: TouchedStock | undefined,
): { low?: number | undefined; high?: number | undefined } {
  if (!touched) return {}
  if (!touched.size) return touched.side === 'minus' ? { high: off } : { low: off }
  const spare = touched.size.value - finished
  const low = off ?? spare / 2
  return { low, high: spare - low }
}

/** Where the touched place must lie on the drawing: the middle of the block, or the face that was touched. */
function wantedPlace(
  begins: number,
  finished: number,
  { low, high }: ReturnType<typeof offFaces>,
  { side, size }: TouchedStock,
): { value: number; parts: readonly number[] } | undefined {
  if (side === 'round')
    return low === undefined || !size
      ? undefined
      : { value: begins - low + size.value / 2, parts: [begins, -low, size.value / 2] }
  if (side === 'plus') return low === undefined ? undefined : { value: begins - low, parts: [begins, -low] }
  return high === undefined ? undefined : { value: begins + finished + high, parts: [begins, finished, high] }
}

const PLACE_WORDS = { round: 'middle of the block', plus: 0, minus: 1 } as const

/**
 * Along X or Y [D]: with S the size of the block, F that of the finished part and a what comes off the low face (half of S - F where it is
 * not said), the high face loses S - F - a; the block's low face lies at the finished part's low face less a.
 */
function along(
  axis: 'X' | 'Y',
  finished: number,
  zero: ZeroAlong,
  off: number | undefined,
  touched: TouchedStock | undefined,
  unit: LengthUnit,
): StockAxis {
  const number = (value: number) => formatLength(value, unit)
  const size = touched?.size
  const { low, high } = offFaces(finished, off, touched)
  const begins = finishedLow(zero, finished)
  const place = touched && wantedPlace(begins, finished, { low, high }, touched)
  const [lowName, highName] = FACE_NAMES[axis]
  const working: WorkingLine[] = []
  if (size && low !== undefined && high !== undefined) {
    const spare = size.value - finished
    working.push(
      {
        finds: `${axis}, over all`,
        arithmetic: difference(number(size.value), number(finished)),
        means: 'the block less the finished part',
        gives: number(spare),
      },
      {
        finds: `off the ${highName}`,
        arithmetic: off === undefined ? `${number(spare)} / 2` : difference(number(spare), number(low)),
        means: off === undefined ? `and as much off the ${lowName}` : `what the ${lowName} face leaves`,
        gives: number(high),
      },
    )
  }
  if (touched && place) {
    const name = PLACE_WORDS[touched.side]
    working.push({
      finds: `${axis} of the ${typeof name === 'string' ? 'middle' : `${FACE_NAMES[axis][name]} face`}`,
      arithmetic: place.parts.map((part) => inParentheses(number(part))).join(' + '),
      means: `where the ${typeof name === 'string' ? name : `${FACE_NAMES[axis][name]} face`} lies from part zero`,
      gives: number(place.value),
    })
  }
  return {
    axis,
    finished,
    ...(size ? { measured: size } : {}),
    ...(low === undefined ? {} : { low }),
    ...(high === undefined ? {} : { high }),
    ...(place ? { wanted: place.value } : {}),
    ...(touched ? { now: touched.at } : {}),
    working,
  }
}

function ofAxis(
  { axis, finished, measured, low, high, now }: StockAxis,
  other: StockAxis,
  unit: LengthUnit,
): Finding[] {
  const length = (value: number) => formatWithUnit(value, unit)
  if (!measured)
    return [
      finding(
        'look',
        'not-measured',
        axis,
        `How ${axis === 'X' ? 'long' : 'wide'} the block is was not measured.`,
        now === undefined
          ? `${axis} was not taken on two faces of it: whether the part comes out of it, and what comes off, nobody knows.`
          : `${axis} was taken at one face: what comes off the other, and whether there is enough, nobody knows.`,
        `Touch both faces along ${axis}: as a middle of two faces, or by the program for a block.`,
      ),
    ]
  const { value, doubt } = measured
  const short = finished - value
  const ratio = value / finished
  const [near, far] = FACE_NAMES[axis]
  const what = axis === 'X' ? 'length' : 'width'
  if (short > doubt) {
    const turned = value >= other.finished - doubt && (other.measured?.value ?? 0) >= finished - doubt
    const inUnit = Math.abs(ratio * MM_PER_INCH - 1) < 0.1
    return [
      finding(
        'stop',
        turned ? 'lies-turned-round' : inUnit ? 'unit-mixed' : 'too-small',
        axis,
        `The block is ${length(short)} too short along ${axis}: it measures ${length(value)}, and the part ${length(finished)}.`,
        turned
          ? 'It would fit the other way round: length and width are swapped.'
          : inUnit
            ? 'The two differ as inch and mm do.'
            : 'No part of that size comes out of it.',
        turned
          ? 'Turn the block in the vise, or swap the two sizes.'
          : inUnit
            ? 'Write the unit behind the number.'
            : 'Take another block, or check the size on the drawing and the touches.',
      ),
    ]
  }
  const over = [
    [near, low],
    [far, high],
  ] as const
  return over.flatMap(([face, off]): Finding[] => {
    if (off === undefined) return []
    if (off < -doubt)
      return [
        finding(
          'stop',
          'face-short',
          axis,
          `The ${face} face would be ${length(-off)} short: the part would reach out of the block there.`,
          `Of the ${what} there is ${length(value - finished)} too much in all.`,
          'Take less off the other face, or share it: leave that field empty.',
        ),
      ]
    if (off > THICK[unit])
      return [
        finding(
          'look',
          'much-comes-off',
          axis,
          `${length(off)} must come off the ${face} face.`,
          'It is more than a saw usually leaves: another block than was asked for, or a touch on a jaw or a stop.',
          `Look at the block, and at the ${what} that was measured: ${length(value)}.`,
        ),
      ]
    if (off > doubt && off < THIN[unit])
      return [
        finding(
          'look',
          'thin-cut',
          axis,
          `Only ${length(off)} comes off the ${face} face.`,
          `A sawn face is not clean by less than about ${length(THIN[unit])}.`,
          'Share it otherwise, or look whether that face is good as it is.',
        ),
      ]
    return []
  })
}

/** Where part zero stands from the low corner of the finished part's top face, for the picture. */
export function finishedZero(
  { X, Y, Z }: Stock,
  zero: { zeroX: ZeroAlong; zeroY: ZeroAlong; zeroZ: ZeroUp },
): { x: number; y: number; z: number } {
  return {
    x: -finishedLow(zero.zeroX, X.finished),
    y: -finishedLow(zero.zeroY, Y.finished),
    z: zero.zeroZ === 'stock-top' ? Z.top : 0,
  }
}

interface StockSettings {
  unit: LengthUnit
  /** The vise that holds it, and how far that opens. */
  jaws?: { name: string; opening: number }
}

function ofHeight(
  { measured, bottom, top }: Stock['Z'],
  finished: number | undefined,
  unit: LengthUnit,
): Finding[] {
  const findings: Finding[] = []
  if (measured !== undefined && finished !== undefined && bottom !== undefined && bottom < 0)
    findings.push(
      finding(
        'stop',
        'too-low',
        'Z',
        `The block is ${formatWithUnit(-bottom, unit)} too low: ${formatWithUnit(measured, unit)} for a part of ${formatWithUnit(finished, unit)} and ${formatWithUnit(top, unit)} off the top.`,
        'No part of that height comes out of it.',
        'Take less off the top, or another block.',
      ),
    )
  if (top > THICK[unit])
    findings.push(
      finding(
        'look',
        'much-comes-off',
        'Z',
        `${formatWithUnit(top, unit)} must come off the top.`,
        'It is more than a saw usually leaves.',
        'Check the number and its unit.',
      ),
    )
  return findings
}

/**
 * A block that was measured against the part that is asked for: what must come off each face, and where part zero must stand for it.
 * `touched` by axis, in the setup's unit; the fields of `asked` must be in it too.
 */
export function measureStock(
  { finished, offTop, offLow, zero }: StockAsked,
  touched: Partial<Record<LinearAxis, TouchedStock>>,
  { unit, jaws }: StockSettings,
): Stock {
  const height = touched.Z?.size
  const [X, Y] = (['X', 'Y'] as const).map((axis) =>
    along(axis, finished[axis].value, zero[axis], offLow[axis]?.value, touched[axis], unit),
  ) as [StockAxis, StockAxis]
  const number = (value: number) => formatLength(value, unit)
  const top = offTop.value
  const bottom = height && finished.Z ? height.value - finished.Z.value - top : undefined
  const wanted = zero.Z === 'finished-top' ? top : 0
  const Z: Stock['Z'] = {
    top,
    ...(finished.Z ? { finished: finished.Z.value } : {}),
    ...(height ? { measured: height.value } : {}),
    ...(bottom === undefined ? {} : { bottom }),
    ...(touched.Z ? { wanted, now: touched.Z.at } : {}),
    working: [
      ...(height && finished.Z && bottom !== undefined
        ? [
            {
              finds: 'off the bottom',
              arithmetic: difference(number(height.value), number(finished.Z.value), number(top)),
              means: 'what the height and the top leave',
              gives: number(bottom),
            },
          ]
        : []),
      {
        finds: 'Z of the top',
        arithmetic: zero.Z === 'finished-top' ? number(top) : number(0),
        means:
          zero.Z === 'finished-top'
            ? 'the top of the stock lies so far above the finished face'
            : 'the top of the stock is part zero',
        gives: number(wanted),
      },
    ],
  }
  const wide = jaws && Y.measured && Y.measured.value > jaws.opening
  return {
    unit,
    X,
    Y,
    Z,
    findings: worstFirst([
      ...ofAxis(X, Y, unit),
      ...ofAxis(Y, X, unit),
      ...ofHeight(Z, finished.Z?.value, unit),
      ...(wide
        ? [
            finding(
              'stop' as const,
              'larger-than-jaws',
              'Y',
              `By the touches the block is ${formatWithUnit(Y.measured?.value ?? 0, unit)} wide, and ${jaws.name} opens ${formatWithUnit(jaws.opening, unit)}.`,
              'A touch met a jaw or a stop instead of the block, or another vise holds it.',
              'Touch the faces again above the jaws. If it stands in another vise, record that under Hold.',
            ),
          ]
        : []),
    ]),
  }
}
