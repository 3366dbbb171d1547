/** How positions are written and where they come to: what a control keeps of it. */

/** X, Y and Z, or one number for each. */
export type Triple = [number, number, number]

/** What scales a program: about where, and each axis by how much. */
export interface Scaling {
  at: Triple
  by: Triple
}

/** Where each axis is mirrored about; null where it is not. */
export type Mirror = [number | null, number | null, number | null]

/**
 * Where a program's positions come to under mirroring, then scaling: each axis times a factor, plus a length. Null where both are off. The
 * mirror image about c is 2 c - p; scaled by f about a it is a + f (p - a).
 */
export interface Scaled {
  times: Triple
  plus: Triple
}

/** Where positions by radius and angle are counted from, and what holds until another word says otherwise. */
export interface Polar {
  origin: [number, number]
  radius: number
  /** From the first axis of the plane towards the second. */
  degrees: number
}

/** A line of which only the angle is known yet: the next one says where both end. */
export interface OpenAngle {
  degrees: number
  /** Line from 0. */
  line: number
  corner: CornerWord | undefined
}

/** What a word of a drawing asks for at the end of a move. */
export interface CornerWord {
  by: 'chamfer' | 'round'
  size: number
}
