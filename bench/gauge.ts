import { demoReference, housingGauging } from '@dogleg/core/demo'
import { capability, chartOf, driftOf, partWith, proveGauge, readPlan, tryProgram } from '@dogleg/core/gauge'
import { gaugeProgram, gaugeProveCase } from '@dogleg/core/prepare'
import { read } from '@dogleg/core/program'
import { offsetOf } from '@dogleg/core/setup'
import { setupOf } from './code.ts'
import { medianTime, report } from './report.ts'

/** One frame of a screen that is drawn sixty times a second. */
const FRAME_MS = 1000 / 60

/** The gauging of the demo's housing: a keystroke, a size that is dragged, all cases, a chart of many parts. */
export function benchGauge() {
  const setup = setupOf(/first side/)
  const offset = offsetOf(setup, 'G54')
  const compose = () => {
    const { plan } = readPlan(housingGauging, 'inch')
    return plan ? { plan, ...gaugeProgram(setup, plan, offset, demoReference) } : undefined
  }
  const made = compose()
  if (!made?.written || !made.where) throw new Error('the demo gauging is refused')
  const { plan, written, where } = made
  const { text, variables } = written
  const part = partWith(plan, new Map([['BORE', 1.2508]]), 'inch')
  const run = () => tryProgram(text, plan.features, variables, where, part)
  const plain = () =>
    read(text, { profile: where.profile, machine: where.machine, unit: 'inch', frame: 'G54' })
  const all = () =>
    proveGauge(plan, written, where, gaugeProveCase(setup, text, 'G54', [], [], demoReference))
  const [composing, running, reading, cases] = medianTime([compose, run, plain, all], 24)
  report({
    name: 'a keystroke in a plan of four features: read, checked, written',
    baseline: 'one frame',
    measured: `${composing.toFixed(2)} ms`,
    against: `${FRAME_MS.toFixed(1)} ms`,
    ratio: composing / FRAME_MS,
    limit: 0.22,
  })
  report({
    name: 'a size that is dragged: the program run against the part',
    baseline: 'one frame',
    measured: `${running.toFixed(2)} ms`,
    against: `${FRAME_MS.toFixed(1)} ms`,
    ratio: running / FRAME_MS,
    limit: 0.35,
  })
  report({
    name: `${proveGauge(plan, written, where, gaugeProveCase(setup, text, 'G54', [], [], demoReference)).cases.length} kinds of part, and Prove, in a worker`,
    baseline: 'reading the same text with nothing to touch',
    measured: `${cases.toFixed(0)} ms`,
    against: `${reading.toFixed(2)} ms`,
    ratio: cases / reading,
    limit: 126,
  })
  const values = Array.from({ length: 2000 }, (_, n) => 1.2505 + 0.0001 * Math.sin(n * n) + 1e-7 * n)
  const limits = { lower: 1.25, upper: 1.251 }
  const chart = () => [chartOf(values), driftOf(values, 0, limits), capability(values, limits)]
  const parse = () => JSON.parse(JSON.stringify(values))
  const [charting, parsing] = medianTime([chart, parse], 40)
  report({
    name: 'limits, rules, drift and capability of 2,000 parts',
    baseline: 'writing and parsing them as JSON',
    measured: `${charting.toFixed(2)} ms`,
    against: `${parsing.toFixed(2)} ms`,
    ratio: charting / parsing,
    limit: 16,
  })
}
