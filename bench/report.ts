export interface Result {
  name: string
  baseline: string
  measured: string
  against: string
  ratio: number
  /** The greatest ratio that is good. */
  limit: number
}

let missed = 0

/** Prints one result; a ratio over its limit makes the run end badly. */
export function report({ name, baseline, measured, against, ratio, limit }: Result) {
  const good = ratio <= limit
  if (!good) missed += 1
  console.log(`${good ? 'good' : 'OVER'}  ${name}: ${measured}`)
  console.log(`      against ${baseline}: ${against}; ratio ${ratio.toFixed(2)}, at most ${limit}`)
}

export const anyMissed = () => missed > 0

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
