import { formatAngle } from '../angle/index.ts'
import { type Finding, finding, worstFirst } from '../fact/index.ts'
import type { Machine } from '../machine/index.ts'
import { outsideTravel, REPEATABILITY, readingIn, valuesOf } from '../pickup/index.ts'
import { formatLength, formatWithUnit, type LengthUnit, MM_PER_INCH } from '../quantity/index.ts'
import type { Centre } from './centre.ts'
import type { CentreReading } from './reading.ts'

/** The centre line as it was found before. */
export interface EarlierCentre {
  Y?: { value: number; doubt: number }
  Z?: { value: number; doubt: number }
  fresh: boolean
}

export interface CentreCase {
  machine: Machine
  unit: LengthUnit
  last: EarlierCentre | undefined
}

/** Half a turn, and how near to it: 0.05 deg turns a part that runs out by 0.1 in only 0.0001 in aside. By judgement. */
const HALF = 180
const HALF_WITHIN = 0.05
/** A part that stands further off the axis is not central, or its readings are swapped. [inch, mm] By judgement. */
const FAR_OUT = { inch: 0.02, mm: 0.5 }
/** Two widths nearer than this share are one, read in another unit. */
const SAME_SHARE = 0.02

type Own = ReturnType<typeof readingIn<CentreReading>>

function ofPositions(own: Own, { machine, unit }: CentreCase): Finding[] {
  const of = (sides: Own['first'] | undefined, names: readonly [string, string, string]) =>
    (['front', 'back', 'top'] as const).flatMap((side, n) => {
      const at = sides?.[side]
      return at
        ? outsideTravel(side === 'top' ? 'Z' : 'Y', names[n] ?? side, valuesOf(at), machine, unit)
        : []
    })
  return [...of(own.first, ['front', 'back', 'top']), ...of(own.half, ['halfFront', 'halfBack', 'halfTop'])]
}

function halfTurned({ first, half }: Own): Finding[] {
  if (!half) return []
  const by = Math.abs(half.turned - first.turned)
  const off = Math.abs((by % 360) - HALF)
  if (off <= HALF_WITHIN) return []
  return [
    finding(
      'stop',
      'not-half-a-turn',
      'halfTurned',
      `From ${formatAngle(first.turned)} to ${formatAngle(half.turned)} is not half a turn.`,
      'Only what stands opposite cancels how far the part runs out.',
      'Turn it by 180 degrees just, and read where the machine shows it.',
    ),
  ]
}

/** Front and back against each other, against what the part measures, and against themselves after half a turn. */
function ofWidths(own: Own, { widths }: Centre, { unit }: CentreCase): Finding[] {
  const bad = widths.findIndex((width) => width <= 0)
  if (bad >= 0)
    return [
      finding(
        'stop',
        'sides-swapped',
        bad === 0 ? 'front' : 'halfFront',
        'Front and back are swapped, or the tip is larger than what was found.',
        `Y of the front is below that of the back; between them, less the tip, the part would measure ${formatWithUnit(widths[bad] ?? 0, unit)}.`,
        'Check which is which, and the diameter of the tip.',
      ),
    ]
  const [first, half] = widths
  const known = 3 * 2 * Math.max(REPEATABILITY[own.device][unit], REPEATABILITY.probe[unit])
  if (first === undefined) return []
  const findings: Finding[] = []
  if (own.round && own.across) {
    const across = own.across.value
    const other = [across * MM_PER_INCH, across / MM_PER_INCH].some(
      (each) => Math.abs(each - first) <= SAME_SHARE * first,
    )
    if (other)
      findings.push(
        finding(
          'stop',
          'unit-mixed',
          'across',
          'What the part measures looks like the other unit.',
          `Typed is ${formatWithUnit(across, unit)}; from front to back it is ${formatLength(first, unit)}.`,
          'Write the unit behind the number.',
        ),
      )
    else if (Math.abs(across - first) > known + (own.acrossWithin?.value ?? 0))
      findings.push(
        finding(
          'look',
          'width-differs',
          'across',
          `From front to back it is ${formatWithUnit(first, unit)}, not ${formatLength(across, unit)}.`,
          'A round part measures the same everywhere: the tip has another diameter, it was not touched at the height of its middle, or it is not round.',
          'Touch at the height of the middle, and check the diameter of the tip.',
        ),
      )
  }
  if (half !== undefined && Math.abs(half - first) > known)
    findings.push(
      finding(
        'look',
        'half-width-differs',
        'halfFront',
        `After half a turn it is ${formatWithUnit(Math.abs(half - first), unit)} ${half > first ? 'wider' : 'narrower'}.`,
        'The same two sides stand front and back again: they measure the same, unless they are not upright.',
        'Touch both at the same height as before.',
      ),
    )
  return findings
}

function againstLast({ Y, Z }: Centre, { last, unit }: CentreCase): Finding[] {
  return ([Y, Z] as const).flatMap((now) => {
    const before = now && last?.[now.axis]
    if (!now || !before) return []
    const off = now.value - before.value
    if (Math.abs(off) <= 3 * Math.hypot(now.doubt.value, before.doubt)) return []
    const says = `The centre line lies ${formatWithUnit(Math.abs(off), unit)} from where it was in ${now.axis}.`
    return [
      last?.fresh
        ? finding(
            'look',
            'centre-moved',
            now.axis,
            says,
            'Nothing was said to have happened since: the rotary moved on the table, the part runs out, or a reading is off.',
            'Say what happened, or touch it again.',
          )
        : finding('note', 'centre-was', now.axis, says, 'That no longer held.'),
    ]
  })
}

/** What can be wrong with a centre line: places that cannot be, sides swapped, the other unit, a part that runs out, less than half a turn. */
export function judgeCentre(reading: CentreReading, centre: Centre, of: CentreCase): Finding[] {
  const { unit } = of
  const own = readingIn(reading, unit)
  const findings = [
    ...ofPositions(own, of),
    ...halfTurned(own),
    ...ofWidths(own, centre, of),
    ...againstLast(centre, of),
  ]
  const unturned = [centre.Y, centre.Z].flatMap((axis) =>
    axis && axis.runsOut === undefined ? [axis.axis] : [],
  )
  if (unturned.length > 0)
    findings.push(
      finding(
        'look',
        'not-turned',
        'halfTurned',
        `${unturned.join(' and ')}: the part’s middle is taken for the centre line.`,
        'Whatever the part runs out by is in it.',
        'Turn it by half, and touch the same again.',
      ),
    )
  const { runsOut } = centre
  if (runsOut && runsOut.value > FAR_OUT[unit])
    findings.push(
      finding(
        'look',
        'runs-out',
        'halfFront',
        `The part’s middle stands ${runsOut.atLeast ? 'at least ' : ''}${formatWithUnit(runsOut.value, unit)} off the axis.`,
        'The centre line does not mind; what is turned round it is cut as much deeper on one side.',
        'Set the part true in the chuck, if it matters.',
      ),
    )
  return worstFirst(findings)
}
