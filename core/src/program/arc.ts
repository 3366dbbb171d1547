import { PLANE_AXES, ROW } from './motion.ts'
import type { Run } from './run.ts'
import { sixDigits } from './six-digits.ts'
import type { Triple } from './ways.ts'

/** How far the radii at the two ends of an arc may differ, by unit: the RS274/NGC reader's own (NISTIR 6556, 3.5.3, from memory). */
const RADIUS_TOLERANCE = { inch: 0.0002, mm: 0.002 }

/** How far a chord may lie off an arc where an arc cannot stay one (wrapped, or gathered for a roughing cycle). */
export const CHORD = { inch: 0.0002, mm: 0.005 }

export interface ArcWords {
  i: number | undefined
  j: number | undefined
  k: number | undefined
  r: number | undefined
}

interface Centre {
  at: [number, number]
  from: number
  to: number
}

/** The centre of an arc by its radius: on the left of the way for a short counter-clockwise one. RS274/NGC 3.5.3.1. */
function byRadius(run: Run, p: number, q: number, radius: number, clockwise: boolean): Centre | undefined {
  const half = Math.hypot(p, q) / 2
  const tolerance = RADIUS_TOLERANCE[run.unit]
  if (half === 0) {
    run.wrong('arc-full-by-radius', 'stop', 'An arc by R that ends where it begins has no centre.', {
      does: 'The control stops with an alarm, or does not move.',
    })
    return undefined
  }
  if (half > Math.abs(radius) + tolerance) {
    run.wrong(
      'arc-radius-too-small',
      'stop',
      `No arc of R${sixDigits(Math.abs(radius))} reaches: its ends are ${sixDigits(2 * half)} apart.`,
      { does: 'The control stops with an alarm.' },
    )
    return undefined
  }
  const height = Math.sqrt(Math.max(0, radius * radius - half * half))
  // The short way round has the centre on the left when counter-clockwise, on the right when clockwise.
  const side = (clockwise ? -1 : 1) * (radius < 0 ? -1 : 1)
  const [mp, mq] = [p / 2, q / 2]
  const at: [number, number] = [mp - (side * height * q) / (2 * half), mq + (side * height * p) / (2 * half)]
  const used = Math.max(Math.abs(radius), half)
  return { at, from: used, to: used }
}

function byCentre(run: Run, p: number, q: number, i: number, j: number): Centre | undefined {
  const from = Math.hypot(i, j)
  const to = Math.hypot(p - i, q - j)
  if (from === 0) {
    run.wrong('arc-no-radius', 'stop', 'The centre of this arc is its start: it has no radius.', {
      does: 'The control stops with an alarm.',
    })
    return undefined
  }
  if (Math.abs(from - to) > RADIUS_TOLERANCE[run.unit])
    run.wrong(
      'arc-radius',
      'stop',
      `The arc begins at a radius of ${sixDigits(from)} and ends at ${sixDigits(to)}.`,
      { does: 'The control stops with an alarm, or spirals to the end point.' },
    )
  return { at: [i, j], from, to }
}

/**
 * Goes along an arc or helix to a point of the program. Centre by I J K from the start, or by R (negative for the long way
 * round); an arc that ends where it begins is a full circle.
 */
export function goArc(run: Run, clockwise: boolean, target: Triple, words: ArcWords): void {
  const [first, second, normal] = PLANE_AXES[run.plane]
  const start: Triple = [run.wx, run.wy, run.wz]
  const p = target[first] - start[first]
  const q = target[second] - start[second]
  const offsets = [words.i, words.j, words.k]
  let centre: Centre | undefined
  if (words.r !== undefined) centre = byRadius(run, p, q, words.r, clockwise)
  else if (offsets[first] === undefined && offsets[second] === undefined) {
    const names = ['I', 'J', 'K']
    run.wrong(
      'arc-no-centre',
      'stop',
      `An arc without a centre: ${names[first]} and ${names[second]}, or R, are missing.`,
      { does: 'The control stops with an alarm; some go straight.' },
    )
  } else centre = byCentre(run, p, q, offsets[first] ?? 0, offsets[second] ?? 0)
  if (!centre) {
    run.go(ROW.LINE, ...target)
    return
  }
  const a0 = Math.atan2(-centre.at[1], -centre.at[0])
  const a1 = Math.atan2(q - centre.at[1], p - centre.at[0])
  let sweep = a1 - a0
  const whole = Math.hypot(p, q) <= 1e-12 * Math.max(1, centre.from)
  if (whole) sweep = 0
  if (clockwise && sweep >= 0) sweep -= 2 * Math.PI
  if (!clockwise && sweep <= 0) sweep += 2 * Math.PI
  const middle: Triple = [0, 0, 0]
  middle[first] = start[first] + centre.at[0]
  middle[second] = start[second] + centre.at[1]
  middle[normal] = start[normal]
  const round = { a0, sweep, from: centre.from, to: centre.to }
  if (run.gathers)
    run.gather(target[0], target[2], false, {
      x: middle[0],
      z: middle[2],
      sweep,
      from: round.from,
      to: round.to,
    })
  else if (run.mapping || (run.rotation !== null && run.plane !== 17)) chords(run, middle, round, target)
  else if (isUnequal(run)) {
    run.wrong(
      'scaled-arc',
      'stop',
      'An arc that is not scaled alike along both axes of its plane is not followed.',
      {
        does: 'A control goes along an arc all the same, and where to differs; it is drawn as an ellipse.',
        once: 'all',
      },
    )
    chords(run, middle, round, target)
  } else goRound(run, target, middle, round)
}

