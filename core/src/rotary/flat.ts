import { ANGLE_DIGITS, formatAngle } from '../angle/index.ts'
import { combineDoubt, type Doubt, resolutionDoubt, type WorkingLine } from '../fact/index.ts'
import { degrees } from '../geometry/index.ts'
import { type RotaryAxis, senseOf } from '../machine/index.ts'
import {
  difference,
  display,
  inParentheses,
  meanReading,
  type PickupSettings,
  part,
  REPEATABILITY,
  readingIn,
} from '../pickup/index.ts'
import { formatLength, type LengthUnit } from '../quantity/index.ts'
import type { FlatFaces, FlatReading } from './reading.ts'

/** Rotaries show thousandths of a degree. Common practice. */
const LEAST_DEGREES = 0.001

/** What a flat says of the rotary, in degrees. */
export interface Flat {
  /** What goes into the offset: where the machine shows the rotary when the program has it at 0. */
  value: number
  /** Where the machine shows it when the flat faces as it should. */
  level: number
  /** Where it was shown while the flat was touched. */
  turned: number
  /** How far the flat was turned from that, from Y to Z as plus (right-handed about X). */
  tilt: number
  doubt: Doubt
  working: WorkingLine[]
  /** How far apart the touches were, in `unit`. */
  span: number
  unit: LengthUnit
}

const deg = (value: number) => `${formatAngle(value)} deg`

interface Tilt {
  value: number
  span: number
  random: number
  lines: WorkingLine[]
}

/**
 * How far a direction (dy, dz) along a flat is turned from the one that it has when it faces as named, folded to a quarter turn
 * either way: tilt = atan2(dz, dy) of one that faces up, atan2(-dy, dz) of one that faces front or back (trade.md 4, derived).
 */
export function tiltOf(dy: number, dz: number, faces: FlatFaces): number {
  const [along, up] = faces === 'up' ? [dy, dz] : [dz, -dy]
  return degrees(along < 0 ? Math.atan2(-up, -along) : Math.atan2(up, along))
}

function fromTouches(reading: Extract<FlatReading, { method: 'touches' }>, { unit }: PickupSettings): Tilt {
  const each = REPEATABILITY[reading.device][unit]
  const mean = (where: 'first' | 'second', axis: 'y' | 'z') =>
    meanReading(reading[where][axis], each, unit, `${axis.toUpperCase()} of the ${where}`)
  const [y1, z1, y2, z2] = [mean('first', 'y'), mean('first', 'z'), mean('second', 'y'), mean('second', 'z')]
  const [dy, dz] = [y2.value - y1.value, z2.value - z1.value]
  const up = reading.faces === 'up'
  const tilt = tiltOf(dy, dz, reading.faces)
  const [rise, run] = up ? [dz, dy] : [-dy, dz]
  const rose = up ? difference(z2.text, z1.text) : `-(${difference(y2.text, y1.text)})`
  const ran = up ? difference(y2.text, y1.text) : difference(z2.text, z1.text)
  const found = up ? [z1, z2] : [y1, y2]
  return {
    value: tilt,
    span: Math.hypot(dy, dz),
    random: Math.hypot(...found.map(({ random }) => random)),
    lines: [
      ...[y1, z1, y2, z2].flatMap(({ lines }) => lines),
      { finds: up ? 'it rises' : 'it leans', arithmetic: rose, gives: formatLength(rise, unit) },
      { finds: 'over', arithmetic: ran, gives: formatLength(run, unit) },
      {
        finds: 'tilt',
        arithmetic: `atan(${formatLength(rise, unit)} / ${inParentheses(formatLength(run, unit))})`,
        means: 'from Y plus towards Z plus is plus',
        gives: deg(tilt),
      },
    ],
  }
}

function fromDial(reading: Extract<FlatReading, { method: 'level' }>, { unit }: PickupSettings): Tilt {
  const rise = reading.back.value - reading.front.value
  const tilt = tiltOf(reading.span.value, rise, 'up')
  const text = (value: number) => formatLength(value, unit)
  return {
    value: tilt,
    span: reading.span.value,
    random: Math.SQRT2 * REPEATABILITY.indicator[unit],
    lines: [
      {
        finds: 'it rises',
        arithmetic: difference(text(reading.back.value), text(reading.front.value)),
        means: 'the dial at the back less that at the front',
        gives: text(rise),
      },
      {
        finds: 'tilt',
        arithmetic: `atan(${text(rise)} / ${text(reading.span.value)})`,
        means: 'from Y plus towards Z plus is plus',
        gives: deg(tilt),
      },
    ],
  }
}

/**
 * A of an offset from a flat. The rotary is turned back by the tilt, in the way that it counts, and the flat faces as it should
 * there: level = turned - sense tilt; A = level - the flat's angle in the program (derived; the tilt as in trade.md 4). Both touches
 * are off by the same radius along the flat's own normal, so that the tip's size does not matter.
 */
export function measureFlat(from: FlatReading, rotary: RotaryAxis, settings: PickupSettings): Flat {
  const reading = readingIn(from, settings.unit)
  const tilt = reading.method === 'touches' ? fromTouches(reading, settings) : fromDial(reading, settings)
  const sense = senseOf(rotary)
  const { word } = rotary
  const level = reading.turned - sense * tilt.value
  const value = level - reading.drawing
  const shown = (of: number) => inParentheses(formatAngle(of))
  const over = (length: number) => degrees(length / tilt.span)
  const touched = display(settings, Math.SQRT2)
  return {
    value,
    level,
    turned: reading.turned,
    tilt: tilt.value,
    span: tilt.span,
    unit: settings.unit,
    working: [
      ...tilt.lines,
      {
        finds: `${word} with it level`,
        arithmetic: `${formatAngle(reading.turned)} ${sense > 0 ? '-' : '+'} ${shown(tilt.value)}`,
        means: `as ${word} counts up the top goes to the ${rotary.top}`,
        gives: deg(level),
      },
      {
        finds: `${word} of part zero`,
        arithmetic: `${formatAngle(level)} - ${shown(reading.drawing)}`,
        means: 'less where the program has it when this flat faces so',
        gives: deg(value),
      },
    ],
    doubt: combineDoubt([
      part(`two readings, ${formatLength(tilt.span, settings.unit)} apart`, over(tilt.random)),
      ...(reading.method === 'touches' ? [part(touched.from, over(touched.value))] : []),
      part(
        `${word} reads in steps of ${formatAngle(LEAST_DEGREES, ANGLE_DIGITS)}`,
        resolutionDoubt(LEAST_DEGREES),
      ),
    ]),
  }
}
