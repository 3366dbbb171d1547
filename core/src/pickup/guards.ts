import { type Finding, finding } from '../fact/index.ts'
import { fixedDigits, formatLength, formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { type Expectation, repeatBound } from './expectation.ts'
import { isHeight, type Reading, type ReadingOf } from './reading.ts'
import { REPEATABILITY } from './repeatability.ts'
import type { Pickup } from './words.ts'

/** Largest tip and swing that are usual on a mill. [inch, mm] */
const LARGE_TIP = { inch: 1, mm: 25 }
const LARGE_SWING = { inch: 6, mm: 150 }
/** A sweep that is further off than this is better moved nearer first. [inch, mm] */
const LARGE_DIAL = { inch: 0.05, mm: 1.2 }
const LARGE_FEELER = { inch: 0.1, mm: 2.5 }
/** A size this far from the drawing's is not the feature, whatever its doubt. By judgement. [inch, mm] */
const OTHER_SIZE = { inch: 0.01, mm: 0.25 }
/** A corner this far from the drawing's angle, in degrees, by judgement. */
const OTHER_ANGLE = 0.5

/** What touches: a finder, a stylus, or nothing with a diameter. */
type Touching = { diameter: { value: number }; device?: string; method: string }

function ofTip(from: Touching, unit: LengthUnit): Finding[] {
  const { value } = from.diameter
  const device = from.device ?? from.method
  const isPoint = device === 'sensor' || device === 'indicator'
  if (isPoint && value !== 0)
    return [
      finding(
        'stop',
        'tip-of-sensor',
        'diameter',
        `${device === 'sensor' ? 'A 3D sensor' : 'An indicator'} has no tip to take away: its diameter is 0 here.`,
        'At zero the spindle stands over the face itself, or an indicator on both faces stands off alike.',
        'Type 0, or choose what really touched.',
      ),
    ]
  if (!isPoint && value <= 0)
    return [
      finding(
        'stop',
        'finder-diameter',
        'diameter',
        'The diameter of the tip must be more than zero.',
        'Half of it lies between the spindle and the face.',
        'Type the diameter of the tip. 0.200 and 0.500 in or 10 mm are usual for a finder.',
      ),
    ]
  if (value <= LARGE_TIP[unit]) return []
  return [
    finding(
      'look',
      'finder-diameter',
      'diameter',
      `A tip of ${formatWithUnit(value, unit)} is unusual.`,
      '0.200 and 0.500 in or 10 mm are usual for a finder, 2 to 6 mm for a stylus.',
      'Check the diameter and its unit.',
    ),
  ]
}

function ofIndicator(from: ReadingOf<'indicator'>, pickup: Pickup, expected: Expectation): Finding[] {
  const { unit, otherSwing } = expected
  const swing = pickup.swing ?? 0
  if (swing === 0)
    return [
      finding(
        'stop',
        'no-swing',
        'plusSide',
        'Both sides have the same position.',
        "The two sides lie apart by twice the indicator's swing.",
        'Turn the indicator to the other side of the plane, bring the dial to zero, and read again.',
      ),
    ]
  const findings: Finding[] = []
  if (from.plusSide.value < from.minusSide.value)
    findings.push(
      finding(
        'note',
        'sides-turned-round',
        'plusSide',
        'The two sides look turned round.',
        'With the indicator on the plus side the machine position is the greater one. The middle is the same either way.',
      ),
    )
  if (swing > LARGE_SWING[unit])
    findings.push(
      finding(
        'look',
        'large-swing',
        'plusSide',
        `A swing of ${formatWithUnit(swing, unit)} is large.`,
        'It is the distance from the spindle axis to the stylus.',
        'Check both positions.',
      ),
    )
  const bound = repeatBound(pickup.doubt.value, pickup.doubt.value)
  if (otherSwing !== undefined && Math.abs(swing - otherSwing) > bound)
    findings.push(
      finding(
        'look',
        'swings-disagree',
        pickup.axis,
        `The swing is ${formatLength(swing, unit)} here and ${formatLength(otherSwing, unit)} on the other axis.`,
        `It is the indicator's own radius and must come out the same within ${formatWithUnit(bound, unit)}: the indicator was bumped, or a side was not at zero.`,
        'Take both axes again without touching the indicator between.',
      ),
    )
  return findings
}

function ofHeight(from: Reading & { toolLength: unknown }, { machine, unit }: Expectation): Finding[] {
  if (!isHeight(from)) return []
  const findings: Finding[] = []
  const { value } = from.blockHeight
  if (value < 0)
    findings.push(
      finding(
        'stop',
        'block-height',
        'blockHeight',
        'A gauge block cannot have a negative height.',
        'It stands between the tool and the face. Type 0 when the tool touches the face itself.',
      ),
    )
  if (from.method === 'tool-on-feeler' && value > LARGE_FEELER[unit])
    findings.push(
      finding(
        'look',
        'thick-feeler',
        'blockHeight',
        `A feeler of ${formatWithUnit(value, unit)} is thick.`,
        'Feelers and shims are a few thou. What stands between tool and face goes into Z in full.',
        'Check the thickness and its unit.',
      ),
    )
  if (machine.toolLengths === 'gauge-line' && from.toolLength.value <= 0)
    findings.push(
      finding(
        'stop',
        'tool-length-sign',
        'toolLength',
        'A tool length from the gauge line must be more than zero.',
        `Lengths on ${machine.name} are measured from the gauge line of the spindle down to the tip.`,
        'Type the length without a minus. If this shop measures against a master tool, change it on the machine page.',
      ),
    )
  return findings
}

/** A pocket or bore that the tip does not go into, by what the drawing says or by what was read. */
function ofRoom(
  from: ReadingOf<'middle'> | ReadingOf<'circle'>,
  pickup: Pickup,
  unit: LengthUnit,
): Finding[] {
  const inside = from.side === 'pocket' || from.side === 'bore'
  const size = pickup.size
  if (!size) return []
  const what = from.side
  if (inside && size.nominal !== undefined && from.diameter.value >= size.nominal)
    return [
      finding(
        'stop',
        'tip-larger-than-pocket',
        'diameter',
        `A tip of ${formatWithUnit(from.diameter.value, unit)} does not go into a ${what} of ${formatWithUnit(size.nominal, unit)}.`,
        'One of the two numbers is not right.',
        'Check the diameter of the tip and the size on the drawing, and their units.',
      ),
    ]
  if (size.value > 0) return []
  return [
    finding(
      'stop',
      'no-size-left',
      'diameter',
      `Nothing of the ${what} is left: it would be ${formatWithUnit(size.value, unit)} ${size.what === 'width' ? 'wide' : 'across'}.`,
      'The tip stood outside on both sides, so its diameter is taken away from the distance between the readings.',
      `Check the readings and the tip, or say ${from.side === 'web' ? 'pocket' : 'bore'} if it was touched from inside.`,
    ),
  ]
}

/** What the feature measures against what the drawing says: another feature, a chip, a wrong direction. */
function ofSize(from: Reading, { size, axis }: Pickup, unit: LengthUnit): Finding[] {
  if (!size || size.nominal === undefined) return []
  const { what, value, nominal, doubt } = size
  const apart = value - nominal
  if (what === 'corner angle') {
    if (Math.abs(apart) <= Math.max(OTHER_ANGLE, 3 * doubt)) return []
    return [
      finding(
        'look',
        'other-angle',
        'cornerAngle',
        `The faces meet at ${fixedDigits(value, 2)} degrees; the drawing says ${fixedDigits(nominal, 2)}.`,
        'Another corner, a chip under the tip, or a touch under the wrong face.',
        'Touch the faces again. If the part is really so, the corner is where it is computed.',
      ),
    ]
  }
  const bound = Math.max(OTHER_SIZE[unit], 3 * doubt)
  if (Math.abs(apart) <= bound) return []
  const tip = 'diameter' in from ? from.diameter.value : 0
  const other =
    'side' in from ? { web: 'pocket', pocket: 'web', bore: 'boss', boss: 'bore' }[from.side] : undefined
  const turned = tip > 0 && Math.abs(Math.abs(apart) - 2 * tip) <= bound
  return [
    finding(
      'look',
      'other-size',
      axis,
      `It measures ${formatWithUnit(value, unit)}; the drawing says ${formatWithUnit(nominal, unit)}.`,
      turned
        ? `The difference is twice the tip: it would fit if it were touched as a ${other}.`
        : 'Another feature or the wrong part, a chip under the tip, or a slip in a reading.',
      turned
        ? `Say ${other} if that is what it is.`
        : 'Check which feature this is, wipe it, and touch it again.',
    ),
  ]
}

/** Touches that do not lie on what they are said to lie on, the worst one named. */
function ofForm({ residuals, scatter, unit }: Pickup, device: keyof typeof REPEATABILITY): Finding[] {
  if (!residuals || scatter === undefined) return []
  const [worst] = [...residuals].sort((a, b) => Math.abs(b.value) - Math.abs(a.value))
  if (!worst || Math.abs(worst.value) <= 3 * REPEATABILITY[device][unit]) return []
  return [
    finding(
      'look',
      'out-of-form',
      'points',
      `The touches do not fit: ${worst.name} is off by ${formatWithUnit(Math.abs(worst.value), unit)}.`,
      `This device repeats to ${formatWithUnit(REPEATABILITY[device][unit], unit)}. A chip, a typed slip, or the feature is really out of form; the doubt counts it.`,
      `Take ${worst.name} again.`,
    ),
  ]
}

function ofCircle(from: ReadingOf<'circle'>, pickup: Pickup): Finding[] {
  const one = Math.max(REPEATABILITY[from.device][pickup.unit], pickup.scatter ?? 0)
  const bunched = pickup.doubt.value > 3 * one
  return bunched
    ? [
        finding(
          'look',
          'touches-bunched',
          'points',
          'The touches lie on a small part of the circle.',
          'The centre then hangs on the last digit of each: its doubt is several times that of one touch.',
          'Spread them round the bore, over more than half of it.',
        ),
      ]
    : []
}

function ofSweep(from: ReadingOf<'swept'>, { unit }: Expectation): Finding[] {
  const off = Math.abs(from.plusDial.value - from.minusDial.value) / 2
  if (off <= LARGE_DIAL[unit]) return []
  return [
    finding(
      'look',
      'far-off-centre',
      'plusDial',
      `The spindle stands ${formatWithUnit(off, unit)} off the centre.`,
      'A lever indicator reads true only near its zero, and on a chord away from the axis it reads short.',
      'Move there, sweep again, and record that.',
    ),
  ]
}

/** A radius typed for a diameter: it would give what stood before if it were doubled. */
function ofSkim(from: ReadingOf<'skimmed'>, pickup: Pickup, { last, unit }: Expectation): Finding[] {
  const { value } = from.measured
  if (
    !last ||
    Math.abs(pickup.value - value - last.value) > OTHER_SIZE[unit] ||
    value <= 5 * OTHER_SIZE[unit]
  )
    return []
  return [
    finding(
      'look',
      'radius-for-diameter',
      'measured',
      `${formatWithUnit(value, unit)} looks like a radius.`,
      `As a diameter of ${formatWithUnit(2 * value, unit)} it would give ${formatLength(last.value, unit)}, as before.`,
      'Type the whole diameter.',
    ),
  ]
}

/** Readings of one position that do not repeat as the method should. */
function ofRepeats({ repeated, doubt, axis, unit }: Pickup, device: keyof typeof REPEATABILITY): Finding[] {
  if (!repeated) return []
  const each = REPEATABILITY[device][unit]
  const bound = repeatBound(each, each)
  if (repeated.spread <= bound) return []
  return [
    finding(
      'look',
      'repeats-apart',
      axis,
      `The readings of one place lie ${formatWithUnit(repeated.spread, unit)} apart.`,
      `They should repeat within ${formatWithUnit(bound, unit)}; the doubt of ${formatWithUnit(doubt.value, unit)} counts what they show.`,
      'One of them is a slip, or something is loose: the part, the finder, the spindle.',
    ),
  ]
}

const ownGuards = (from: Reading, pickup: Pickup, expected: Expectation): Finding[] => {
  const { unit } = expected
  switch (from.method) {
    case 'edge-finder':
    case 'probe':
      return ofTip(from, unit)
    case 'indicator':
      return ofIndicator(from, pickup, expected)
    case 'middle':
      return [...ofTip(from, unit), ...ofRoom(from, pickup, unit), ...ofSize(from, pickup, unit)]
    case 'circle':
      return [
        ...ofTip(from, unit),
        ...ofRoom(from, pickup, unit),
        ...ofSize(from, pickup, unit),
        ...ofForm(pickup, from.device),
        ...ofCircle(from, pickup),
      ]
    case 'corner':
      return [...ofTip(from, unit), ...ofSize(from, pickup, unit), ...ofForm(pickup, from.device)]
    case 'probe-set':
      return ofSize(from, pickup, unit)
    case 'swept':
      return ofSweep(from, expected)
    case 'skimmed':
      return ofSkim(from, pickup, expected)
    default:
      return isHeight(from) ? ofHeight(from, expected) : []
  }
}

/** What a method touches with, for how well it repeats. */
const deviceOf = (from: Reading): keyof typeof REPEATABILITY => {
  if ('device' in from) return from.device
  if (from.method === 'sensor-down') return 'sensor'
  if (from.method === 'probe-down' || from.method === 'probe-set') return 'probe'
  return from.method === 'from-offset' || from.method === 'centre-line' ? 'tool-on-block' : from.method
}

/** The guards of the method itself: what can be wrong with these readings whatever stood before. */
export const guardMethod = (from: Reading, pickup: Pickup, expected: Expectation): Finding[] => [
  ...ownGuards(from, pickup, expected),
  ...ofRepeats(pickup, deviceOf(from)),
]
