import { finderOf } from './devices.ts'
import { type Hand, jogTo, own } from './hand.ts'

/** The part in the rotary as the eye sees it from its right end. Throws where there is none. */
function roundSeen(hand: Hand) {
  const part = hand.see().end?.round.find(({ role }) => role === 'part')
  if (!part) throw new Error('no rotary on the table')
  return part
}

/** What the probe triggered at, along an axis. Throws where it touched nothing or hit something. */
function triggered(hand: Hand, axis: 'Y' | 'Z'): number {
  const { mounted, alarm, says } = hand.see()
  if (alarm || mounted.triggered?.axis !== axis) throw new Error(alarm?.says ?? says)
  return mounted.triggered.at
}

/** Puts the rotary on the table, homes it, and stands the probe over the middle of the part's length, at the top. */
export function probeOverRotary(hand: Hand): void {
  hand.do({ do: 'table', stands: 'rotary' })
  hand.do({ do: 'home' })
  hand.do({ do: 'mount', what: 'probe' })
  const part = hand.see().seen?.bodies.find(({ role }) => role === 'part')
  const xs = part?.corners.map(({ x }) => x) ?? []
  jogTo(hand, 'X', (Math.min(...xs) + Math.max(...xs)) / 2)
}

/** Comes down so far aside of the part's middle until the probe triggers; machine Y and Z there. */
export function probeDownOn(hand: Hand, aside: number): { Y: number; Z: number } {
  hand.do({ do: 'up' })
  const part = roundSeen(hand)
  jogTo(hand, 'Y', part.middle.y + aside)
  hand.do({
    do: 'jog',
    axis: 'Z',
    by: part.middle.z + part.radius + own(hand, 0.3) - (hand.see().seen?.tipZ ?? 0),
  })
  hand.do({ do: 'search', axis: 'Z', by: -own(hand, 2) })
  return { Z: triggered(hand, 'Z'), Y: hand.see().positions.Y ?? 0 }
}

/** Beside the part, the ball as high as its middle, until the probe triggers; machine Y there. */
export function probeSideOf(hand: Hand, side: 'front' | 'back'): number {
  hand.do({ do: 'up' })
  const part = roundSeen(hand)
  const way = side === 'front' ? 1 : -1
  jogTo(hand, 'Y', part.middle.y - way * (part.radius + own(hand, 0.5)))
  const ball = finderOf('probe', hand.simulated.world.unit).tip
  hand.do({ do: 'jog', axis: 'Z', by: part.middle.z - ball - (hand.see().seen?.tipZ ?? 0) })
  hand.do({ do: 'search', axis: 'Y', by: way * own(hand, 1) })
  return triggered(hand, 'Y')
}

/** Turns the rotary until it shows so many degrees. */
export const turnTo = (hand: Hand, degrees: number) =>
  hand.do({ do: 'turn', by: degrees - (hand.see().rotary?.shown ?? 0) })