/** Whether the axes of the plane are scaled by different factors. */
function isUnequal({ scaled, plane }: Run): boolean {
  const [first, second] = PLANE_AXES[plane]
  return scaled !== null && Math.abs(scaled.times[first]) !== Math.abs(scaled.times[second])
}

/** A round way in the plane: the radius at its start and its end, and the sweep in radians, counter-clockwise positive. */
interface Round {
  sweep: number
  from: number
  to: number
}

const UNSCALED = [1, 1, 1] as const

/** Goes along an arc or helix about a centre to a point of the program, from where the tool stands. */
export function goRound(run: Run, target: Triple, middle: Triple, round: Round, more = 0): void {
  const [first, second, normal] = PLANE_AXES[run.plane]
  const start: Triple = [run.wx, run.wy, run.wz]
  const a0 = Math.atan2(start[second] - middle[second], start[first] - middle[first])
  // Scaled it is as much larger; mirrored along one axis of its plane it goes the other way round.
  const times = run.scaled?.times ?? UNSCALED
  const by = Math.abs(times[first])
  const sweep = times[first] * times[second] < 0 ? -round.sweep : round.sweep
  const [from, to] = [round.from * by, round.to * by]
  const length = Math.hypot((sweep * (from + to)) / 2, (target[normal] - start[normal]) * times[normal])
  const scene = run.sceneOf(...middle)
  const aux = run.out.arc(...scene, sweep, from, to)
  // Where the radius is at a share of the arc, for turns that follow it.
  const radiusAt = (share: number) => {
    const at = a0 + sweep * share
    const r = from + (to - from) * share
    const axis = first === 0 ? Math.cos(at) : Math.sin(at)
    return first === 0 || second === 0 ? scene[0] + r * axis : scene[0]
  }
  const kind = sweep < 0 ? ROW.ARC_CW : ROW.ARC_CCW
  run.go(kind, ...target, more, aux, run.feedFor(length, radiusAt))
}

/** Where an arc goes through on its way as chords that lie off it by no more than `off`, without its ends: angle, radius and share. */
export function chordPoints({ a0, sweep, from, to }: Round & { a0: number }, off: number) {
  const step = 2 * Math.acos(Math.max(0, 1 - off / Math.max(from, to)))
  const pieces = Math.min(2000, Math.max(2, Math.ceil(Math.abs(sweep) / Math.max(step, 1e-3))))
  return Array.from({ length: pieces - 1 }, (_, n) => {
    const share = (n + 1) / pieces
    return { at: a0 + sweep * share, r: from + (to - from) * share, share }
  })
}

/** The same arc as straight pieces. */
function chords(run: Run, middle: Triple, round: Round & { a0: number }, target: Triple): void {
  const [first, second, normal] = PLANE_AXES[run.plane]
  const rise = [run.wx, run.wy, run.wz][normal] as number
  for (const { at, r, share } of chordPoints(round, CHORD[run.unit])) {
    const point: Triple = [0, 0, 0]
    point[first] = middle[first] + r * Math.cos(at)
    point[second] = middle[second] + r * Math.sin(at)
    point[normal] = rise + (target[normal] - rise) * share
    run.go(ROW.LINE, ...point)
  }
  run.go(ROW.LINE, ...target)
}
