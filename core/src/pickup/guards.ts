import { type Finding, finding } from '../fact/index.ts'
import { formatLength, formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { type Expectation, repeatBound } from './expectation.ts'
import type { Pickup } from './pick-up.ts'
import type { Reading } from './reading.ts'

/** Largest finder and swing that are usual on a mill. [inch, mm] */
const LARGE_FINDER = { inch: 1, mm: 25 }
const LARGE_SWING = { inch: 6, mm: 150 }

function ofEdgeFinder(from: Reading & { method: 'edge-finder' }, unit: LengthUnit): Finding[] {
  const { value } = from.diameter
  if (value <= 0)
    return [
      finding(
        'stop',
        'finder-diameter',
        'diameter',
        'The diameter of the finder must be more than zero.',
        'Half of it lies between the spindle and the face.',
        'Type the diameter of the tip. 0.200 and 0.500 in or 10 mm are usual.',
      ),
    ]
  if (value <= LARGE_FINDER[unit]) return []
  return [
    finding(
      'look',
      'finder-diameter',
      'diameter',
      `A finder of ${formatWithUnit(value, unit)} is unusual.`,
      '0.200 and 0.500 in or 10 mm are usual.',
      'Check the diameter and its unit.',
    ),
  ]
}

function ofIndicator(
  from: Reading & { method: 'indicator' },
  pickup: Pickup,
  expected: Expectation,
): Finding[] {
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

function ofToolOnBlock(from: Reading & { method: 'tool-on-block' }, { machine }: Expectation): Finding[] {
  const findings: Finding[] = []
  if (from.blockHeight.value < 0)
    findings.push(
      finding(
        'stop',
        'block-height',
        'blockHeight',
        'A gauge block cannot have a negative height.',
        'It stands between the tool and the face. Type 0 when the tool touches the face itself.',
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

/** The guards of the method itself: what can be wrong with these readings whatever stood before. */
export function guardMethod(from: Reading, pickup: Pickup, expected: Expectation): Finding[] {
  if (from.method === 'edge-finder') return ofEdgeFinder(from, expected.unit)
  if (from.method === 'indicator') return ofIndicator(from, pickup, expected)
  return ofToolOnBlock(from, expected)
}
