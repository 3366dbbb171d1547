import { squareness } from '../hold/index.ts'
import type { LinearAxis } from '../machine/index.ts'
import type { BenchAction } from './actions.ts'
import { act } from './bench.ts'
import { FINDER_RPM, finderOf, WHEEL_STEPS } from './devices.ts'
import { inch } from './mill.ts'
import type { Bench, Looks } from './state.ts'
import { type BenchView, type SeenBody, viewOf } from './view.ts'

/**
 * A good hand at the simulated machine: it does what a careful machinist does, sees only what the view shows, and so says
 * what can be achieved. Common practice, step by step.
 */
export interface Hand {
  bench: Bench
  do: (action: BenchAction) => BenchView
  see: () => BenchView
}

export function handOn(bench: Bench): Hand {
  const hand: Hand = {
    bench,
    do: (action) => {
      hand.bench = act(hand.bench, action)
      return viewOf(hand.bench)
    },
    see: () => viewOf(hand.bench),
  }
  return hand
}

/** An axis along the table, and the way that the spindle goes into a face. */
export interface Into {
  axis: 'X' | 'Y'
  way: 1 | -1
}

const own = ({ bench }: Hand, value: number) => inch(bench, value)

const partIn = (view: BenchView) => view.seen?.bodies.find(({ role }) => role === 'part') as SeenBody

/** The box round a body as the eye sees it. */
function boxOf({ corners }: SeenBody) {
  const xs = corners.map(({ x }) => x)
  const ys = corners.map(({ y }) => y)
  return { X: [Math.min(...xs), Math.max(...xs)], Y: [Math.min(...ys), Math.max(...ys)] } as const
}

const jogTo = (hand: Hand, axis: LinearAxis, to: number) =>
  hand.do({ do: 'jog', axis, by: to - (hand.see().positions[axis] ?? 0) })

/** Clears the part: up to the top of the travel. */
const up = (hand: Hand) => jogTo(hand, 'Z', hand.bench.world.machine.home.Z)

/** Beside the middle of the face that the spindle will go into, with the tip a little below the top of the part. */
function standBefore(hand: Hand, { axis, way }: Into, off: number, below: number): void {
  const view = up(hand)
  const box = boxOf(partIn(view))
  const other = axis === 'X' ? 'Y' : 'X'
  jogTo(hand, other, (box[other][0] + box[other][1]) / 2)
  jogTo(hand, axis, box[axis][way > 0 ? 0 : 1] - way * off)
  const { seen } = hand.see()
  hand.do({
    do: 'jog',
    axis: 'Z',
    by: partIn(hand.see()).top - below - (seen?.tipZ ?? 0),
  })
}

/** Goes on by clicks of a step until something shows; how often at most. */
function clickUntil(hand: Hand, { axis, way }: Into, step: number, shows: (view: BenchView) => boolean) {
  for (let click = 0; click < 400 && !shows(hand.see()) && !hand.see().alarm; click++)
    hand.do({ do: 'wheel', axis, step, clicks: way })
  return hand.see()
}

const steps = (hand: Hand) => WHEEL_STEPS[hand.bench.world.unit] as readonly [number, number, number, number]

/** Touches a face with the edge finder in ever finer steps, and reads the machine position where it kicks. */
export function touchByFinder(hand: Hand, into: Into): number {
  if (hand.see().mounted.kind !== 'edge-finder') hand.do({ do: 'mount', what: 'edge-finder' })
  standBefore(hand, into, own(hand, 0.4), own(hand, 0.2))
  hand.do({ do: 'spindle', rpm: FINDER_RPM.usual })
  const [, coarse, middle, fine] = steps(hand)
  const kicked = (view: BenchView) => view.mounted.kicked
  clickUntil(hand, into, coarse, kicked)
  hand.do({
    do: 'wheel',
    axis: into.axis,
    step: coarse,
    clicks: -into.way * Math.ceil(own(hand, 0.03) / coarse),
  })
  clickUntil(hand, into, middle, kicked)
  hand.do({
    do: 'wheel',
    axis: into.axis,
    step: middle,
    clicks: -into.way * Math.ceil(own(hand, 0.006) / middle),
  })
  return clickUntil(hand, into, fine, kicked).positions[into.axis] ?? 0
}

/** Brings a dial to zero in ever finer steps, from off the face. */
function toDialZero(hand: Hand, into: Into): number {
  const [, coarse, middle, fine] = steps(hand)
  const dial = () => hand.see().dial?.value ?? 0
  const begins = dial()
  // Until it moves; then by what it still shows.
  clickUntil(hand, into, coarse, (view) => (view.dial?.value ?? 0) - begins > coarse / 50)
  for (const step of [middle, fine])
    for (let go = 0; go < 300 && Math.abs(dial()) >= step / 2; go++)
      hand.do({ do: 'wheel', axis: into.axis, step, clicks: dial() < 0 ? into.way : -into.way })
  return hand.see().positions[into.axis] ?? 0
}

