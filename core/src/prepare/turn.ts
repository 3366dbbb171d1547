import {
  formatAngle,
  type Rotation,
  type TurnedProgram,
  type WrittenRotation,
  writeRotation,
} from '../angle/index.ts'
import { type Finding, finding, worstFirst } from '../fact/index.ts'
import { withinTravel } from '../machine/index.ts'
import { formatLength, formatWithUnit } from '../quantity/index.ts'
import type { OffsetState, Setup } from '../setup/index.ts'
import { wrongPart } from './load.ts'

/** What stands against turning a program of this offset: no angle, a stale one, a zero that does not fit it. */
export function againstTurning(setup: Setup, offset: OffsetState): Finding[] {
  const { angle, name } = offset
  if (!angle)
    return [
      finding(
        'stop',
        'no-angle',
        'angle',
        `The angle of ${name} has not been measured.`,
        'There is nothing to turn by.',
        'Measure it first.',
      ),
    ]
  const stale =
    angle.freshness.state === 'stale'
      ? [
          finding(
            'stop',
            'angle-stale',
            'angle',
            `The angle of ${name} is stale: ${angle.freshness.cause.says}.`,
            'Nothing stale goes to the machine.',
            'Measure it again. If what made it stale was entered by mistake, strike that entry out in the logbook.',
          ),
        ]
      : []
  return worstFirst([...wrongPart(setup), ...stale, ...angle.findings])
}

/**
 * The program that turns and looks for one offset of a setup, by value or by the probe's variable, or the findings that
 * stand against it.
 */
export function rotationFor(
  setup: Setup,
  offset: OffsetState,
  { about, look, byVariable }: Pick<Rotation, 'about' | 'look'> & { byVariable: boolean },
): WrittenRotation {
  const against = againstTurning(setup, offset)
  const { angle } = offset
  if (!angle || against.some(({ severity }) => severity === 'stop')) return { ok: false, findings: against }
  const { X, Y } = offset.axes
  const variable = setup.profile.probing?.results.angle ?? 0
  const { value, doubt, base } = angle.angle
  const written = writeRotation(
    {
      offset: offset.name,
      unit: setup.unit,
      by: byVariable ? { variable } : value,
      about,
      look,
      zero: X && Y ? { x: X.value, y: Y.value } : undefined,
      aboutIt: [
        `Setup: ${setup.opened.title}, ${setup.machine.name}.`,
        `Log ${setup.id}.`,
        `Angle ${formatAngle(value)} deg, +/-${formatAngle(doubt.value)}, over ${formatWithUnit(base, setup.unit)}, ${angle.entry.by} ${angle.entry.at.slice(0, 16).replace('T', ' ')} UTC.`,
        ...(byVariable
          ? [`Turned by what the probe left in variable ${variable}: run the probe cycle just before.`]
          : []),
      ],
    },
    setup.profile,
    setup.machine,
  )
  return { ...written, findings: worstFirst([...against, ...written.findings]) }
}

/** Whether the turned moves of a program leave the travel, as far as the zero is known. */
export function turnedOutside(
  { machine, unit }: Setup,
  { axes, name }: OffsetState,
  extent: Extract<TurnedProgram, { ok: true }>['extent'],
): Finding[] {
  if (!extent) return []
  return (['X', 'Y'] as const).flatMap((axis) => {
    const zero = axes[axis]?.value
    const key = axis === 'X' ? 'x' : 'y'
    const beyond = [extent.least[key], extent.greatest[key]].find(
      (at) => zero !== undefined && !withinTravel(machine, axis, zero + at, unit),
    )
    if (zero === undefined || beyond === undefined) return []
    return [
      finding(
        'stop',
        'turned-outside-travel',
        axis,
        `Turned, the program leaves the travel of ${machine.name}: ${axis} ${formatLength(beyond, unit)} of ${name} is machine ${axis} ${formatLength(zero + beyond, unit)}.`,
        'The machine would stop with an alarm in the cut.',
        'Move the part, or square it up.',
      ),
    ]
  })
}

/** The facts that a turned program rests on: the angle, the zero that it is turned about, the look at the part. */
export const turningRests = ({ part }: Setup, { angle, axes }: OffsetState): string[] =>
  [angle, axes.X, axes.Y, part].flatMap((fact) => (fact ? [fact.entry.id] : []))

/**
 * Who turns the programs of an offset, in one sentence: those that Code turns must not be turned at the control as well. Undefined
 * where Code has none.
 */
export function whoTurns({ code }: Setup, { name }: Pick<OffsetState, 'name'>): string | undefined {
  const own = code.coded.filter(
    ({ entry }) => entry.offset === name && entry.sheet.items.some(({ off }) => !off),
  )
  const titles = (turned: boolean) =>
    own.flatMap(({ entry: { sheet } }) => (sheet.turned === turned ? [sheet.title] : []))
  const [by, not] = [titles(true), titles(false)]
  const says = [
    ...(by.length > 0
      ? [`Code turns ${by.join(', ')} itself: do not turn that at the control as well.`]
      : []),
    ...(not.length > 0
      ? [`${not.join(', ')} of Code is not turned: say 'turned as it lies' there, or turn it here. Not both.`]
      : []),
  ]
  return says.length > 0 ? says.join(' ') : undefined
}
