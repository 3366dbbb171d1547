import type { Alarm, Program } from '../program/index.ts'
import { read } from '../program/index.ts'
import { cycleTime, speedsOf } from '../timing/index.ts'
import { type Characteristic, characteristicsOf, type Feature } from './characteristic.ts'
import { type ActualPart, standInOf } from './stand-in.ts'
import type { CorrectionTarget } from './wear.ts'
import { type GaugeCase, type GaugeVariables, targetOf } from './write.ts'

/** A value that a program corrects: its variable, and what stood in it before and after. */
export interface Corrected {
  feature: string
  target: CorrectionTarget
  before: number
  after: number
}

/** What a program did with a part. */
export interface Tried {
  program: Program
  /** The values that it measured, by key; without those that it did not come to. */
  values: ReadonlyMap<string, number>
  /** What stopped it: its own alarm, or a macro of the probe. */
  alarm?: Alarm
  skipped: boolean
  corrected: Corrected[]
  /** Lines in its log file. */
  printed: readonly string[]
  seconds: number
}

const targetsOf = (features: readonly Feature[], of: GaugeCase) =>
  features.flatMap((feature) =>
    characteristicsOf(feature, of.unit).flatMap((each: Characteristic) => {
      const target = targetOf(feature, each, of)
      return target ? [{ feature: feature.id, target }] : []
    }),
  )

/**
 * Runs a gauging program, as it stands, against a part: the probe goes, the variables fill, the decisions fall. `held` are the
 * variables that hold something before, such as the wear of a tool. Never throws; a program that has no end is cut short.
 */
export function tryProgram(
  text: string,
  features: readonly Feature[],
  variables: GaugeVariables,
  of: GaugeCase,
  part: ActualPart,
  held: ReadonlyMap<number, number> = new Map(),
): Tried {
  const { machine, profile, unit, offset } = of
  const targets = targetsOf(features, of)
  const before = new Map(targets.map(({ target }) => [target.variable, held.get(target.variable) ?? 0]))
  const program = read(text, {
    profile,
    machine,
    unit,
    frame: offset,
    standIn: standInOf(features, { unit, stylus: of.shape.stylus }, part),
    variables: before,
    mostBlocks: 5000,
  })
  const values = new Map<string, number>()
  for (const [key, variable] of variables.values) {
    const value = program.variables.get(variable)
    if (value !== undefined && !Number.isNaN(value)) values.set(key, value)
  }
  const { alarm } = program
  return {
    program,
    values,
    ...(alarm ? { alarm } : {}),
    skipped: program.variables.get(variables.skipped) === 1,
    corrected: targets.map(({ feature, target }) => ({
      feature,
      target,
      before: before.get(target.variable) ?? 0,
      after: program.variables.get(target.variable) ?? 0,
    })),
    printed: program.printed,
    seconds: cycleTime(program.motion, speedsOf(machine, profile, unit)).total,
  }
}
