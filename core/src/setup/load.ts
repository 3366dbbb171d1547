import type { Finding } from '../fact/index.ts'
import { checkLoad, type LoadOffset, METHOD_NAMES, type WrittenOffset, writeLoad } from '../pickup/index.ts'
import { formatLength, unitSymbol } from '../quantity/index.ts'
import type { OffsetState, Setup } from './derive.ts'

const stopFor = (code: string, where: string, says: string, why: string, fix: string): Finding => ({
  severity: 'stop',
  code,
  where,
  says,
  why,
  fix,
})

/** Axes that must not reach the machine: stale ones, and those whose verdict is stop. */
function unfit({ axes, name }: OffsetState): Finding[] {
  return Object.values(axes).flatMap((fact) => {
    if (fact.freshness.state === 'stale')
      return [
        stopFor(
          'axis-stale',
          fact.axis,
          `${fact.axis} of ${name} is stale: ${fact.freshness.cause.says}.`,
          'Nothing stale goes to the machine.',
          `Take ${fact.axis} again. If what made it stale was entered by mistake, strike that entry out in the logbook.`,
        ),
      ]
    if (fact.verdict === 'stop')
      return [
        stopFor(
          'axis-stopped',
          fact.axis,
          `${fact.axis} of ${name} cannot be right: ${fact.findings[0]?.says ?? ''}`,
          fact.findings[0]?.why ?? '',
          `Take ${fact.axis} again.`,
        ),
      ]
    return []
  })
}

/** The offset as it would be loaded, with where each value comes from. */
function loadOf(setup: Setup, offset: OffsetState): LoadOffset {
  const { unit } = setup
  const axes = Object.fromEntries(
    Object.values(offset.axes).map((fact) => [
      fact.axis,
      {
        value: fact.value,
        about: `${METHOD_NAMES[fact.entry.reading.method]}, may be off by ${formatLength(fact.doubt.value, unit)} ${unitSymbol(unit)}, taken ${fact.entry.at.slice(0, 16).replace('T', ' ')} UTC by ${fact.entry.by}`,
      },
    ]),
  )
  return {
    offset: offset.name,
    unit,
    axes,
    about: [`Setup: ${setup.opened.title}, ${setup.machine.name}. Log ${setup.id}.`],
  }
}

/**
 * The program that loads and checks one offset of a setup, or the findings that stand against it.
 * Says the same for the same log, so that what the operator took can be compared with what stands now.
 */
export function programFor(setup: Setup, offset: OffsetState): WrittenOffset {
  const load = loadOf(setup, offset)
  const against = unfit(offset)
  if (against.length > 0)
    return { ok: false, findings: [...against, ...checkLoad(load, setup.profile, setup.machine)] }
  return writeLoad(load, setup.profile, setup.machine)
}

/** The pickups that a check or a program of this offset rests on. A look along X and Y says nothing about Z. */
export function restsOf({ axes }: OffsetState, kind: 'checked' | 'program'): string[] {
  return Object.values(axes)
    .filter(({ axis }) => kind === 'program' || axis !== 'Z')
    .map(({ entry }) => entry.id)
}
