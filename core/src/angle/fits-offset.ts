import { type Finding, finding } from '../fact/index.ts'
import type { PickupMethod } from '../pickup/index.ts'
import { formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { type Angle, costAt } from './measure.ts'

/** An axis of the offset that a turning is about: how and when it was taken. */
export interface ZeroTaken {
  axis: 'X' | 'Y'
  method: PickupMethod
  at: string
  stale: boolean
}

export interface OffsetAndAngle {
  offset: string
  zeros: readonly ZeroTaken[]
  /** When the angle was measured; undefined while it is being typed, which is now. */
  measuredAt: string | undefined
  angle: Angle
  /** How far along a face a touch may be from part zero; and what may be lost. In `unit`. */
  reach: number
  allowed: number
  unit: LengthUnit
}

/** Ways that touch one face at one place: on a turned part the face is elsewhere at part zero. */
const ONE_TOUCH: ReadonlySet<PickupMethod> = new Set([
  'edge-finder',
  'probe',
  'sensor',
  'indicator',
  'middle',
])

/**
 * Whether an offset and an angle fit each other: both of one clamping, and a zero that a turned part does not falsify.
 * A face touched at a distance d from part zero is off there by d sin theta (derived).
 */
export function fitsOffset({
  offset,
  zeros,
  measuredAt,
  angle,
  reach,
  allowed,
  unit,
}: OffsetAndAngle): Finding[] {
  const findings: Finding[] = []
  const stale = zeros.filter(({ stale }) => stale).map(({ axis }) => axis)
  const fresh = zeros.filter(({ stale }) => !stale)
  if (stale.length > 0)
    findings.push(
      finding(
        'stop',
        'zero-before-move',
        'offset',
        `${stale.join(' and ')} of ${offset} ${stale.length > 1 ? 'are' : 'is'} from before something was moved; the angle is from after.`,
        'A turning is about part zero. With an old zero the whole part is shifted as well.',
        `Take ${stale.join(' and ')} of ${offset} again.`,
      ),
    )
  const missing = (['X', 'Y'] as const).filter((axis) => !zeros.some((zero) => zero.axis === axis))
  if (missing.length > 0)
    findings.push(
      finding(
        'look',
        'no-zero-to-turn-about',
        'offset',
        `${missing.join(' and ')} of ${offset} ${missing.length > 1 ? 'are' : 'is'} not taken: the point that is turned about is not known.`,
        'The control turns about a place of the work offset, whatever stands there now.',
        `Take ${missing.join(' and ')} of ${offset} first.`,
      ),
    )
  const cost = costAt(reach, angle.value)
  const touched = fresh.filter(({ method }) => ONE_TOUCH.has(method))
  if (touched.length > 0 && cost > allowed)
    findings.push(
      finding(
        'look',
        'zero-on-turned-face',
        'offset',
        `${touched.map(({ axis }) => axis).join(' and ')} of ${offset} ${touched.length > 1 ? 'were' : 'was'} taken by touching a face of the turned part.`,
        `A face that is touched away from part zero is off there: by up to ${formatWithUnit(cost, unit)} at ${formatWithUnit(reach, unit)}.`,
        'Take the corner from touches on both faces, or the centre of a bore: neither minds the angle.',
      ),
    )
  const before = fresh.filter(({ at }) => measuredAt === undefined || at < measuredAt)
  if (before.length > 0 && before.length < fresh.length)
    findings.push(
      finding(
        'note',
        'zeros-around-angle',
        'offset',
        `${before.map(({ axis }) => axis).join(' and ')} of ${offset} was taken before the angle, the other after it.`,
        'That is right as long as the part was not touched between.',
      ),
    )
  return findings
}
