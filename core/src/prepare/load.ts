import { formatAngle } from '../angle/index.ts'
import { type Finding, finding } from '../fact/index.ts'
import { checkLoad, type LoadOffset, methodName, type WrittenOffset, writeLoad } from '../pickup/index.ts'
import { formatWithUnit, type LengthUnit, readLength, type TypedLength } from '../quantity/index.ts'
import { FLAT_METHODS } from '../rotary/index.ts'
import type { OffsetState, PartFact, Setup } from '../setup/index.ts'

/** 'X', 'X and Y', 'X, Y and Z'. */
const inWords = (axes: readonly string[]) =>
  axes.length < 2 ? (axes[0] ?? '') : `${axes.slice(0, -1).join(', ')} and ${axes.at(-1)}`

/** What was taken of an offset, the rotary's angle last. */
const takenOf = ({ axes, rotary }: OffsetState) => [...Object.values(axes), ...(rotary ? [rotary] : [])]

/** Stale axes, one finding for each thing that made some of them stale. */
function staleAxes(offset: OffsetState): Finding[] {
  const { name } = offset
  const byCause = new Map<string, string[]>()
  for (const { axis, freshness } of takenOf(offset)) {
    if (freshness.state === 'stale')
      byCause.set(freshness.cause.says, [...(byCause.get(freshness.cause.says) ?? []), axis])
  }
  return [...byCause].map(([says, stale]) =>
    finding(
      'stop',
      'axis-stale',
      stale.join(''),
      `${inWords(stale)} of ${name} ${stale.length > 1 ? 'are' : 'is'} stale: ${says}.`,
      'Nothing stale goes to the machine.',
      `Take ${inWords(stale)} again. If what made it stale was entered by mistake, strike that entry out in the logbook.`,
    ),
  )
}

/** Axes whose own verdict is stop. */
function stoppedAxes(offset: OffsetState): Finding[] {
  const { name } = offset
  return takenOf(offset).flatMap(({ axis, verdict, findings, freshness }) =>
    verdict === 'stop' && freshness.state === 'fresh'
      ? [
          finding(
            'stop',
            'axis-stopped',
            axis,
            `${axis} of ${name} cannot be right: ${findings[0]?.says ?? ''}`,
            findings[0]?.why ?? '',
            `Take ${axis} again.`,
          ),
        ]
      : [],
  )
}

/** A person looked and the point did not stand over part zero: the values are known to be wrong. */
function stoodOff({ name, check }: OffsetState): Finding[] {
  if (check?.entry.result !== 'off' || check.freshness.state === 'stale') return []
  return [
    finding(
      'stop',
      'stood-off',
      'check',
      `${name} stood off when it was checked: ${check.entry.note}`,
      `${check.entry.by} looked with a pointed tool, and nothing has been taken again since.`,
      'Take the axis that is off again. If the look was a slip, strike the check out in the logbook.',
    ),
  ]
}

/** What keeps an offset from going to the machine: stale, impossible, or seen to be wrong. */
export const offsetHindrances = (offset: OffsetState): Finding[] => [
  ...staleAxes(offset),
  ...stoppedAxes(offset),
  ...stoodOff(offset),
]

/** The part was measured and is not the right one, or lies the wrong way round. */
export function wrongPart({ part }: Setup): Finding[] {
  if (!part || part.freshness.state === 'stale' || part.as === 'right') return []
  return part.findings
    .filter(({ severity }) => severity === 'stop')
    .map((each) => ({
      ...each,
      fix: `${each.fix ?? ''} Or strike the look at the part out in the logbook, if it was a slip.`.trim(),
    }))
}

/** Who took it and when, short enough for a comment. */
const takenOn = ({ by, at }: { by: string; at: string }) => `${by} ${at.slice(0, 16).replace('T', ' ')} UTC`

