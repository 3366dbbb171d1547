import { startOf } from '../probe/index.ts'
import { boundsOf } from '../prove/index.ts'
import { roundTo } from '../quantity/index.ts'
import { arrange } from './arrange.ts'
import type { GaugeCase } from './case.ts'
import { type Characteristic, digitsOf, type Feature, keyOf, lengthIn } from './characteristic.ts'
import { type FeatureKind, isProbed, probeTaskOf } from './feature.ts'
import type { GaugePlan } from './plan.ts'
import type { Stop } from './route.ts'

/** One feature in plan. */
export interface FeatureSketch {
  id: string
  name: string
  what: FeatureKind
  /** Place in the order in which they are measured, from 1; none for what is not probed. */
  order?: number
  at: Stop
  /** A circle, or lines that end where the drawing ends. */
  circle?: number
  lines: (readonly [Stop, Stop])[]
  /** The way of the ball to each touch. */
  touches: (readonly [from: Stop, to: Stop])[]
}

/** What is gauged, seen from above, from part zero. */
export interface GaugeSketch {
  features: FeatureSketch[]
  bodies: { name: string; part: boolean; least: Stop; greatest: Stop; round: boolean }[]
  /** Over the features, in the order of the program. */
  way: Stop[]
  least: Stop
  greatest: Stop
}

const at = (x: number, y: number): Stop => ({ x, y })

/** Lines and touches of a feature, from its task. */
function outline({ id, params }: Feature, { unit, shape }: GaugeCase): FeatureSketch {
  const task = probeTaskOf(params, unit, shape.stylus, 0)
  const { x, y, gap, size } = task
  const half = size / 2
  const stands = gap + shape.stylus / 2
  const common = { id, name: keyOf(params.name), what: params.what, at: at(x, y) }
  const inside = params.what === 'bore' || params.what === 'pocket'
  const from = inside ? 0 : half + stands
  const touch = (dx: number, dy: number) =>
    [at(x + dx * from, y + dy * from), at(x + dx * half, y + dy * half)] as const
  const alongX = [touch(-1, 0), touch(1, 0)]
  const alongY = [touch(0, -1), touch(0, 1)]
  const wide = Math.max(half, 2 * shape.stylus)
  switch (params.what) {
    case 'bore':
    case 'boss':
      return { ...common, circle: half, lines: [], touches: [...alongX, ...alongY] }
    case 'web':
    case 'pocket': {
      const across = params.axis === 'X'
      const line = (way: number) =>
        across
          ? ([at(x + way * half, y - wide), at(x + way * half, y + wide)] as const)
          : ([at(x - wide, y + way * half), at(x + wide, y + way * half)] as const)
      return { ...common, lines: [line(-1), line(1)], touches: across ? alongX : alongY }
    }
    case 'surface': {
      if (params.axis === 'Z') return { ...common, circle: shape.stylus / 2, lines: [], touches: [] }
      const { X, Y } = startOf(task, shape.stylus)
      const line =
        params.axis === 'X'
          ? ([at(x, y - wide), at(x, y + wide)] as const)
          : ([at(x - wide, y), at(x + wide, y)] as const)
      return { ...common, lines: [line], touches: [[at(X, Y), at(x, y)]] }
    }
    case 'edge': {
      const { X, Y } = startOf(task, shape.stylus)
      const end = params.axis === 'X' ? at(x, y + size) : at(x + size, y)
      const next = params.axis === 'X' ? at(X, Y + size) : at(X + size, Y)
      return {
        ...common,
        lines: [[at(x, y), end]],
        touches: [
          [at(X, Y), at(x, y)],
          [next, end],
        ],
      }
    }
    default: {
      const [sx, sy] = [params.directionX === '+' ? 1 : -1, params.directionY === '+' ? 1 : -1]
      const far = 2 * stands
      const aside = params.what === 'outside-corner' ? 1 : -1
      const [bx, by] = [x + sx * aside * stands, y + sy * aside * stands]
      return {
        ...common,
        lines: [
          [at(x, y), at(x + sx * aside * far, y)],
          [at(x, y), at(x, y + sy * aside * far)],
        ],
        touches: [
          [at(x - sx * stands, by), at(x, by)],
          [at(bx, y - sy * stands), at(bx, y)],
        ],
      }
    }
  }
}

/** What is gauged in plan: features with their touches, what stands round them, the way from one to the next. */
export function gaugeSketch(plan: GaugePlan, of: GaugeCase): GaugeSketch {
  const { steps } = arrange(plan, of)
  const order = steps.flatMap((step) => (step.does === 'measure' ? [step] : []))
  const features = plan.features
    .filter(({ params }) => isProbed(params.what))
    .map((feature): FeatureSketch => {
      const place = order.findIndex((step) => step.feature.id === feature.id)
      return { ...outline(feature, of), ...(place < 0 ? {} : { order: place + 1 }) }
    })
  const bodies = of.bodies.map((body) => {
    const { least, greatest } = boundsOf(body)
    return {
      name: body.name,
      part: body.role === 'part',
      least: at(least[0], least[1]),
      greatest: at(greatest[0], greatest[1]),
      round: body.shape === 'cylinder' && body.axis === 'Z',
    }
  })
  const points = [
    at(0, 0),
    ...features.flatMap(({ at: middle, circle = 0, lines, touches }) => [
      at(middle.x - circle, middle.y - circle),
      at(middle.x + circle, middle.y + circle),
      ...lines.flat(),
      ...touches.flat(),
    ]),
    ...bodies.filter(({ part }) => part).flatMap(({ least, greatest }) => [least, greatest]),
  ]
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)]
  return {
    features,
    bodies,
    way: order.map(({ start }) => start),
    least: at(Math.min(...xs), Math.min(...ys)),
    greatest: at(Math.max(...xs), Math.max(...ys)),
  }
}

/** A result against its tolerance, for the drawing of what is done with it: places along one axis. */
export interface DecisionSketch {
  lower: number
  upper: number
  middle: number
  /** Within these nothing is corrected; beyond those it stops. Absent where nothing is corrected. */
  deadBand?: readonly [number, number]
  limits?: readonly [number, number]
  least: number
  greatest: number
}

/** Where a result leads to what. */
export function decisionSketch(
  { lower, upper, middle }: { lower: number; upper: number; middle: number },
  correction: { deadBand: number; limit: number; stopsAtTolerance: boolean } | undefined,
): DecisionSketch {
  const half = Math.max((upper - lower) / 2, correction?.limit ?? 0, 1e-9)
  return {
    lower,
    upper,
    middle,
    ...(correction
      ? {
          deadBand: [middle - correction.deadBand, middle + correction.deadBand] as const,
          ...(correction.stopsAtTolerance
            ? {}
            : { limits: [middle - correction.limit, middle + correction.limit] as const }),
        }
      : {}),
    least: middle - 1.6 * half,
    greatest: middle + 1.6 * half,
  }
}

/** Length of a feature's gap and search, for who draws them: in the setup's unit. */
export const approachOf = ({ params }: Feature, { unit, shape }: GaugeCase, clear: number) => ({
  task: probeTaskOf(params, unit, shape.stylus, clear),
  past: lengthIn(params.past, unit),
})

/** How far a size can be dragged, and in what steps: twice its tolerance either way, by the last digit that is shown. */
export function sliderOf({ lower, upper, middle, unit }: Characteristic): {
  least: number
  greatest: number
  step: number
} {
  const digits = digitsOf(unit)
  const step = Number(`1e-${digits}`)
  const half = Math.max(2 * (upper - lower), 10 * step)
  return { least: roundTo(middle - half, digits), greatest: roundTo(middle + half, digits), step }
}
