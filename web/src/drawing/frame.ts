/** A point of the drawing in SVG units. */
export interface Point {
  x: number
  y: number
}

/**
 * A drawing laid along one machine axis: `u` is a length along the axis, `v` a distance across it in SVG units.
 * X runs to the right; Y and Z run up, with `v` to the right.
 */
export interface Frame {
  upright: boolean
  /** SVG units per unit of length, the same everywhere. */
  scale: number
  place: (u: number, v: number) => Point
  /** The length along the axis at an SVG coordinate along it. */
  lengthAt: (coordinate: number) => number
}

export interface FrameRoom {
  upright: boolean
  /** SVG coordinates that the least and the greatest place come to lie on. */
  from: number
  to: number
  /** SVG coordinate of v = 0. */
  middle: number
}

export function frame(least: number, greatest: number, { upright, from, to, middle }: FrameRoom): Frame {
  const scale = (to - from) / (greatest - least || 1)
  const along = (u: number) => from + (u - least) * scale
  return {
    upright,
    scale: Math.abs(scale),
    lengthAt: (coordinate) => least + (coordinate - from) / scale,
    place: (u, v) => (upright ? { x: middle + v, y: along(u) } : { x: along(u), y: middle + v }),
  }
}

/** The rectangle between two places, whichever way the axis runs. */
export function box({ place }: Frame, u1: number, u2: number, v1: number, v2: number) {
  const a = place(u1, v1)
  const b = place(u2, v2)
  return {
    x: Math.min(a.x, b.x),
    y: Math.min(a.y, b.y),
    width: Math.abs(a.x - b.x),
    height: Math.abs(a.y - b.y),
  }
}
