import { squareness } from '../hold/index.ts'
import { boxOf, clickUntil, type Hand, type Into, jogTo, own, steps } from './hand.ts'
import type { SeenBody, SimulatedView } from './view-schema.ts'

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
    const pushed = (by: number) => (view: SimulatedView) => (view.dial?.value ?? 0) - rest > by
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
    const typed = (value: number) => ({ text: String(value), value, unit: hand.simulated.world.unit })
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
      hand.simulated.world.unit,
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

/** Brings a tool down on the setter, spindle stopped, and reads machine Z where that triggers. Throws where it does not. */
export function touchSetter(hand: Hand, tool: number): number {
  hand.do({ do: 'spindle', rpm: 0 })
  hand.do({ do: 'up' })
  hand.do({ do: 'mount', what: 'tool', tool })
  const setter = hand.see().seen?.bodies.find(({ id }) => id === 'setter')
  if (!setter) throw new Error('no setter on the table')
  const box = boxOf(setter)
  jogTo(hand, 'X', (box.X[0] + box.X[1]) / 2)
  jogTo(hand, 'Y', (box.Y[0] + box.Y[1]) / 2)
  hand.do({ do: 'jog', axis: 'Z', by: setter.top + own(hand, 0.3) - (hand.see().seen?.tipZ ?? 0) })
  const { alarm, positions } = hand.do({ do: 'search', axis: 'Z', by: -own(hand, 0.6) })
  if (alarm) throw new Error(alarm.says)
  return positions.Z ?? Number.NaN
}