/** A 3D sensor, spindle stopped: both hands to zero, and the machine position is the face. */
export function touchBySensor(hand: Hand, into: Into): number {
  if (hand.see().mounted.kind !== 'sensor') hand.do({ do: 'mount', what: 'sensor' })
  standBefore(hand, into, own(hand, 0.3), own(hand, 0.3))
  return toDialZero(hand, into)
}

/** A probe: searched a little further than the gap, backed off, and searched again. */
export function touchByProbe(hand: Hand, into: Into): number {
  if (hand.see().mounted.kind !== 'probe') hand.do({ do: 'mount', what: 'probe' })
  standBefore(hand, into, own(hand, 0.4), own(hand, 0.3))
  hand.do({ do: 'search', axis: into.axis, by: into.way * own(hand, 0.5) })
  hand.do({ do: 'jog', axis: into.axis, by: -into.way * own(hand, 0.05) })
  const view = hand.do({ do: 'search', axis: into.axis, by: into.way * own(hand, 0.1) })
  return view.mounted.triggered?.at ?? 0
}

const LOOKS: Record<'X' | 'Y', Record<1 | -1, Looks>> = {
  X: { 1: 'X+', [-1]: 'X-' },
  Y: { 1: 'Y+', [-1]: 'Y-' },
}

/**
 * One side of a plane with the indicator: the stylus turned to it, up to it, rocked to the high spot, dial to zero. The
 * first time the dial is set to zero there. The other side is that of a gauge block held against the face.
 */
function indicateSide(hand: Hand, { axis, way }: Into, outside: boolean, first: boolean): number {
  const face = `${axis}${outside === way > 0 ? '-' : '+'}` as Looks
  hand.do({ do: 'hold-block', side: null })
  const view = up(hand)
  const box = boxOf(partIn(view))
  const other = axis === 'X' ? 'Y' : 'X'
  // The swing is known roughly from how the indicator was set.
  const radius = own(hand, 0.95)
  const at = box[axis][face.endsWith('-') ? 0 : 1]
  if (!outside) hand.do({ do: 'hold-block', side: face })
  hand.do({ do: 'look', way: LOOKS[axis][way] })
  jogTo(hand, other, (box[other][0] + box[other][1]) / 2)
  jogTo(hand, axis, at - way * radius)
  const height = partIn(hand.see()).top + own(hand, outside ? -0.25 : 0.15)
  hand.do({ do: 'jog', axis: 'Z', by: height - (hand.see().seen?.tipZ ?? 0) })
  const [, coarse, middle, fine] = steps(hand)
  const rest = hand.see().dial?.value ?? 0
  const moved = (by: number) => (now: BenchView) => (now.dial?.value ?? 0) - rest > by
  clickUntil(hand, { axis, way }, coarse, moved(fine))
  hand.do({ do: 'rock' })
  if (first) {
    clickUntil(hand, { axis, way }, middle, moved(own(hand, 0.008)))
    hand.do({ do: 'rock' })
    hand.do({ do: 'zero-dial' })
  } else
    for (const step of [middle, fine])
      for (let go = 0; go < 300 && Math.abs(hand.see().dial?.value ?? 0) >= step / 2; go++)
        hand.do({ do: 'wheel', axis, step, clicks: (hand.see().dial?.value ?? 0) < 0 ? way : -way })
  hand.do({ do: 'rock' })
  const found = hand.see().positions[axis] ?? 0
  jogTo(hand, axis, found - way * own(hand, 0.1))
  return found
}

/** Both sides of a face by the indicator: the spindle outside of it, and then over the part. */
export function indicateBothSides(hand: Hand, face: Looks): { minusSide: number; plusSide: number } {
  const axis = face[0] as 'X' | 'Y'
  const low = face.endsWith('-')
  const first = hand.see().mounted.kind !== 'indicator'
  if (first) hand.do({ do: 'mount', what: 'indicator' })
  const out = indicateSide(hand, { axis, way: low ? 1 : -1 }, true, first)
  const over = indicateSide(hand, { axis, way: low ? -1 : 1 }, false, false)
  up(hand)
  hand.do({ do: 'hold-block', side: null })
  return low ? { minusSide: out, plusSide: over } : { minusSide: over, plusSide: out }
}

