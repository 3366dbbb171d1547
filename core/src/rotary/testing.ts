import { radians } from '../geometry/index.ts'
import type { Machine, RotaryAxis } from '../machine/index.ts'
import { asTyped, type LengthUnit, type TypedLength } from '../quantity/index.ts'

/** A place across the rotary's axis, as machine positions of a ball's centre. */
export interface Across {
  y: number
  z: number
}

/** A part on a rotary as it really is: where the axis lies, and where the machine shows the rotary when the part stands as drawn. */
export interface HiddenRotary {
  axis: Across
  /** Machine degrees when the part stands as drawn. */
  zero: number
  rotary: RotaryAxis
}

/** A vector turned right-handed about X, from Y towards Z: the rotation matrix, written out. */
const turn = ({ y, z }: Across, by: number): Across => {
  const [c, s] = [Math.cos(radians(by)), Math.sin(radians(by))]
  return { y: c * y - s * z, z: s * y + c * z }
}

/** How far the part is turned from as it is drawn, right-handed about X, when the machine shows `shown`. */
const turnedBy = ({ zero, rotary }: HiddenRotary, shown: number) =>
  (rotary.top === 'front' ? 1 : -1) * (shown - zero)

/**
 * Where a ball of a radius stands that touches a straight face from outside. The face as drawn stands `height` off the axis and
 * looks along `looks` (degrees from Y plus towards Z plus). `at`: the Y that it comes down at, or the Z that it comes across at.
 */
export function ballOn(
  part: HiddenRotary,
  shown: number,
  face: { height: number; looks: number },
  ball: number,
  along: 'down' | 'across',
  at: number,
): Across {
  const by = turnedBy(part, shown)
  const normal = turn({ y: Math.cos(radians(face.looks)), z: Math.sin(radians(face.looks)) }, by)
  // normal . (centre - axis) = height + ball
  const reach = face.height + ball
  const { axis } = part
  return along === 'down'
    ? { y: at, z: axis.z + (reach - normal.y * (at - axis.y)) / normal.z }
    : { y: axis.y + (reach - normal.z * (at - axis.z)) / normal.y, z: at }
}

/** Where the middle of a part stands that is drawn off the axis by so much. */
export function middleAt(part: HiddenRotary, shown: number, off: Across): Across {
  const now = turn(off, turnedBy(part, shown))
  return { y: part.axis.y + now.y, z: part.axis.z + now.z }
}

export const typed = (value: number, unit: LengthUnit = 'inch'): TypedLength => asTyped(value, unit)

export const ROTARY: RotaryAxis = { word: 'A', top: 'front', turns: null }

export const withRotary = (machine: Machine, rotary: RotaryAxis = ROTARY): Machine => ({ ...machine, rotary })
