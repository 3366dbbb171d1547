/** A piece of a contour that a lathe's cycle gathers instead of cutting, by where it ends; X is a radius. */
export interface ContourPiece {
  x: number
  z: number
  feed: number
  rapid: boolean
  /** Of an arc: its centre, its sweep in radians (counter-clockwise from Z to X positive), its radius at the start and the end. */
  arc?: { x: number; z: number; sweep: number; from: number; to: number }
  compensation: 40 | 41 | 42
  /** Line from 0. */
  line: number
}
