import { convertLength } from '../quantity/index.ts'
import type { Run } from './run.ts'
import type { Triple } from './ways.ts'

/** Half of what the ball of the machine's probe measures across; 0 where the probe is not known. */
export const ballOf = ({ options: { machine, unit } }: Run) =>
  machine.probe ? convertLength(machine.probe.stylus, machine.unit, unit) / 2 : 0

/** A way is looked along in pieces no longer than this, in mm: nothing thinner stands in the way of a probe. */
const PIECE_MM = 0.5
/** Halvings of a piece: a face is found within 1e-12 of it. */
const HALVINGS = 46

/**
 * How far along a straight way of the program (0 to 1) the stand-in part is first met; undefined where it is not, 0 where it starts
 * within.
 */
export function meeting(run: Run, from: Triple, to: Triple): number | undefined {
  const solid = run.options.standIn
  if (!solid) return undefined
  const [a, b] = [run.sceneOf(...from), run.sceneOf(...to)]
  const holds = (t: number) =>
    solid.holds(a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, a[2] + (b[2] - a[2]) * t)
  if (holds(0)) return 0
  const length = Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2])
  const pieces = Math.min(4000, Math.ceil(length / convertLength(PIECE_MM, 'mm', run.unit)))
  for (let n = 1; n <= pieces; n++) {
    if (!holds(n / pieces)) continue
    let [free, met] = [(n - 1) / pieces, n / pieces]
    for (let halving = 0; halving < HALVINGS; halving++) {
      const middle = (free + met) / 2
      if (holds(middle)) met = middle
      else free = middle
    }
    return met
  }
  return undefined
}
