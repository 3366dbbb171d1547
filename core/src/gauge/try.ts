import type { Alarm, Program } from '../program/index.ts'
import { read } from '../program/index.ts'
import { cycleTime, speedsOf } from '../timing/index.ts'
import { type GaugeCase, printedMiddle, targetOf } from './case.ts'
import { type Characteristic, characteristicsOf, type Feature } from './characteristic.ts'
import { nextValue } from './next-part.ts'
import { type ActualPart, standInOf } from './stand-in.ts'
import type { GaugeVariables } from './variables.ts'
import type { CorrectionTarget } from './wear.ts'

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
  /** Seconds of each row of the motion. */
  rows: Float32Array
}

/**
 * Where each value that was corrected stands, from the middle of its tolerance as the control has it, to the digits that it
 * prints: on this part, and on the next one. By where the cutter then goes, not by the rule that the correction was written by.
 */
export function nextErrors(
  features: readonly Feature[],
  { corrected }: Pick<Tried, 'corrected'>,
  sizeOf: (of: Characteristic) => number,
  of: GaugeCase,
): Map<string, { before: number; after: number }> {
  const found = new Map<string, { before: number; after: number }>()
  const { macros } = of.profile
  if (!macros) return found
  for (const feature of features)
    for (const each of characteristicsOf(feature, of.unit)) {
      const target = targetOf(feature, each, of)
      const moved = target && corrected.find((one) => one.target.variable === target.variable)
      if (!moved || moved.after === moved.before) continue
      const value = sizeOf(each)
      const middle = printedMiddle(each, of.profile, of.unit)
      const then = nextValue(feature.params, each.quantity, value, moved.after - moved.before, macros.wearAs)
      found.set(each.key, { before: value - middle, after: then - middle })
    }
  return found
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
  const time = cycleTime(program.motion, speedsOf(machine, profile, unit))
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
    seconds: time.total,
    rows: time.rows,
  }
}
