import { boxStandIn, type Program } from '../program/index.ts'
import type { ProbePlan } from './plan.ts'
import type { ProbeTask } from './task.ts'

/** The block or the corner as it is said to lie, for the program to be run against. */
export function asAsked({ feature, x, y, top, depth, size, sizeY = 0, inset = 0, ...of }: ProbeTask) {
  const bottom = top + 2 * depth
  if (feature === 'block')
    return boxStandIn([x - size / 2, y - sizeY / 2, bottom], [x + size / 2, y + sizeY / 2, top])
  // Of a corner nobody says how far the part reaches: further than anything that is touched.
  const far = 2 * (inset + of.gap + of.search)
  const along = (at: number, direction: '+' | '-') => (direction === '+' ? [at, at + far] : [at - far, at])
  const [[x0, x1], [y0, y1]] = [along(x, of.directionX), along(y, of.directionY)] as [number[], number[]]
  return boxStandIn([x0 as number, y0 as number, bottom], [x1 as number, y1 as number, top])
}

/**
 * Whether a program that finds a whole zero does so on a part that is as it was said to be: nothing stops it, the offset stays
 * where it was written within `least`, and the sizes stand in their variables.
 */
export function findsWhole(program: Program, task: ProbeTask, plan: ProbePlan, least: number): boolean {
  if (program.alarm || program.probing.calls.length !== plan.lines.filter(({ is }) => is === 'call').length)
    return false
  const near = (a: number | undefined, b: number | undefined) =>
    a !== undefined && b !== undefined && Math.abs(a - b) <= least
  const offsetHolds = (['X', 'Y', 'Z'] as const).every((axis) => {
    const last = program.offsets.findLast(({ axes }) => axes[axis] !== undefined)
    return near(last?.axes[axis], plan.rough?.axes[axis])
  })
  return (
    offsetHolds &&
    plan.lines.every(
      (line) =>
        line.is === 'call' ||
        line.variable === undefined ||
        near(program.variables.get(line.variable), line.what === 'length' ? task.size : task.sizeY),
    )
  )
}
