import { combineDoubt, middleDoubt } from '../fact/index.ts'
import { formatLength } from '../quantity/index.ts'
import { methodName } from './methods.ts'
import type { ReadingOf, TouchedReading } from './reading.ts'
import { repeatabilityOf } from './repeatability.ts'
import {
  difference,
  display,
  fromOne,
  inParentheses,
  meanReading,
  type Pickup,
  type PickupSettings,
  part,
  repeatsTo,
  toPartZero,
} from './words.ts'

/** edge = machine position + s D/2, with s = +1 moving + into the face and -1 moving -. Common practice. */
export function fromTouch(from: TouchedReading, settings: PickupSettings): Pickup {
  const { unit } = settings
  const s = from.direction === '+' ? 1 : -1
  const name = methodName(from.method)
  const mean = meanReading(from.machinePosition, repeatabilityOf(from.method, unit), unit)
  const edge = mean.value + (s * from.diameter.value) / 2
  const zero = toPartZero(edge, from.drawingPosition.value, 'face', unit)
  return fromOne(from.axis, mean, {
    value: zero.value,
    unit,
    working: [
      {
        finds: 'face',
        arithmetic: `${mean.text} ${from.direction} ${formatLength(from.diameter.value, unit)} / 2`,
        gives: formatLength(edge, unit),
      },
      zero.line,
    ],
    doubt: combineDoubt([part(repeatsTo(name, mean.repeated?.times), mean.random), display(settings)]),
  })
}

/** edge = machine position, both hands of the sensor at zero. Common practice. */
export function fromSensor(from: ReadingOf<'sensor'>, settings: PickupSettings): Pickup {
  const { unit } = settings
  const mean = meanReading(from.machinePosition, repeatabilityOf('sensor', unit), unit)
  const zero = toPartZero(mean.value, from.drawingPosition.value, 'face', unit)
  return fromOne(from.axis, mean, {
    value: zero.value,
    unit,
    working: [
      {
        finds: 'face',
        arithmetic: mean.text,
        means: 'both hands at zero: the spindle stands over it',
        gives: mean.text,
      },
      zero.line,
    ],
    doubt: combineDoubt([part(repeatsTo('3D sensor', mean.repeated?.times), mean.random), display(settings)]),
  })
}

/** plane = (M1 + M2) / 2, swing = |M1 - M2| / 2. Common practice. */
export function fromIndicator(from: ReadingOf<'indicator'>, settings: PickupSettings): Pickup {
  const { unit } = settings
  const each = repeatabilityOf('indicator', unit)
  const minus = meanReading(from.minusSide, each, unit, 'minus side')
  const plus = meanReading(from.plusSide, each, unit, 'plus side')
  const plane = (minus.value + plus.value) / 2
  const swing = Math.abs(plus.value - minus.value) / 2
  const zero = toPartZero(plane, from.drawingPosition.value, 'plane', unit)
  return {
    axis: from.axis,
    position: plane,
    value: zero.value,
    unit,
    swing,
    working: [
      ...minus.lines,
      ...plus.lines,
      {
        finds: 'plane',
        arithmetic: `(${minus.text} + ${inParentheses(plus.text)}) / 2`,
        gives: formatLength(plane, unit),
      },
      {
        finds: 'swing',
        arithmetic: `|${difference(plus.text, minus.text)}| / 2`,
        gives: formatLength(swing, unit),
      },
      zero.line,
    ],
    doubt: combineDoubt([
      part('middle of two indicator readings', Math.hypot(minus.random, plus.random) / 2),
      display(settings, middleDoubt(1)),
    ]),
    ...worse(minus, plus),
  }
}

/** The repeats of two positions: the wider of them. */
function worse(...means: { repeated?: { spread: number; times: number } }[]): Pick<Pickup, 'repeated'> {
  const [first] = means
    .flatMap(({ repeated }) => (repeated ? [repeated] : []))
    .sort((a, b) => b.spread - a.spread)
  return first ? { repeated: first } : {}
}

/**
 * middle = (M1 + M2) / 2; width = |M1 - M2| - D over a web, + D inside a pocket, as it is for a sensor (D = 0).
 * An indicator's own radius is not known, so it tells no width. Common practice.
 */
export function fromMiddle(from: ReadingOf<'middle'>, settings: PickupSettings): Pickup {
  const { unit } = settings
  const each = repeatabilityOf(from.device, unit)
  const low = meanReading(from.low, each, unit, 'minus side')
  const high = meanReading(from.high, each, unit, 'plus side')
  const middle = (low.value + high.value) / 2
  const zero = toPartZero(middle, from.drawingPosition.value, 'middle', unit)
  const sign = from.side === 'web' ? '-' : '+'
  const tip = from.diameter.value
  const width = Math.abs(high.value - low.value) + (sign === '-' ? -tip : tip)
  const knows = from.device !== 'indicator'
  const random = Math.hypot(low.random, high.random)
  return {
    axis: from.axis,
    position: middle,
    value: zero.value,
    unit,
    working: [
      ...low.lines,
      ...high.lines,
      {
        finds: 'middle',
        arithmetic: `(${low.text} + ${inParentheses(high.text)}) / 2`,
        gives: formatLength(middle, unit),
      },
      ...(knows
        ? [
            {
              finds: 'width',
              arithmetic: `|${difference(high.text, low.text)}| ${sign} ${formatLength(tip, unit)}`,
              means:
                from.side === 'web'
                  ? 'the tip stood outside on both sides'
                  : 'the tip stood inside on both sides',
              gives: formatLength(width, unit),
            },
          ]
        : []),
      zero.line,
    ],
    doubt: combineDoubt([
      part(`middle of two readings, ${methodName(from.device)}`, random / 2),
      display(settings, middleDoubt(1)),
    ]),
    ...(knows
      ? {
          size: {
            what: 'width' as const,
            value: width,
            doubt: Math.hypot(random, display(settings, Math.SQRT2).value),
            nominal: from.width?.value,
          },
        }
      : {}),
    ...worse(low, high),
  }
}

/**
 * centre = machine position -/+ (plus dial - minus dial) / 2: in a bore the wall on the side of the greater reading is
 * nearer, so the centre lies the other way; on a boss it lies that way. Common practice; the sign is derived.
 */
export function fromSweep(from: ReadingOf<'swept'>, settings: PickupSettings): Pickup {
  const { unit } = settings
  const each = repeatabilityOf('swept', unit)
  const mean = meanReading(from.machinePosition, each, unit)
  const off = (from.plusDial.value - from.minusDial.value) / 2
  const sign = from.side === 'bore' ? '-' : '+'
  const centre = mean.value + (sign === '-' ? -off : off)
  const zero = toPartZero(centre, from.drawingPosition.value, 'centre', unit)
  const [plus, minus] = [formatLength(from.plusDial.value, unit), formatLength(from.minusDial.value, unit)]
  return fromOne(from.axis, mean, {
    value: zero.value,
    unit,
    working: [
      {
        finds: 'off centre',
        arithmetic: `(${difference(plus, minus)}) / 2`,
        means: 'half the difference of the two opposite readings',
        gives: formatLength(off, unit),
      },
      {
        finds: 'centre',
        arithmetic: `${mean.text} ${sign} ${inParentheses(formatLength(off, unit))}`,
        gives: formatLength(centre, unit),
      },
      zero.line,
    ],
    doubt: combineDoubt([part('sweep repeats to', Math.max(each, mean.random)), display(settings)]),
  })
}
