import {
  combineDoubt,
  type DoubtPart,
  type Finding,
  finding,
  resolutionDoubt,
  type WorkingLine,
} from '../fact/index.ts'
import {
  degrees,
  distance,
  fitEdge,
  fitRigid,
  halfTurn,
  type PlanePoint,
  type PointPair,
  radians,
} from '../geometry/index.ts'
import { type PickupSettings, REPEATABILITY } from '../pickup/index.ts'
import {
  convertLength,
  fixedDigits,
  formatLength,
  formatWithUnit,
  type LengthUnit,
  type TypedLength,
} from '../quantity/index.ts'
import type { AngleDevice, AngleReading } from './reading.ts'

/** Digits of an angle as it is shown and printed; 0.001 deg is 0.0002 in at the end of 10 in. */
export const ANGLE_DIGITS = 3
export const formatAngle = (value: number, digits = ANGLE_DIGITS) => fixedDigits(value, digits)

/** How one touch or feature stands off the fit, in the setup's unit. */
interface AngleResidual {
  name: string
  value: number
}

/** The part's angle against the drawing: counter-clockwise seen from +Z is plus. */
export interface Angle {
  /** Degrees in (-180, 180]. */
  value: number
  /** How far off it may be, in degrees, and what that is made of. */
  doubt: { value: number; parts: DoubtPart[] }
  working: WorkingLine[]
  /** Between the outermost points: what the angle was measured over. */
  base: number
  residuals: AngleResidual[]
  /** Standard deviation of one point about the fit; undefined where nothing is left over. */
  scatter: number | undefined
  /** The one without which the others fit, and the angle without it. */
  spoiler?: { name: string; without: number }
  findings: Finding[]
  unit: LengthUnit
}

const CENTRE: Record<AngleDevice, keyof typeof REPEATABILITY> = {
  'edge-finder': 'edge-finder',
  sensor: 'sensor',
  indicator: 'swept',
  probe: 'probe',
}

const lengthIn = (of: TypedLength, unit: LengthUnit) => convertLength(of.value, of.unit, unit)
const pointIn = ({ x, y }: { x: TypedLength; y: TypedLength }, unit: LengthUnit): PlanePoint => ({
  x: lengthIn(x, unit),
  y: lengthIn(y, unit),
})

/** u sqrt(parts) / base, in degrees: how far off a direction is for the doubt of each point. */
function doubtOf(random: number, display: number, over: number, from: string, settings: PickupSettings) {
  const share = (value: number) => degrees(value / over)
  return combineDoubt([
    { from, value: share(random) },
    {
      from: `display reads in steps of ${formatLength(settings.leastStep, settings.unit)}`,
      value: share(display),
    },
  ])
}

const deg = (value: number) => `${formatAngle(value)} deg`

/** Points that are one and the same place: a touch that was entered twice. */
function doubles(points: readonly PlanePoint[], names: readonly string[]): Finding[] {
  for (let i = 0; i < points.length; i += 1)
    for (let j = 0; j < i; j += 1) {
      const [a, b] = [points[i], points[j]]
      if (a && b && a.x === b.x && a.y === b.y)
        return [
          finding(
            'look',
            'same-point-twice',
            'points',
            `${names[j]} and ${names[i]} are the same place.`,
            'Two touches that agree to the last digit are more likely one that was entered twice. It counts double in the fit.',
            'Take one of them out of the list, or touch there again.',
          ),
        ]
    }
  return []
}

interface Trial {
  angle: number
  /** Sum of squares that is left. */
  left: number
}

/** A point that is off by more than this many times what the device repeats to is looked at. Common practice. */
const SPOILS_FROM = 3

/**
 * The one point without which the rest fit: leaving it out takes away nine tenths of what is left, and it stands off by
 * more than three times the device's repeatability. Four points or more, since three without one leave nothing over.
 */
