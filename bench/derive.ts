import { deriveSetup, type Entry } from '@dogleg/core/setup'
import { busyLog } from './log.ts'
import { medianTime, report } from './report.ts'

/** The same log as four tablets would have sent it, each entry received a moment after it was made. */
const stamped = (entries: readonly Entry[]): Entry[] =>
  entries.map((entry, n) => {
    const received = new Date(Date.parse(entry.at) + 20).toISOString()
    const clock = {
      tablet: `tablet000${n % 4}`,
      count: n + 1,
      heard: new Date(Date.parse(entry.at) - 2000).toISOString(),
      steady: 2000,
    }
    return { ...entry, clock, received, latest: received }
  })

/** Deriving a setup of 5,000 entries, against JSON.parse of the same log in the same run. */
export function benchDerive() {
  const { entries, reference } = busyLog(5000)
  const claimed = JSON.stringify(entries)
  const told = JSON.stringify(stamped(entries))
  const parsed = [claimed, told].map((text) => JSON.parse(text) as Entry[])
  const [parsing = 0, deriving = 0, ordering = 0] = medianTime(
    [() => JSON.parse(claimed), ...parsed.map((log) => () => deriveSetup(log, reference))],
    60,
  )
  const size = `${entries.length} entries (${Math.round(claimed.length / 1024)} kB)`
  for (const { name, took, limit } of [
    { name: `derive a setup of ${size}`, took: deriving, limit: 0.65 },
    { name: 'the same from four tablets, put in order by their counts and clocks', took: ordering, limit: 2 },
  ])
    report({
      name,
      baseline: 'JSON.parse of the same log',
      measured: `${took.toFixed(2)} ms`,
      against: `${parsing.toFixed(2)} ms`,
      ratio: took / parsing,
      limit,
    })
}
