import { type Finding, finding, worstFirst } from '../fact/index.ts'
import {
  checkFeatures,
  checkPlan,
  type GaugeCase,
  type GaugePlan,
  needsProbe,
  type WrittenGauge,
  writeGauge,
} from '../gauge/index.ts'
import { LINEAR_AXES, type LinearAxis, probeIn } from '../machine/index.ts'
import { layoutIn, type ProveCase } from '../prove/index.ts'
import type { GaugingFact, OffsetRow, OffsetState, Reference, Setup, ToolFact } from '../setup/index.ts'
import { offsetHindrances, wrongPart } from './load.ts'
import { proveCase } from './prove-case.ts'

/** What a plan is written for in a setup; undefined where the machine has no probe. */
export function gaugeCase(setup: Setup, offset: OffsetState): GaugeCase | undefined {
  const { machine, profile, unit, prove } = setup
  if (!machine.probe) return undefined
  const layout = prove.layout ? layoutIn(prove.layout.layout, unit) : undefined
  return {
    machine,
    profile,
    unit,
    offset: offset.name,
    shape: probeIn(machine.probe, machine.unit, unit),
    bodies: layout?.bodies ?? [],
    about: [`Setup: ${setup.opened.title}, ${machine.name}.`, `Log ${setup.id}.`],
  }
}

const nearOf = ({ axes }: OffsetState): Partial<Record<LinearAxis, number>> =>
  Object.fromEntries(
    LINEAR_AXES.flatMap((axis) => {
      const value = axes[axis]?.value
      return value === undefined ? [] : [[axis, value]]
    }),
  )

const noProbe = ({ machine }: Setup): Finding =>
  finding(
    'stop',
    'no-probe',
    'machine',
    `${machine.name} has no probe.`,
    'Its shape is needed to see that the body clears the part.',
    'Enter the probe on the machine page, or gauge what is measured by hand.',
  )

/** The lines that a revision of a plan adds to the heading of its program. */
const revisionLine = (plans: readonly GaugingFact[], { head }: GaugePlan): string[] => {
  const fact = plans.find(({ entry }) => entry.plan.head.title === head.title)
  return fact ? [`Revision ${fact.entry.id}.`] : []
}

export interface GaugeProgram {
  findings: Finding[]
  /** Nothing is written while something says stop, or where nothing is probed. */
  written?: WrittenGauge
  where?: GaugeCase
}

/** The gauging program of a plan for a setup, or what stands against it. */
export function gaugeProgram(
  setup: Setup,
  plan: GaugePlan,
  offset: OffsetState,
  { tools }: Pick<Reference, 'tools'>,
): GaugeProgram {
  const { profile } = setup
  const { probing, macros } = profile
  const where = gaugeCase(setup, offset)
  if (!needsProbe(plan)) return { findings: checkFeatures(plan, setup.unit) }
  if (!where) return { findings: [noProbe(setup)] }
  const of = { ...where, about: [...where.about, ...revisionLine(setup.gauge.plans, plan)] }
  const findings = worstFirst([
    ...checkPlan(plan, of, {
      tools: tools.filter(({ machineId }) => machineId === setup.machine.id),
      near: nearOf(offset),
    }),
    ...wrongPart(setup),
    ...offset.findings,
    ...offsetHindrances(offset),
  ])
  const stops = findings.some(({ severity }) => severity === 'stop')
  if (stops || !probing || !macros) return { findings, where: of }
  return { findings, where: of, written: writeGauge(plan, of, probing, macros) }
}

/** What the program is proved against, beside the parts that it is tried on. */
export const gaugeProveCase = (
  setup: Setup,
  text: string,
  offset: string,
  table: readonly OffsetRow[],
  lengths: readonly ToolFact[],
  { tools }: Pick<Reference, 'tools'>,
): ProveCase =>
  proveCase(setup, table, lengths, tools, setup.prove.layout?.layout ?? { unit: setup.unit, bodies: [] }, {
    text,
    frame: offset,
  })

/** The facts that a plan rests on: the pickups of its offset, and what stands in the work area. */
export const gaugeRests = (setup: Setup, { axes }: OffsetState, plan: GaugePlan): string[] =>
  needsProbe(plan)
    ? [
        ...Object.values(axes).map(({ entry }) => entry.id),
        ...(setup.prove.layout ? [setup.prove.layout.entry.id] : []),
      ]
    : []
