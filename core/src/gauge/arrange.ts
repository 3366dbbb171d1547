import type { ProbeShape } from '../machine/index.ts'
import { startOf } from '../probe/index.ts'
import { type Body, boundsOf } from '../prove/index.ts'
import { convertLength, type LengthUnit } from '../quantity/index.ts'
import { type Characteristic, characteristicsOf, endsOf, type Feature, lengthIn } from './characteristic.ts'
import { isProbed, probeTaskOf } from './feature.ts'
import type { GaugePlan } from './plan.ts'
import { type Stop, shortestRoute } from './route.ts'

/** One thing that the program does: measure a feature, or decide about a value that has been measured. */
export type GaugeStep =
  | { does: 'measure'; feature: Feature; start: Stop }
  | { does: 'decide'; feature: Feature; of: Characteristic }

export interface Arranged {
  steps: GaugeStep[]
  /** Z of the ball's centre where it moves sideways, and what that height clears. */
  clear: number
  over: string
}

/** Free height over what stands in the way, where none was typed, in mm: by judgement. */
const CLEARANCE_MM = 12

/** The clearance where none was typed. */
export const usualClearance = (unit: LengthUnit) => convertLength(CLEARANCE_MM, 'mm', unit)

/** Whether a straight way in the plane comes within `room` of a rectangle. */
function passes(a: Stop, b: Stop, least: Stop, greatest: Stop, room: number): boolean {
  let [enter, leave] = [0, 1]
  for (const axis of ['x', 'y'] as const) {
    const [from, d] = [a[axis], b[axis] - a[axis]]
    const [low, high] = [least[axis] - room, greatest[axis] + room]
    if (d === 0) {
      if (from <= low || from >= high) return false
      continue
    }
    const [t0, t1] = [(low - from) / d, (high - from) / d]
    enter = Math.max(enter, Math.min(t0, t1))
    leave = Math.min(leave, Math.max(t0, t1))
  }
  return enter < leave
}

/** The highest thing that the ways between the places pass over: a body of the setup, or the tops of the features. */
function highest(
  ways: readonly (readonly [Stop, Stop])[],
  features: readonly Feature[],
  { unit, shape, bodies }: { unit: LengthUnit; shape: ProbeShape; bodies: readonly Body[] },
): { z: number; name: string } {
  let found = {
    z: Math.max(...features.map(({ params }) => lengthIn(params.top, unit))),
    name: 'the features',
  }
  for (const body of bodies) {
    const { least, greatest } = boundsOf(body)
    const [low, high] = [
      { x: least[0], y: least[1] },
      { x: greatest[0], y: greatest[1] },
    ]
    if (greatest[2] > found.z && ways.some(([a, b]) => passes(a, b, low, high, shape.body / 2)))
      found = { z: greatest[2], name: body.name }
  }
  return found
}

/**
 * Puts a plan in order: what says whether it is the right part first, each lot by the shortest way between its places, and a
 * decision as soon as what it needs is measured. The height for moving sideways clears all that the way passes over.
 */
export function arrange(
  { head, features }: GaugePlan,
  of: { unit: LengthUnit; shape: ProbeShape; bodies: readonly Body[] },
): Arranged {
  const { unit, shape } = of
  const probed = features.filter(({ params }) => isProbed(params.what))
  const startAt = (feature: Feature): Stop => {
    const { X, Y } = startOf(probeTaskOf(feature.params, unit, shape.stylus, 0), shape.stylus)
    return { x: X, y: Y }
  }
  const identity = features.filter(({ params }) => params.react === 'right-part')
  const early = new Set(identity.flatMap((feature) => [feature.id, ...endsOf(feature)]))
  const steps: GaugeStep[] = []
  const measured = new Set<string>()
  const decided = new Set<string>()
  let at: Stop | undefined
  const decide = (feature: Feature) => {
    decided.add(feature.id)
    for (const each of characteristicsOf(feature, unit)) steps.push({ does: 'decide', feature, of: each })
  }
  const ways: (readonly [Stop, Stop])[] = []
  const visit = (lot: readonly Feature[]) => {
    const stops = lot.map(startAt)
    const first = at ?? stops[0]
    if (!first) return
    for (const index of shortestRoute(first, stops)) {
      const [feature, start] = [lot[index] as Feature, stops[index] as Stop]
      ways.push([at ?? start, start])
      at = start
      steps.push({ does: 'measure', feature, start })
      measured.add(feature.id)
      decide(feature)
      for (const each of features)
        if (
          each.params.what === 'distance' &&
          !decided.has(each.id) &&
          endsOf(each).every((end) => measured.has(end))
        )
          decide(each)
    }
  }
  visit(probed.filter(({ id }) => early.has(id)))
  visit(probed.filter(({ id }) => !early.has(id)))
  if (probed.length === 0) return { steps, clear: 0, over: '' }
  const top = highest(ways, probed, of)
  const clearance = head.clearance ? lengthIn(head.clearance, unit) : usualClearance(unit)
  return { steps, clear: top.z + shape.stylus / 2 + clearance, over: top.name }
}
