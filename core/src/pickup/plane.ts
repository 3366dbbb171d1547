import { combineDoubt, multiplied, sensitivities, type WorkingLine } from '../fact/index.ts'
import { degrees, fitCircle } from '../geometry/index.ts'
import { fixedDigits, formatLength, type LengthUnit } from '../quantity/index.ts'
import { cornerFrom, cornerIn, type Face, plain } from './corner.ts'
import { methodName } from './methods.ts'
import type { ReadingOf } from './reading.ts'
import { repeatabilityOf } from './repeatability.ts'
import { display, type Pickup, type PickupSettings, part, toPartZero } from './words.ts'

/** A residual in words for the list: which touch, and by how much. */
const named = (residuals: readonly number[], name: (index: number) => string) =>
  residuals.map((value, index) => ({ name: name(index), value }))

/**
 * Centre of the least squares circle through the touches; diameter = twice its radius, + D in a bore, - D over a boss.
 * Gander, Golub, Strebel, BIT 34 (1994) for the fit; its covariance for the doubt (JCGM 100:2008, H.3 for the method).
 */
export function fromCircle(from: ReadingOf<'circle'>, settings: PickupSettings): Pickup {
  const { unit } = settings
  const fit = fitCircle(plain(from.points))
  if (!fit) throw new Error('a reading of a circle without a circle passes no schema')
  const axis = from.axis === 'X' ? 'x' : 'y'
  const centre = fit.centre[axis]
  const tip = from.diameter.value
  const sign = from.side === 'bore' ? '+' : '-'
  const diameter = 2 * fit.radius + (sign === '+' ? tip : -tip)
  const random = Math.max(repeatabilityOf(from.device, unit), fit.scatter ?? 0)
  const zero = toPartZero(centre, from[`drawing${from.axis}`].value, 'centre', unit)
  const n = from.points.length
  const left: WorkingLine[] =
    fit.scatter === undefined
      ? []
      : [
          {
            finds: 'form',
            arithmetic: `${formatLength(Math.max(...fit.residuals), unit)} - (${formatLength(Math.min(...fit.residuals), unit)})`,
            means: 'the touch farthest outside less the one farthest inside',
            gives: formatLength(fit.form, unit),
          },
        ]
  return {
    axis: from.axis,
    position: centre,
    value: zero.value,
    unit,
    working: [
      {
        finds: 'centre',
        arithmetic: `least squares circle through ${n} touches`,
        means: n === 3 ? 'three always lie on a circle: nothing is left over to judge by' : '',
        gives: formatLength(centre, unit),
      },
      {
        finds: 'diameter',
        arithmetic: `2 x ${formatLength(fit.radius, unit)} ${sign} ${formatLength(tip, unit)}`,
        means: from.side === 'bore' ? 'the tip stood inside' : 'the tip stood outside',
        gives: formatLength(diameter, unit),
      },
      ...left,
      zero.line,
    ],
    doubt: combineDoubt([
      part(`${n} touches, ${methodName(from.device)}`, random * fit.sensitivity[axis]),
      display(settings, fit.sensitivity[axis]),
    ]),
    size: {
      what: 'diameter',
      value: diameter,
      doubt: 2 * Math.hypot(random, display(settings).value) * fit.sensitivity.radius,
      nominal: from.nominal?.value,
    },
    ...(fit.scatter === undefined
      ? {}
      : { scatter: fit.scatter, residuals: named(fit.residuals, (index) => `touch ${index + 1}`) }),
  }
}

const anglesOf = ({ fit, direction }: Face, unit: LengthUnit) =>
  fit
    ? `line through its touches, base ${formatLength(fit.base, unit)}`
    : `one touch: direction by the other face, ${fixedDigits(direction, 3)} deg`

/**
 * Where the two faces meet, each the least squares line through its touches moved by half the tip into the material.
 * Nothing is taken to be square: with one touch on a face its direction is that of the other and the drawing's angle.
 */
export function fromCorner(from: ReadingOf<'corner'>, settings: PickupSettings): Pickup {
  const { unit } = settings
  const corner = cornerIn(from)
  if (!corner) throw new Error('a reading of a corner without a corner passes no schema')
  const axis = from.axis === 'X' ? 'x' : 'y'
  const inputs = [...plain(from.pointsX), ...plain(from.pointsY)].flatMap(({ x, y }) => [x, y])
  const each = repeatabilityOf(from.device, unit)
  const slopes = multiplied(
    sensitivities((values) => cornerFrom(from, values)?.at[axis] ?? Number.NaN, inputs, each),
  )
  const [faceX, faceY] = corner.faces
  const scatter = Math.max(faceX.fit?.scatter ?? 0, faceY.fit?.scatter ?? 0)
  const random = Math.max(each, scatter)
  const zero = toPartZero(corner.at[axis], from[`drawing${from.axis}`].value, 'corner', unit)
  const measuresAngle = faceX.fit !== undefined && faceY.fit !== undefined
  const angleDoubt = degrees(
    Math.hypot(...[faceX, faceY].map(({ fit }) => (fit ? random / Math.sqrt(fit.spreadAlong) : 0))),
  )
  const more = (face: Face) => (face.fit?.residuals.length ?? 0) > 2
  return {
    axis: from.axis,
    position: corner.at[axis],
    value: zero.value,
    unit,
    working: [
      {
        finds: 'face along X',
        arithmetic: anglesOf(faceX, unit),
        gives: `${fixedDigits(faceX.direction, 3)} deg`,
      },
      {
        finds: 'face along Y',
        arithmetic: anglesOf(faceY, unit),
        gives: `${fixedDigits(faceY.direction, 3)} deg`,
      },
      {
        finds: 'corner',
        arithmetic: `both moved by ${formatLength(from.diameter.value, unit)} / 2, where they meet`,
        means: measuresAngle
          ? `${fixedDigits(corner.angle, 3)} deg between the faces`
          : "the angle is the drawing's",
        gives: formatLength(corner.at[axis], unit),
      },
      zero.line,
    ],
    doubt: combineDoubt([
      part(`${inputs.length / 2} touches, ${methodName(from.device)}`, random * slopes),
      display(settings, slopes),
    ]),
    ...(measuresAngle
      ? {
          size: {
            what: 'corner angle' as const,
            value: corner.angle,
            doubt: angleDoubt,
            nominal: from.cornerAngle,
          },
        }
      : {}),
    ...(more(faceX) || more(faceY)
      ? {
          scatter,
          residuals: [
            ...named(faceX.fit?.residuals ?? [], (index) => `along X, touch ${index + 1}`),
            ...named(faceY.fit?.residuals ?? [], (index) => `along Y, touch ${index + 1}`),
          ],
        }
      : {}),
  }
}
