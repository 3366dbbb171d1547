import { type Machine, senseOf } from '../machine/index.ts'
import { convertLength } from '../quantity/index.ts'
import type { Dice } from './dice.ts'
import type { Spot } from './plan-geometry.ts'
import type { Across } from './section.ts'

/** A rotary that lies along X on the table, with a part in its chuck, as they really are. Heights are machine Z of a tip there. */
export interface TrueRotary {
  word: 'A' | 'B' | 'C'
  /** +1 where the part turns from Y to Z as the number counts up. */
  sense: 1 | -1
  axis: Across
  /** From the part's free end to the chuck's face, and on to the chuck's back. */
  x: { end: number; face: number; back: number }
  chuckRadius: number
  /** The part as it stands while the rotary is home: how far its middle is off the axis; its flat, in degrees from looking up. */
  part: { off: Across; radius: number; flatHeight: number; flatAt: number }
  /** How far off its angle is shown until it is homed, in degrees. */
  notHomed: number
}

/** The rotary of a mill by chance; nothing where its machine has none. The part is a bar with a flat that is turned at random. */
export function rotaryOf(
  { rotary, unit }: Pick<Machine, 'rotary' | 'unit'>,
  chance: Dice,
  middle: Spot,
  height: number,
): TrueRotary | null {
  if (!rotary) return null
  const own = (inch: number) => convertLength(inch, 'inch', unit)
  const radius = own(chance.pick([0.75, 1, 1.25])) + chance.within(own(0.004))
  const face = middle.x + own(1.5) + chance.within(own(0.5))
  return {
    word: rotary.word,
    sense: senseOf(rotary),
    axis: { y: middle.y + chance.within(own(0.8)), z: height + chance.within(own(0.3)) },
    x: { end: face - own(3.5) + chance.within(own(0.2)), face, back: face + own(2.5) },
    chuckRadius: own(2),
    part: {
      off: { y: chance.within(own(0.005)), z: chance.within(own(0.005)) },
      radius,
      flatHeight: 0.7 * radius,
      flatAt: chance.within(35),
    },
    notHomed: chance.between(30, 300),
  }
}

/** The machine's angle that has the flat look up. */
export const levelOf = ({ sense, part }: TrueRotary) => -sense * part.flatAt
