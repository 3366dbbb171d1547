export interface Result {
  name: string
  baseline: string
  measured: string
  against: string
  ratio: number
  /** The greatest ratio that is good: half as much again as was measured when it was set, and no more than is allowed. */
  limit: number
}

const results: Result[] = []
const isGood = ({ ratio, limit }: Result) => ratio <= limit

/** Notes one result, and says it; a ratio over its limit makes the run end badly. */
export function report(result: Result) {
  results.push(result)
  console.log(`${isGood(result) ? 'good' : 'OVER'}  ${result.name}: ${result.measured}`)
}

/** Every result of the run, a line each. Gives whether all are within their limits. */
export function table(): boolean {
  const number = (value: number) => value.toFixed(value < 10 ? 2 : 0)
  const rows = results.map((result) => [
    isGood(result) ? 'good' : 'OVER',
    number(result.ratio),
    number(result.limit),
    result.measured,
    `${result.baseline}: ${result.against}`,
    result.name,
  ])
  const head = ['', 'ratio', 'limit', 'measured', 'against', 'what']
  const widths = head.map((title, at) => Math.max(...[head, ...rows].map((row) => (row[at] ?? title).length)))
  console.log('')
  for (const row of [head, ...rows])
    console.log(
      row.map((cell, at) => (at === row.length - 1 ? cell : cell.padEnd(widths[at] ?? 0))).join('  '),
    )
  return results.length > 0 && results.every(isGood)
}

const median = (times: number[]) =>
  times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)] ?? Number.NaN

/** Median time of each task in ms, taken in turns so that a busy machine slows them alike. */
export function medianTime<T extends (() => unknown)[]>(
  tasks: [...T],
  rounds: number,
): { [K in keyof T]: number } {
  const times = tasks.map(() => [] as number[])
  for (let round = 0; round < rounds; round += 1) {
    tasks.forEach((task, index) => {
      const start = performance.now()
      task()
      if (round >= rounds / 4) times[index]?.push(performance.now() - start)
    })
  }
  return times.map(median) as { [K in keyof T]: number }
}
