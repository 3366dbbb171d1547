import { goRound } from './arc.ts'
import { type Block, has, lengthOf, target, wordValue } from './block.ts'
import { noFeed } from './check-words.ts'
import { compensationRadius } from './compensation-radius.ts'
import { FLAG, ROW } from './motion.ts'
import type { Run } from './run.ts'
import { notWhileScaled } from './scaled.ts'
import { sixDigits } from './six-digits.ts'

/** Circles and depths beyond these are not made: a word is wrong. */
const MOST_CIRCLES = 1_000

const alarm = (run: Run, says: string) =>
  run.wrong('pocket-words', 'stop', says, { does: 'The control stops with an alarm.' })

/** Radii of the pocket after each circle: I, then Q further each time, K at last. Undefined where the words make no sense. */
function radiiOf(run: Run, code: 12 | 13): number[] | undefined {
  const [first, last, step] = [lengthOf(run, 'I'), lengthOf(run, 'K'), lengthOf(run, 'Q')]
  const lacks =
    first === undefined
      ? 'I, the radius'
      : last !== undefined && step === undefined
        ? 'Q, how much further each circle goes'
        : step !== undefined && last === undefined
          ? 'K, the radius at last'
          : undefined
  if (lacks) {
    alarm(run, `G${code} without ${lacks}.`)
    return undefined
  }
  const [from, to, by] = [first as number, last ?? (first as number), step ?? 1]
  const circles = Math.ceil((to - from) / by - 1e-9) + 1
  if (!(from > 0) || !(by > 0) || to < from || circles > MOST_CIRCLES) {
    alarm(
      run,
      `G${code} from a radius of ${sixDigits(from)} to ${sixDigits(to)}${step === undefined ? '' : ` by ${sixDigits(by)}`}.`,
    )
    return undefined
  }
  return Array.from({ length: circles }, (_, n) => (n === circles - 1 ? to : from + by * n))
}

/**
 * A round pocket about where the tool stands (G12 clockwise, G13 counter-clockwise): down at feed, out by half a circle, round, further out as
 * far as Q says and round again, and back to the middle by half a circle; L times, each as much deeper as Z says under G91. The tool of D
 * stays inside, as by G41 or G42; without D its centre goes round. How it comes out and back is common practice, from memory: the place that
 * it takes is the same.
 */
export function roundPocket({ run }: Block, code: 12 | 13): void {
  if (notWhileScaled(run, `G${code}`)) return
  const other = run.mapping
    ? 'it is wrapped'
    : run.plane !== 17
      ? `G${run.plane} holds`
      : run.compensation !== 40
        ? `G${run.compensation} is on`
        : undefined
  if (other) {
    alarm(run, `G${code} while ${other}.`)
    return
  }
  if (has(run, 'X') || has(run, 'Y')) {
    alarm(run, `G${code} with X or Y: the tool is put over the middle before.`)
    return
  }
  const radii = radiiOf(run, code)
  const depths = depthsOf(run, code)
  if (!radii || !depths) return
  const { options, scale, common, tables } = run
  const d = wordValue(run, 'D') ?? 0
  const tool = compensationRadius({ options, scale, common, tables, d })
  if (Number.isNaN(tool)) {
    run.wrong('compensation-radius', 'stop', `The radius that D${d} holds is not known.`, {
      does: `How far inside the pocket the tool goes is not shown, so the program is not proved. Enter T${d} among the tools of the machine.`,
    })
    return
  }
  if (!((radii[0] as number) > tool)) {
    alarm(
      run,
      `G${code}: the first circle of ${sixDigits(radii[0] as number)} is not larger than the radius of the tool, ${sixDigits(tool)}.`,
    )
    return
  }
  noFeed(run)
  const [x, y] = [run.wx, run.wy]
  const turns = code === 13 ? 1 : -1
  const along = (to: number, z: number, middle: number, sweep: number) => {
    const radius = Math.abs(run.wx - x - middle)
    const way = { sweep: turns * sweep, from: radius, to: radius }
    goRound(run, [x + to, y, z], [x + middle, y, z], way, FLAG.CYCLE)
  }
  for (const z of depths) {
    run.go(ROW.LINE, x, y, z, FLAG.CYCLE)
    let at = 0
    for (const each of radii) {
      const next = each - tool
      if (at === 0) along(next, z, next / 2, Math.PI)
      else run.go(ROW.LINE, x + next, y, z, FLAG.CYCLE)
      along(next, z, 0, 2 * Math.PI)
      at = next
    }
    along(0, z, at / 2, Math.PI)
  }
}

/** Where Z goes, each time that it goes round. */
function depthsOf(run: Run, code: 12 | 13): number[] | undefined {
  const often = Math.floor(wordValue(run, 'L') ?? 1)
  if (often < 1 || often > MOST_CIRCLES || (often > 1 && run.absolute)) {
    alarm(
      run,
      often > 1 && run.absolute
        ? `G${code} with L${often} under G90: each time it would go round at the same depth.`
        : `G${code} with L${often}.`,
    )
    return undefined
  }
  const [, , first] = target(run, { machine: false })
  const step = first - run.wz
  return Array.from({ length: often }, (_, n) => first + step * n)
}
