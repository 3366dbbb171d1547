import type { LinearAxis } from '../machine/index.ts'
import { act } from './act.ts'
import type { SimulatedAction } from './actions.ts'
import { FINDER_RPM, WHEEL_STEPS } from './devices.ts'
import { inch } from './mill.ts'
import type { SimulatedState } from './state.ts'
import type { Looks } from './state-schema.ts'
import { viewOf } from './view.ts'
import type { SeenBody, SimulatedView } from './view-schema.ts'

/**
 * A good hand at the simulated machine: it does what a careful machinist does, sees only what the view shows, and so says
 * what can be achieved. Common practice, step by step.
 */
export interface Hand {
  simulated: SimulatedState
  do: (action: SimulatedAction) => SimulatedView
  see: () => SimulatedView
}

export function handOn(simulated: SimulatedState): Hand {
  const hand: Hand = {
    simulated,
    do: (action) => {
      hand.simulated = act(hand.simulated, action)
      return viewOf(hand.simulated)
    },
    see: () => viewOf(hand.simulated),
  }
  return hand
}

/** An axis along the table, and the way that the spindle goes into a face. */
export interface Into {
  axis: 'X' | 'Y'
  way: 1 | -1
}

export const own = ({ simulated }: Hand, value: number) => inch(simulated, value)

const partIn = (view: SimulatedView) => view.seen?.bodies.find(({ role }) => role === 'part') as SeenBody

/** The box round a body as the eye sees it. */
export function boxOf({ corners }: SeenBody) {
  const xs = corners.map(({ x }) => x)
  const ys = corners.map(({ y }) => y)
  return { X: [Math.min(...xs), Math.max(...xs)], Y: [Math.min(...ys), Math.max(...ys)] } as const
}

export const jogTo = (hand: Hand, axis: LinearAxis, to: number) =>
  hand.do({ do: 'jog', axis, by: to - (hand.see().positions[axis] ?? 0) })

/** Clears the part: up to the top of the travel. */
const up = (hand: Hand) => jogTo(hand, 'Z', hand.simulated.world.machine.home.Z)

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
export function clickUntil(
  hand: Hand,
  { axis, way }: Into,
  step: number,
  shows: (view: SimulatedView) => boolean,
) {
  for (let click = 0; click < 400 && !shows(hand.see()) && !hand.see().alarm; click++)
    hand.do({ do: 'wheel', axis, step, clicks: way })
  return hand.see()
}

export const steps = (hand: Hand) =>
  WHEEL_STEPS[hand.simulated.world.unit] as readonly [number, number, number, number]

/** Touches a face with the edge finder in ever finer steps, and reads the machine position where it kicks. */
export function touchByFinder(hand: Hand, into: Into): number {
  if (hand.see().mounted.kind !== 'edge-finder') hand.do({ do: 'mount', what: 'edge-finder' })
  standBefore(hand, into, own(hand, 0.4), own(hand, 0.2))
  hand.do({ do: 'spindle', rpm: FINDER_RPM.usual })
  const [, coarse, middle, fine] = steps(hand)
  const kicked = (view: SimulatedView) => view.mounted.kicked
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
  const moved = (by: number) => (now: SimulatedView) => (now.dial?.value ?? 0) - rest > by
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

/**
 * Puts the probe over the part by eye, where a program for a whole zero begins: over its middle, or so far in from both faces of
 * its front left corner; 3/8 in above (common practice).
 */
export function probeOver(hand: Hand, inset?: number): SimulatedView {
  if (hand.see().mounted.kind !== 'probe') hand.do({ do: 'mount', what: 'probe' })
  const box = boxOf(partIn(up(hand)))
  for (const axis of ['X', 'Y'] as const) {
    const [least, greatest] = box[axis]
    jogTo(hand, axis, inset === undefined ? (least + greatest) / 2 : least + inset)
  }
  const { seen } = hand.see()
  return hand.do({
    do: 'jog',
    axis: 'Z',
    by: partIn(hand.see()).top + own(hand, 0.375) - (seen?.tipZ ?? 0),
  })
}
