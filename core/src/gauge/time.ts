import type { Macros, Probing } from '../control/index.ts'
import type { GaugeCase } from './case.ts'
import { endsOf } from './characteristic.ts'
import { isProbed } from './feature.ts'
import { partWith } from './part-with.ts'
import type { GaugePlan } from './plan.ts'
import { tryProgram } from './try.ts'
import { writeGauge } from './write.ts'

/** What probing costs, in seconds. */
export interface GaugeTime {
  /** The whole program. */
  total: number
  /** Of it, what one program costs whatever it measures: the tool change, the probe on and off, down and up. */
  once: number
  /** What is saved by leaving a feature out, by its id. */
  saves: ReadonlyMap<string, number>
  /** What it saves that they are measured in one program and not each in its own. */
  joined: number
}

/**
 * How long a plan takes on a good part, and what is saved by leaving a feature out: the program is written again without it,
 * and timed.
 */
export function gaugeTime(plan: GaugePlan, of: GaugeCase, probing: Probing, macros: Macros): GaugeTime {
  const secondsOf = (features: GaugePlan['features']) => {
    const part = { ...plan, features }
    const { text, variables } = writeGauge(part, of, probing, macros)
    return tryProgram(text, features, variables, of, partWith(part, new Map(), of.unit)).seconds
  }
  const total = secondsOf(plan.features)
  const probed = plan.features.filter(({ params }) => isProbed(params.what))
  const without = (id: string) => plan.features.filter((each) => each.id !== id && !endsOf(each).includes(id))
  const saves = new Map(
    probed.map(({ id }) => [id, probed.length === 1 ? total : Math.max(0, total - secondsOf(without(id)))]),
  )
  const alone = probed.map((feature) => secondsOf([feature]))
  const joined = Math.max(0, alone.reduce((sum, seconds) => sum + seconds, 0) - total)
  return { total, once: secondsOf([]), saves, joined }
}