/** Z by a tool on a gauge block on the part: lowered by thousandths, raised by tenths until the block just goes in. */
export function toolOnBlock(hand: Hand, tool: number, height: number): number {
  if (hand.see().mounted.tool !== tool) hand.do({ do: 'mount', what: 'tool', tool })
  const view = up(hand)
  const box = boxOf(partIn(view))
  for (const axis of ['X', 'Y'] as const) jogTo(hand, axis, (box[axis][0] + box[axis][1]) / 2)
  const { seen } = hand.see()
  hand.do({
    do: 'jog',
    axis: 'Z',
    by: partIn(hand.see()).top + height + own(hand, 0.05) - (seen?.tipZ ?? 0),
  })
  const [, coarse, middle, fine] = steps(hand)
  const goes = () => !hand.do({ do: 'try-block', height }).says.includes('does not go in')
  const drags = () => hand.do({ do: 'try-block', height }).says.includes('drag')
  for (let n = 0; n < 40 && goes(); n++) hand.do({ do: 'wheel', axis: 'Z', step: coarse, clicks: -1 })
  for (let n = 0; n < 40 && !goes(); n++) hand.do({ do: 'wheel', axis: 'Z', step: middle, clicks: 1 })
  for (let n = 0; n < 40 && !drags(); n++)
    hand.do({ do: 'wheel', axis: 'Z', step: fine, clicks: goes() ? -1 : 1 })
  return hand.see().positions.Z ?? 0
}

/** The probe from above, in the middle of the part. */
export function probeTop(hand: Hand): number {
  if (hand.see().mounted.kind !== 'probe') hand.do({ do: 'mount', what: 'probe' })
  const view = up(hand)
  const box = boxOf(partIn(view))
  for (const axis of ['X', 'Y'] as const) jogTo(hand, axis, (box[axis][0] + box[axis][1]) / 2)
  hand.do({
    do: 'jog',
    axis: 'Z',
    by: partIn(hand.see()).top + own(hand, 0.4) - (hand.see().seen?.tipZ ?? 0),
  })
  hand.do({ do: 'search', axis: 'Z', by: -own(hand, 0.5) })
  hand.do({ do: 'jog', axis: 'Z', by: own(hand, 0.05) })
  return hand.do({ do: 'search', axis: 'Z', by: -own(hand, 0.1) }).mounted.triggered?.at ?? 0
}

/** The indicator on the fixed jaw, near its left end, dial at zero; and what it shows at places along the jaw. */
function ontoJaw(hand: Hand, at: number): { left: number; y: number } {
  hand.do({ do: 'part', in: false })
  hand.do({ do: 'mount', what: 'indicator' })
  hand.do({ do: 'look', way: 'Y+' })
  const jaw = hand.see().seen?.bodies.find(({ id }) => id === 'fixed-jaw') as SeenBody
  const box = boxOf(jaw)
  const left = box.X[0]
  const [corner] = jaw.corners
  jogTo(hand, 'X', left + at)
  jogTo(hand, 'Y', (corner?.y ?? box.Y[0]) - own(hand, 1.1))
  hand.do({ do: 'jog', axis: 'Z', by: jaw.top - own(hand, 0.2) - (hand.see().seen?.tipZ ?? 0) })
  return { left, y: hand.see().positions.Y ?? 0 }
}

/** What the vise's jaw allows over its length, in inches: a good hand leaves no more. */
const SQUARE_WITHIN = 0.0005

/** What the dial shows at a place along the jaw, counted from its left end. */
function dialAt(hand: Hand, left: number, at: number): number {
  jogTo(hand, 'X', left + at)
  return hand.see().dial?.value ?? 0
}

/**
 * Squares the vise: the block out of it, one bolt out, the dial at zero near the other, the target worked out, tapped to it,
 * swept again until nothing is left; then the bolts, each time looked at again.
 */