function spoilerOf(
  names: readonly string[],
  whole: number,
  without: (index: number) => Trial | undefined,
  worst: number,
  repeats: number,
): Angle['spoiler'] {
  if (names.length < 4 || worst <= SPOILS_FROM * repeats) return undefined
  let best: { index: number; trial: Trial } | undefined
  for (let index = 0; index < names.length; index += 1) {
    const trial = without(index)
    if (trial && (!best || trial.left < best.trial.left)) best = { index, trial }
  }
  if (!best || best.trial.left > 0.1 * whole) return undefined
  return { name: names[best.index] ?? '', without: best.trial.angle }
}

const squares = (values: readonly number[]) => values.reduce((sum, value) => sum + value * value, 0)

function offTheFit(
  angle: Pick<Angle, 'residuals' | 'spoiler'>,
  repeats: number,
  unit: LengthUnit,
): Finding[] {
  const [worst] = [...angle.residuals].sort((a, b) => Math.abs(b.value) - Math.abs(a.value))
  if (!worst || Math.abs(worst.value) <= SPOILS_FROM * repeats) return []
  const { spoiler } = angle
  return [
    finding(
      'look',
      'off-the-fit',
      'points',
      spoiler
        ? `${spoiler.name} spoils the fit: without it the angle is ${deg(spoiler.without)}.`
        : `The points do not fit: ${worst.name} is off by ${formatWithUnit(Math.abs(worst.value), unit)}.`,
      `${worst.name} stands off by ${formatWithUnit(Math.abs(worst.value), unit)}; this device repeats to ${formatWithUnit(repeats, unit)}. The wrong part, a chip under it, or a typed slip. The doubt counts it.`,
      spoiler ? `Take ${spoiler.name} again, or take it out of the list.` : `Take ${worst.name} again.`,
    ),
  ]
}

/** theta = direction of the least squares line - nominal; doubt u / sqrt(sum of squares along it). For two points sqrt 2 u / L. */
function fromEdge(reading: AngleReading & { method: 'edge' }, settings: PickupSettings): Angle {
  const { unit } = settings
  const points = reading.points.map((each) => pointIn(each, unit))
  const fit = fitEdge(points)
  if (!fit) throw new Error('an angle reading without an angle passes no schema')
  // A line has no front: the angle is the smaller turn from the drawing's direction.
  const value = halfTurn(2 * (fit.direction - reading.nominal)) / 2
  const names = points.map((_, index) => `touch ${index + 1}`)
  const repeats = REPEATABILITY[reading.device][unit]
  const random = Math.max(repeats, fit.scatter ?? 0)
  const residuals =
    fit.scatter === undefined ? [] : fit.residuals.map((off, i) => ({ name: names[i] ?? '', value: off }))
  const spoiler = spoilerOf(
    names,
    squares(fit.residuals),
    (index) => {
      const rest = fitEdge(points.filter((_, i) => i !== index))
      return (
        rest && { angle: halfTurn(2 * (rest.direction - reading.nominal)) / 2, left: squares(rest.residuals) }
      )
    },
    Math.max(0, ...fit.residuals.map(Math.abs)),
    repeats,
  )
  const two = points.length === 2
  const [a, b] = [...points].sort((p, q) => p.x - q.x || p.y - q.y) as [PlanePoint, PlanePoint]
  const working: WorkingLine[] = [
    {
      finds: 'direction',
      arithmetic: two
        ? `atan2(${formatLength(b.y - a.y, unit)}, ${formatLength(b.x - a.x, unit)})`
        : `least squares line through ${points.length} touches`,
      means: two ? 'two touches always lie on a line: nothing is left over to judge by' : '',
      gives: deg(fit.direction),
    },
    {
      finds: 'angle',
      arithmetic: `${formatAngle(fit.direction)} - ${formatAngle(reading.nominal)}`,
      gives: deg(value),
    },
  ]
  return {
    value,
    base: fit.base,
    working,
    residuals,
    scatter: fit.scatter,
    unit,
    doubt: doubtOf(
      random,
      resolutionDoubt(settings.leastStep),
      Math.sqrt(fit.spreadAlong),
      `${points.length} touches over ${formatLength(fit.base, unit)}`,
      settings,
    ),
    ...(spoiler ? { spoiler } : {}),
    findings: [
      ...doubles(points, names),
      ...offTheFit({ residuals, ...(spoiler ? { spoiler } : {}) }, repeats, unit),
      ...largeAngle(value, fit.base, unit),
    ],
  }
}

