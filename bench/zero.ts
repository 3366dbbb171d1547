import { turnProgram } from '@dogleg/core/angle'
import { BUILT_IN_PROFILES, type Profile } from '@dogleg/core/control'
import { fitRigid, type PointPair, turned } from '@dogleg/core/geometry'
import {
  judgePickup,
  type PickupDraft,
  pickUp,
  pickupSettings,
  planSketch,
  readDraft,
} from '@dogleg/core/pickup'
import { deriveSetup, expectationOf, isUnreadable } from '@dogleg/core/setup'
import { Matrix, SVD } from 'ml-matrix'
import { busyLog } from './log.ts'
import { medianTime, report } from './report.ts'

const FRAME_MS = 1000 / 60

/** A part of many features, turned and shifted, with noise that is the same in every run. */
function part(n: number): PointPair[] {
  let state = 12_345
  const uniform = () => {
    state = (state * 16_807) % 2_147_483_647
    return state / 2_147_483_647
  }
  return Array.from({ length: n }, () => {
    const nominal = { x: 40 * uniform(), y: 20 * uniform() }
    const { x, y } = turned(nominal, 1.321, { x: 0, y: 0 })
    return { nominal, measured: { x: x - 15 + 0.001 * uniform(), y: y - 8 + 0.001 * uniform() } }
  })
}

/** The same fit by the singular value decomposition of ml-matrix, rotation only. */
function bySvd(pairs: readonly PointPair[]): number {
  const a = new Matrix(pairs.map(({ nominal }) => [nominal.x, nominal.y]))
  const b = new Matrix(pairs.map(({ measured }) => [measured.x, measured.y]))
  const h = a.center('column').transpose().mmul(b.center('column'))
  const svd = new SVD(h)
  const turn = svd.rightSingularVectors.mmul(svd.leftSingularVectors.transpose())
  return Math.atan2(turn.get(1, 0), turn.get(0, 0))
}

/** The fit of an angle against a library's, a keystroke in Zero against a frame, and turning against reading the words. */
export function benchZero() {
  const pairs = part(10_000)
  const [fit, svd] = medianTime([() => fitRigid(pairs), () => bySvd(pairs)], 40)
  report({
    name: 'rigid fit of 10,000 features',
    baseline: 'the SVD of ml-matrix on the same data',
    measured: `${fit.toFixed(2)} ms`,
    against: `${svd.toFixed(2)} ms`,
    ratio: fit / svd,
    limit: 0.29,
  })

  const { entries, reference } = busyLog(500)
  const setup = deriveSetup(entries, reference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  const points = Array.from({ length: 40 }, (_, index) => {
    const angle = (index * Math.PI) / 20
    return `${(-15 + 0.6 * Math.cos(angle)).toFixed(4)} ${(-8 + 0.6 * Math.sin(angle)).toFixed(4)}`
  })
  const draft: PickupDraft = {
    axis: 'X',
    method: 'circle',
    choices: { side: 'bore', device: 'probe' },
    fields: { diameter: '.2362', nominal: '1.436', points: points.join('\n'), drawingX: '0', drawingY: '0' },
  }
  const keystroke = () => {
    const read = readDraft(draft, setup.unit)
    if (!read.ok) throw new Error('the circle is not understood')
    for (const reading of read.readings) {
      const pickup = pickUp(reading, pickupSettings(setup.machine, setup.unit))
      judgePickup(reading, pickup, expectationOf(setup, 'G54', reading.axis))
    }
    planSketch(draft, setup.unit)
  }
  const [stroke] = medianTime([keystroke], 60)
  report({
    name: 'one keystroke: a circle of 40 touches in a setup of 500 entries',
    baseline: 'one frame of the screen',
    measured: `${stroke.toFixed(2)} ms`,
    against: `${FRAME_MS.toFixed(1)} ms`,
    ratio: stroke / FRAME_MS,
    limit: 0.39,
  })

  const [profile] = BUILT_IN_PROFILES as [Profile]
  const lines = Array.from({ length: 50_000 }, (_, i) => `G1 X${(i % 997) / 100} Y${(i % 499) / 100} F20.`)
  const program = ['G20 G90 G54', ...lines].join('\n')
  const turning = { offset: 'G54', unit: 'inch', by: 1.321, about: { x: 0, y: 0 } } as const
  const [turn, words] = medianTime(
    [() => turnProgram(program, turning, profile), () => [...program.matchAll(/([A-Z])(-?[\d.]+)/g)].length],
    4,
  )
  report({
    name: 'turning a program of 50,000 lines, in a worker',
    baseline: 'pulling its words out with one regular expression',
    measured: `${turn.toFixed(0)} ms`,
    against: `${words.toFixed(0)} ms`,
    ratio: turn / words,
    limit: 9.5,
  })
}