export function squareVise(hand: Hand): { sweeps: number; left: number } {
  const { length, pivots } = hand.see().vise ?? { length: 0, pivots: { left: 0, right: 0 } }
  const near = own(hand, 0.4)
  const far = length - own(hand, 0.4)
  const { left } = ontoJaw(hand, near)
  const [, coarse, middle] = steps(hand)
  const into: Into = { axis: 'Y', way: 1 }
  let sweeps = 0
  const preload = () => {
    dialAt(hand, left, near)
    const rest = hand.see().dial?.value ?? 0
    const pushed = (by: number) => (view: BenchView) => (view.dial?.value ?? 0) - rest > by
    clickUntil(hand, into, coarse, pushed(0))
    clickUntil(hand, into, middle, pushed(own(hand, 0.03)))
    hand.do({ do: 'rock' })
    hand.do({ do: 'zero-dial' })
  }
  for (const which of ['left', 'right'] as const) hand.do({ do: 'bolt', which, to: 'snug' })
  hand.do({ do: 'bolt', which: 'right', to: 'out' })
  preload()
  for (let round = 0; round < 12; round++) {
    sweeps++
    // A jaw that is far off would run the indicator past its range: only as far as it goes.
    let to = near + own(hand, 0.5)
    let reading = dialAt(hand, left, to)
    while (to < far && Math.abs(reading) < own(hand, 0.006)) {
      to = Math.min(far, to + own(hand, 0.5))
      reading = dialAt(hand, left, to)
    }
    if (to >= far && Math.abs(reading) <= own(hand, SQUARE_WITHIN)) {
      const { right } = hand.see().vise ?? { right: 'tight' }
      if (right === 'tight') break
      hand.do({ do: 'bolt', which: 'right', to: right === 'out' ? 'snug' : 'tight' })
      if (right === 'snug') hand.do({ do: 'bolt', which: 'left', to: 'tight' })
      dialAt(hand, left, near)
      hand.do({ do: 'zero-dial' })
      continue
    }
    for (const which of ['left', 'right'] as const) hand.do({ do: 'bolt', which, to: 'snug' })
    hand.do({ do: 'bolt', which: 'right', to: 'out' })
    const typed = (value: number) => ({ text: String(value), value, unit: hand.bench.world.unit })
    const found = squareness(
      {
        bolts: 'one',
        pivot: typed(pivots.left),
        points: [
          { at: typed(near), reading: typed(0) },
          { at: typed(to), reading: typed(reading) },
        ],
        plusMeans: 'towards',
        stylusAngle: 0,
        dialStep: typed(hand.see().dial?.step ?? 0.0001),
        partLength: typed(length),
        allowed: typed(own(hand, 0.001)),
      },
      hand.bench.world.unit,
    )
    if (!found.ok) break
    for (let tap = 0; tap < 60; tap++) {
      const off = (hand.see().dial?.value ?? 0) - found.tap.target
      if (Math.abs(off) <= own(hand, 0.0003)) break
      const strength =
        Math.abs(off) > own(hand, 0.02) ? 'firm' : Math.abs(off) > own(hand, 0.004) ? 'medium' : 'light'
      // Plus on the dial: the jaw has come nearer, so it is to go back.
      hand.do({ do: 'tap', end: 'right', way: off > 0 ? 'back' : 'front', strength })
    }
    dialAt(hand, left, near)
    const dial = hand.see().dial?.value ?? 0
    if (Math.abs(dial) > own(hand, 0.006)) {
      jogTo(hand, 'Y', (hand.see().positions.Y ?? 0) - own(hand, 0.06))
      preload()
    } else hand.do({ do: 'zero-dial' })
  }
  return { sweeps, left: hand.see().dial?.value ?? 0 }
}

/** A skim and a face on a lathe: machine X at the cut with what the micrometer shows, machine Z at the face. */
export function skimAndFace(hand: Hand, tool: number): { X: number; measured: number; Z: number } {
  hand.do({ do: 'mount', what: 'tool', tool })
  const bar = hand.see().bar
  if (!bar?.tip) return { X: 0, measured: 0, Z: 0 }
  const tip = () => hand.see().bar?.tip ?? { X: 0, Z: 0 }
  const [, , middle, fine] = steps(hand)
  hand.do({ do: 'spindle', rpm: 800 })
  // The face first: a few thousandths into it, and across to the centre line.
  hand.do({ do: 'jog', axis: 'X', by: bar.diameter + own(hand, 0.2) - tip().X })
  hand.do({ do: 'jog', axis: 'Z', by: bar.face - own(hand, 0.02) - tip().Z })
  hand.do({ do: 'jog', axis: 'X', by: -tip().X - own(hand, 0.06) })
  const Z = hand.see().positions.Z ?? 0
  hand.do({ do: 'jog', axis: 'Z', by: own(hand, 0.3) })
  hand.do({ do: 'jog', axis: 'X', by: bar.diameter - own(hand, 0.04) - tip().X })
  hand.do({ do: 'wheel', axis: 'X', step: middle, clicks: -1 })
  hand.do({ do: 'wheel', axis: 'X', step: fine, clicks: -1 })
  hand.do({ do: 'jog', axis: 'Z', by: -own(hand, 0.6) })
  const X = hand.see().positions.X ?? 0
  hand.do({ do: 'jog', axis: 'Z', by: own(hand, 1.2) })
  hand.do({ do: 'spindle', rpm: 0 })
  return { X, measured: hand.do({ do: 'measure' }).measured ?? 0, Z }
}

/** Length of the label of a device, as it stands in the tool table. */
export const labelLength = (hand: Hand, kind: 'probe' | 'sensor') =>
  finderOf(kind, hand.bench.world.unit).length