/** A part is seldom clamped further askew than this; the nominal direction is more often wrong. By judgement, degrees. */
const LARGE_ANGLE = 10

function largeAngle(value: number, base: number, unit: LengthUnit): Finding[] {
  if (Math.abs(value) <= LARGE_ANGLE) return []
  return [
    finding(
      'look',
      'large-angle',
      'nominal',
      `${deg(value)} is a large angle for a part that was clamped by eye.`,
      `It was measured over ${formatWithUnit(base, unit)}. The direction on the drawing may be another, or two points are turned round.`,
      "Check the drawing's direction and the order of the points.",
    ),
  ]
}

function fromHoles(reading: AngleReading & { method: 'holes' }, settings: PickupSettings): Angle {
  const { unit } = settings
  const [a, b] = [pointIn(reading.first, unit), pointIn(reading.second, unit)]
  const base = distance(a, b)
  const direction = degrees(Math.atan2(b.y - a.y, b.x - a.x))
  const value = halfTurn(direction - reading.nominal)
  const repeats = REPEATABILITY[CENTRE[reading.device]][unit]
  return {
    value,
    base,
    unit,
    scatter: undefined,
    residuals: [],
    working: [
      {
        finds: 'direction',
        arithmetic: `atan2(${formatLength(b.y - a.y, unit)}, ${formatLength(b.x - a.x, unit)})`,
        means: 'from the first hole to the second',
        gives: deg(direction),
      },
      {
        finds: 'angle',
        arithmetic: `${formatAngle(direction)} - ${formatAngle(reading.nominal)}`,
        gives: deg(value),
      },
    ],
    doubt: doubtOf(
      Math.SQRT2 * repeats,
      Math.SQRT2 * resolutionDoubt(settings.leastStep),
      base,
      `two centres, ${formatLength(base, unit)} apart`,
      settings,
    ),
    findings: largeAngle(value, base, unit),
  }
}

const pairsIn = (reading: AngleReading & { method: 'features' }, unit: LengthUnit): PointPair[] =>
  reading.features.map(({ nominal, measured }) => ({
    nominal: pointIn(nominal, unit),
    measured: pointIn(measured, unit),
  }))

