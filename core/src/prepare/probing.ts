import { finding } from '../fact/index.ts'
import { LINEAR_AXES, type LinearAxis } from '../machine/index.ts'
import {
  type ProbeSituation,
  type ProbeTask,
  shapeIn,
  type WrittenProbe,
  writeProbe,
} from '../probe/index.ts'
import { jawsIn, type OffsetState, type Setup } from '../setup/index.ts'

/** The machine's own probe and what is known of the offset, in the setup's unit; undefined where it has none. */
export function probeSituation(
  { machine, unit, hold }: Setup,
  { name, axes }: OffsetState,
): ProbeSituation | undefined {
  if (!machine.probe) return undefined
  const near: Partial<Record<LinearAxis, number>> = {}
  for (const axis of LINEAR_AXES) {
    const value = axes[axis]?.value
    if (value !== undefined) near[axis] = value
  }
  return {
    machine,
    unit,
    offset: name,
    near,
    shape: shapeIn(machine, machine.probe, unit),
    ...jawsIn(hold, unit),
  }
}

/** The program that probes a feature for an offset of a setup, or the findings that stand against it. */
export function probeProgramFor(setup: Setup, offset: OffsetState, task: ProbeTask): WrittenProbe {
  const situation = probeSituation(setup, offset)
  if (!situation)
    return {
      ok: false,
      findings: [
        finding(
          'stop',
          'no-probe',
          'machine',
          `${setup.machine.name} has no probe.`,
          'Its shape is needed to see that the body clears the part.',
          'Enter the probe on the machine page.',
        ),
      ],
    }
  return writeProbe(task, situation, setup.profile, [
    `Setup: ${setup.opened.title}, ${setup.machine.name}.`,
    `Log ${setup.id}.`,
  ])
}