/** The offset as it would be loaded, with where each value comes from. */
function loadOf(setup: Setup, offset: OffsetState): LoadOffset {
  const { unit } = setup
  const axes = Object.fromEntries(
    Object.values(offset.axes).map((fact) => [
      fact.axis,
      {
        value: fact.value,
        about: `${methodName(fact.entry.reading.method)}, ${takenOn(fact.entry)}, +/-${formatWithUnit(fact.doubt.value, unit)}`,
      },
    ]),
  )
  const { rotary } = offset
  return {
    offset: offset.name,
    unit,
    axes,
    ...(rotary
      ? {
          rotary: {
            word: rotary.axis,
            value: rotary.flat.value,
            about: `${FLAT_METHODS[rotary.entry.reading.method]}, ${takenOn(rotary.entry)}, +/-${formatAngle(rotary.flat.doubt.value)} deg`,
          },
        }
      : {}),
    about: [`Setup: ${setup.opened.title}, ${setup.machine.name}.`, `Log ${setup.id}.`],
  }
}

/**
 * The program that loads and checks one offset of a setup, or the findings that stand against it.
 * Says the same for the same log, so that what the operator took can be compared with what stands now.
 */
export function programFor(setup: Setup, offset: OffsetState): WrittenOffset {
  const load = loadOf(setup, offset)
  const against = [...wrongPart(setup), ...offsetHindrances(offset)]
  if (against.length > 0)
    return { ok: false, findings: [...against, ...checkLoad(load, setup.profile, setup.machine)] }
  return writeLoad(load, setup.profile, setup.machine)
}

/** The axes that a look with a pointed tool says something of: a mill's along the table, all of a lathe's. */
const lookedAt = ({ wants }: OffsetState) => wants.filter((axis) => axis !== 'Z' || !wants.includes('Y'))

/** What stands in the way of a look over part zero: an axis that is missing or stale. */
export function checkHindrance(offset: OffsetState): string | undefined {
  const { axes, name } = offset
  const missing = lookedAt(offset).filter((axis) => !axes[axis])
  if (missing.length > 0) return `${inWords(missing)} of ${name} must be taken first.`
  const stale = lookedAt(offset).filter((axis) => axes[axis]?.freshness.state === 'stale')
  return stale.length > 0 ? `${inWords(stale)} of ${name} must be taken again first.` : undefined
}

/**
 * Whether the program that loads the offset and goes over part zero stands at the control as it is: before that, a look at where the
 * spindle stands says something only where somebody went there by hand. A lathe's geometry is keyed in.
 */
export const isLoaded = ({ program, wants }: OffsetState) =>
  !wants.includes('Y') || program?.freshness.state === 'fresh'

/** The pickups that a check or a program of this offset rests on. A look along X and Y says nothing about Z. */
export function restsOf(offset: OffsetState, kind: 'checked' | 'program', part?: PartFact): string[] {
  const looked = lookedAt(offset)
  return [
    ...Object.values(offset.axes)
      .filter(({ axis }) => kind === 'program' || looked.includes(axis))
      .map(({ entry }) => entry.id),
    ...(kind === 'program' && offset.rotary ? [offset.rotary.entry.id] : []),
    ...(part ? [part.entry.id] : []),
  ]
}

/** Where to stop Z for a look with a pointed tool: its point stands `height` above part zero. */
export interface StopHeight {
  toolLength: TypedLength
  height: TypedLength
  /** What the machine page shows there, in the setup's unit: Z of the offset + tool length + height. */
  machineZ: number
}

/** Undefined while Z is not taken or a field is not understood. Common practice. */
export function stopHeight(
  { axes }: OffsetState,
  lengthTyped: string,
  heightTyped: string,
  unit: LengthUnit,
): StopHeight | undefined {
  const [length, height] = [readLength(lengthTyped, unit), readLength(heightTyped, unit)]
  const z = axes.Z
  if (!z || !length.ok || !height.ok || height.value < 0) return undefined
  const typed = ({ text, value }: { text: string; value: number }) => ({ text, value, unit })
  return {
    toolLength: typed(length),
    height: typed(height),
    machineZ: z.value + length.value + height.value,
  }
}
