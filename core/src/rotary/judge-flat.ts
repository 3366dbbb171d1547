import { formatAngle } from '../angle/index.ts'
import { type Finding, finding, worstFirst } from '../fact/index.ts'
import { type Machine, type RotaryAxis, senseOf } from '../machine/index.ts'
import { outsideTravel, readingIn, valuesOf } from '../pickup/index.ts'
import { formatLength, formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import type { Flat } from './flat.ts'
import type { FlatReading } from './reading.ts'

/** What a flat was found to be before, for the same offset. */
export interface EarlierFlat extends Pick<Flat, 'value' | 'turned' | 'tilt'> {
  /** In degrees. */
  doubt: number
  /** Nothing was said to have happened to it since. */
  fresh: boolean
}

export interface FlatCase {
  machine: Machine
  unit: LengthUnit
  /** Machine Y of the centre line, where it is known. */
  centreY: number | undefined
  last: EarlierFlat | undefined
}

/** A flat that is turned further than this does not face as named: it is another face. Derived: half of a right angle. */
const OTHER_FACE = 45
/** Degrees that a flat is brought near to by eye before it is touched. By judgement. */
const NEAR_BY_EYE = 15
/** Degrees that are worth a look where they are the doubt: 0.003 in beside the middle of 4 in. By judgement. */
const DOUBTED = 0.1
/** Movements of a rotary that tell which way it counts, in times what the two flats are known to. By judgement. */
const TELLS_THE_WAY = 10

const deg = (value: number) => `${formatAngle(value)} deg`

function touchFindings(reading: FlatReading, flat: Flat, of: FlatCase): Finding[] {
  if (reading.method !== 'touches') return []
  const { machine, unit, centreY } = of
  const own = readingIn(reading, unit)
  const findings = (['first', 'second'] as const).flatMap((touch, n) => [
    ...outsideTravel('Y', `y${n + 1}`, valuesOf(own[touch].y), machine, unit),
    ...outsideTravel('Z', `z${n + 1}`, valuesOf(own[touch].z), machine, unit),
  ])
  const { faces } = own
  const behind =
    faces === 'up' || centreY === undefined
      ? []
      : [own.first, own.second].filter(({ y }) => (faces === 'front' ? y.value > centreY : y.value < centreY))
  if (behind.length > 0)
    findings.push(
      finding(
        'stop',
        'other-side',
        'y1',
        behind.length === 2
          ? `Both touches are on the ${faces === 'front' ? 'back' : 'front'} of the part.`
          : 'The two touches are on two sides of the axis.',
        `The centre line lies at Y ${formatLength(centreY ?? 0, unit)}; a flat that faces ${faces} lies ${faces === 'front' ? 'below' : 'above'} that.`,
        behind.length === 2
          ? 'Say which way the flat faces.'
          : 'Touch the same flat twice, from the same side.',
      ),
    )
  else if (Math.abs(flat.tilt) > OTHER_FACE)
    findings.push(
      finding(
        'stop',
        'not-one-flat',
        'y1',
        `These touches would have the flat turned by ${deg(Math.abs(flat.tilt))}: they are not on one flat that faces ${faces}.`,
        'One of them is on another face, or from the other side of the axis; then the tip counts twice.',
        'Touch the same flat twice, from the same side, and say which way it faces.',
      ),
    )
  return findings
}

/** Whether the rotary counts the way that the machine's page says: by how far a flat turned between two measurings. */
function countsOtherWay(flat: Flat, rotary: RotaryAxis, { last, machine }: FlatCase): Finding[] {
  if (!last?.fresh) return []
  const moved = flat.turned - last.turned
  const turned = flat.tilt - last.tilt
  const known = Math.hypot(flat.doubt.value, last.doubt)
  if (Math.abs(moved) < TELLS_THE_WAY * known || Math.abs(turned + senseOf(rotary) * moved) > 3 * known)
    return []
  return [
    finding(
      'stop',
      'counts-other-way',
      'turned',
      `The flat turned the other way than the page of ${machine.name} says.`,
      `${rotary.word} went from ${deg(last.turned)} to ${deg(flat.turned)}, and the top went to the ${rotary.top === 'front' ? 'back' : 'front'}.`,
      "Look at it turn, and put it right on the machine's page: else every angle has the wrong sign.",
    ),
  ]
}

/** What can be wrong with a flat: touches that are none of it, a rotary that counts the other way, one that cannot go there. */
export function judgeFlat(reading: FlatReading, flat: Flat, rotary: RotaryAxis, of: FlatCase): Finding[] {
  const { machine, unit, last } = of
  const { word, turns } = rotary
  const findings = [...touchFindings(reading, flat, of), ...countsOtherWay(flat, rotary, of)]
  const beyond = turns && [reading.turned, flat.level].find((at) => at < turns.least || at > turns.greatest)
  if (turns && typeof beyond === 'number')
    findings.push(
      finding(
        'stop',
        'rotary-limits',
        'turned',
        `${word} cannot stand at ${deg(beyond)}.`,
        `${word} of ${machine.name} goes from ${formatAngle(turns.least)} to ${deg(turns.greatest)}.`,
        beyond === reading.turned
          ? 'Read the machine position again, with its sign.'
          : 'Turn the part in the chuck, and measure again.',
      ),
    )
  const tilted = Math.abs(flat.tilt)
  if (tilted > NEAR_BY_EYE && tilted <= OTHER_FACE)
    findings.push(
      finding(
        'look',
        'turn-nearer',
        'turned',
        `The flat is turned by ${deg(tilted)}.`,
        'So far off, a touch may lie on an edge, or one of the two on another face.',
        `Turn ${word} until it looks level, and touch it again.`,
      ),
    )
  if (flat.doubt.value > DOUBTED)
    findings.push(
      finding(
        'look',
        'angle-doubted',
        'y1',
        `${word} may be off by ${deg(flat.doubt.value)}.`,
        `It was measured over ${formatWithUnit(flat.span, unit)}; the doubt shrinks as that grows.`,
        'Touch further apart, or with something finer.',
      ),
    )
  const off = last && flat.value - last.value
  if (last && off !== undefined && Math.abs(off) > 3 * Math.hypot(flat.doubt.value, last.doubt))
    findings.push(
      last.fresh
        ? finding(
            'look',
            'differs-from-last',
            'turned',
            `${word} differs from last time by ${deg(Math.abs(off))}.`,
            'Nothing was said to have happened since: the part slipped or was clamped again, the rotary was homed, or it is another flat.',
            'Say what happened, or measure again.',
          )
        : finding(
            'note',
            'was-before',
            'turned',
            `It was ${deg(last.value)} before.`,
            'That no longer held.',
          ),
    )
  return worstFirst(findings)
}
