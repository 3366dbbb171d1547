import { combineDoubt } from '../fact/index.ts'
import { formatLength } from '../quantity/index.ts'
import { methodName } from './methods.ts'
import type { HeightReading, ReadingOf } from './reading.ts'
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

/** Z = machine position - tool length - block height, in the shop's own convention for lengths. Common practice. */
export function fromHeight(from: HeightReading, settings: PickupSettings): Pickup {
  const { unit } = settings
  const mean = meanReading(from.machinePosition, repeatabilityOf(from.method, unit), unit)
  const face = mean.value - from.toolLength.value - from.blockHeight.value
  const zero = toPartZero(face, from.drawingPosition.value, 'face', unit)
  const [length, height] = [from.toolLength, from.blockHeight].map(({ value }) =>
    formatLength(value, unit),
  ) as [string, string]
  const onBlock = from.method === 'tool-on-block' || from.method === 'tool-on-feeler'
  const between = from.method === 'tool-on-feeler' ? 'feeler' : 'block'
  return fromOne('Z', mean, {
    value: zero.value,
    unit,
    working: [
      {
        finds: 'face',
        arithmetic: onBlock ? difference(mean.text, length, height) : difference(mean.text, length),
        means: `machine position less T${from.tool}${onBlock ? ` less ${between}` : ''}`,
        gives: formatLength(face, unit),
      },
      zero.line,
    ],
    doubt: combineDoubt([
      part(repeatsTo(methodName(from.method).replace('gauge ', ''), mean.repeated?.times), mean.random),
      display(settings),
    ]),
  })
}

/** X geometry = machine X - measured diameter, both in diameters. Common practice. */
export function fromSkim(from: ReadingOf<'skimmed'>, settings: PickupSettings): Pickup {
  const { unit } = settings
  const each = repeatabilityOf('skimmed', unit)
  const mean = meanReading(from.machinePosition, each, unit)
  const value = mean.value - from.measured.value
  return fromOne('X', mean, {
    value,
    unit,
    working: [
      {
        finds: 'X geometry',
        arithmetic: difference(mean.text, formatLength(from.measured.value, unit)),
        means: 'machine X less the diameter that was left',
        gives: formatLength(value, unit),
      },
    ],
    doubt: combineDoubt([
      part('skim and micrometer repeat to', Math.max(each, mean.random)),
      display(settings),
    ]),
  })
}

/** Z = machine Z at the face - the face's Z, less the work shift that the control had. Common practice. */
export function fromFace(from: ReadingOf<'faced'>, settings: PickupSettings): Pickup {
  const { unit } = settings
  const mean = meanReading(from.machinePosition, repeatabilityOf('faced', unit), unit)
  const zero = toPartZero(mean.value, from.drawingPosition.value, 'face', unit)
  const shift = from.shift?.value ?? 0
  const value = zero.value - shift
  return fromOne('Z', mean, {
    value,
    unit,
    working: [
      { ...zero.line, means: "machine Z less the face's own Z" },
      ...(from.shift
        ? [
            {
              finds: 'Z geometry',
              arithmetic: difference(formatLength(zero.value, unit), formatLength(shift, unit)),
              means: 'less the work shift that the control has',
              gives: formatLength(value, unit),
            },
          ]
        : []),
    ],
    doubt: combineDoubt([
      part(repeatsTo('touching the face', mean.repeated?.times), mean.random),
      display(settings),
    ]),
  })
}

/**
 * What the control's probe cycle set: as the offset page shows it, and moved since where part zero was. A middle of two touches is
 * known twice as well as one in variance, a size of two half as well.
 */
export function fromProbeSet(from: ReadingOf<'probe-set'>, settings: PickupSettings): Pickup {
  const { unit } = settings
  const { shown, size, width, shift } = from
  const value = shown.value + (shift?.value ?? 0)
  const text = formatLength(shown.value, unit)
  const each = repeatabilityOf('probe', unit)
  return {
    axis: from.axis,
    position: shown.value,
    value,
    unit,
    working: [
      {
        finds: shift ? 'as the cycle set it' : 'part zero',
        arithmetic: text,
        means: 'as the offset page shows it',
        gives: text,
      },
      ...(shift
        ? [
            {
              finds: 'part zero',
              arithmetic: `${text} + ${inParentheses(formatLength(shift.value, unit))}`,
              means: 'and from there to where part zero is now',
              gives: formatLength(value, unit),
            },
          ]
        : []),
    ],
    doubt: combineDoubt([
      size ? part('middle of two touches, probe', each / Math.SQRT2) : part('probe repeats to', each),
      display(settings),
    ]),
    ...(size
      ? {
          size: {
            what: 'width' as const,
            value: size.value,
            doubt: Math.hypot(each * Math.SQRT2, display(settings).value),
            nominal: width?.value,
          },
        }
      : {}),
  }
}

/** offset = source + shift; its doubt is that of the source and of the shift. */
export function fromOffset(from: ReadingOf<'from-offset'>, settings: PickupSettings): Pickup {
  const { unit } = settings
  const value = from.base.value + from.shift.value
  return {
    axis: from.axis,
    position: value,
    value,
    unit,
    working: [
      {
        finds: `from ${from.source}`,
        arithmetic: `${formatLength(from.base.value, unit)} + ${inParentheses(formatLength(from.shift.value, unit))}`,
        means: from.shift.value === 0 ? 'a copy' : `${from.source} and the shift from it`,
        gives: formatLength(value, unit),
      },
    ],
    doubt: combineDoubt([
      part(`doubt of ${from.source}`, from.baseDoubt.value),
      part('the shift is known to', from.shiftWithin.value),
    ]),
  }
}

/** part zero = the rotary's centre line - its place on the drawing; its doubt is that of the line. Common practice. */
export function fromCentreLine(from: ReadingOf<'centre-line'>, { unit }: PickupSettings): Pickup {
  const { value, line } = toPartZero(from.base.value, from.drawingPosition.value, 'the centre line', unit)
  return {
    axis: from.axis,
    position: from.base.value,
    value,
    unit,
    working: [line],
    doubt: combineDoubt([part("doubt of the rotary's centre line", from.baseDoubt.value)]),
  }
}