function fromFeatures(reading: AngleReading & { method: 'features' }, settings: PickupSettings): Angle {
  const { unit } = settings
  const pairs = pairsIn(reading, unit)
  const fit = fitRigid(pairs)
  if (!fit) throw new Error('an angle reading without an angle passes no schema')
  const names = reading.features.map(({ name }) => name)
  const repeats = REPEATABILITY[CENTRE[reading.device]][unit]
  const sizes = fit.residuals.map(({ x, y }) => Math.hypot(x, y))
  const residuals =
    fit.scatter === undefined ? [] : sizes.map((value, i) => ({ name: names[i] ?? '', value }))
  const random = Math.max(repeats, fit.scatter ?? 0)
  const spoiler = spoilerOf(
    names,
    squares(sizes),
    (index) => {
      const rest = fitRigid(pairs.filter((_, i) => i !== index))
      return (
        rest && { angle: rest.angle, left: rest.residuals.reduce((sum, { x, y }) => sum + x * x + y * y, 0) }
      )
    },
    Math.max(0, ...sizes),
    repeats,
  )
  const base = Math.max(
    ...pairs.map(({ nominal }) => Math.max(...pairs.map((other) => distance(nominal, other.nominal)))),
  )
  return {
    value: fit.angle,
    base,
    unit,
    scatter: fit.scatter,
    residuals,
    working: [
      {
        finds: 'angle',
        arithmetic: `rigid fit of ${pairs.length} features about their centroids`,
        means: 'atan2(sum of cross products, sum of dot products)',
        gives: deg(fit.angle),
      },
      {
        finds: 'part zero',
        arithmetic: `X ${formatLength(fit.origin.x, unit)}, Y ${formatLength(fit.origin.y, unit)}`,
        means: "where the fit has the drawing's zero",
        gives: '',
      },
      ...(fit.scatter === undefined
        ? []
        : [
            {
              finds: 'scatter',
              arithmetic: `sqrt(sum of squares / (2 x ${pairs.length} - 3))`,
              means: 'of one coordinate about the fit',
              gives: formatLength(fit.scatter, unit),
            },
          ]),
    ],
    doubt: doubtOf(
      random,
      resolutionDoubt(settings.leastStep),
      Math.sqrt(fit.spread),
      `${pairs.length} features over ${formatLength(base, unit)}`,
      settings,
    ),
    ...(spoiler ? { spoiler } : {}),
    findings: [
      ...doubles(
        pairs.map(({ measured }) => measured),
        names,
      ),
      ...offTheFit({ residuals, ...(spoiler ? { spoiler } : {}) }, repeats, unit),
      ...stretched(pairs, random, unit),
      ...largeAngle(fit.angle, base, unit),
    ],
  }
}

/** Two features whose distance is not the drawing's: with only two the fit hides it. */
function stretched(pairs: readonly PointPair[], random: number, unit: LengthUnit): Finding[] {
  const [a, b] = pairs
  if (pairs.length !== 2 || !a || !b) return []
  const off = distance(a.measured, b.measured) - distance(a.nominal, b.nominal)
  if (Math.abs(off) <= SPOILS_FROM * Math.SQRT2 * random) return []
  return [
    finding(
      'look',
      'distance-differs',
      'points',
      `The two features are ${formatWithUnit(Math.abs(off), unit)} ${off > 0 ? 'further apart' : 'nearer'} than on the drawing.`,
      'With two features the fit takes the middle and says nothing more. The wrong part, the wrong hole, or a slip.',
      'Check which features these are, or measure a third.',
    ),
  ]
}

function fromShown(reading: AngleReading & { method: 'shown' }, settings: PickupSettings): Angle {
  const { unit } = settings
  const base = lengthIn(reading.base, unit)
  const repeats = REPEATABILITY.probe[unit]
  return {
    value: reading.angle,
    base,
    unit,
    scatter: undefined,
    residuals: [],
    working: [
      {
        finds: 'angle',
        arithmetic: deg(reading.angle),
        means: "as the control's variable shows it",
        gives: deg(reading.angle),
      },
    ],
    doubt: doubtOf(Math.SQRT2 * repeats, 0, base, `two touches, ${formatLength(base, unit)} apart`, settings),
    findings: largeAngle(reading.angle, base, unit),
  }
}

/**
 * The part's angle, with its working, its doubt in degrees and what the points have against each other.
 * Two points: atan2(dy, dx) - nominal, doubt sqrt 2 u / L (derived). Many: least squares line, rigid fit.
 */
export function measureAngle(reading: AngleReading, settings: PickupSettings): Angle {
  switch (reading.method) {
    case 'edge':
      return fromEdge(reading, settings)
    case 'holes':
      return fromHoles(reading, settings)
    case 'features':
      return fromFeatures(reading, settings)
    case 'shown':
      return fromShown(reading, settings)
  }
}

/**
 * What ignoring an angle (degrees) costs at a distance: how far a point there is moved, the chord 2 L sin(angle / 2)
 * (trade.md 5), always as a size. By half a turn it lies twice the distance away.
 */
export const costAt = (reach: number, angle: number) => 2 * reach * Math.sin(radians(Math.abs(angle)) / 2)
