import { deriveSetup, type Entry } from '@dogleg/core/setup'
import { busyLog } from './log.ts'
import { medianTime, report } from './report.ts'

/** Deriving a setup of 5,000 entries, against JSON.parse of the same log in the same run. */
export function benchDerive() {
  const { entries, reference } = busyLog(5000)
  const text = JSON.stringify(entries)
  const parsed = JSON.parse(text) as Entry[]
  const parse = () => JSON.parse(text)
  const derive = () => deriveSetup(parsed, reference)
  const [parsing, deriving] = medianTime([parse, derive], 60)
  report({
    name: `derive a setup of ${entries.length} entries (${Math.round(text.length / 1024)} kB)`,
    baseline: 'JSON.parse of the same log',
    measured: `${deriving.toFixed(2)} ms`,
    against: `${parsing.toFixed(2)} ms`,
    ratio: deriving / parsing,
    limit: 0.65,
  })
}
