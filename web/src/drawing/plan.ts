import type { Point } from './frame.ts'

interface Place {
  x: number
  y: number
}

/** A drawing in plan: X to the right, Y up, one scale. */
export interface Plan {
  /** SVG units per unit of length. */
  scale: number
  place: (at: Place) => Point
}

export interface PlanRoom {
  left: number
  top: number
  width: number
  height: number
}

/** Fits the places between `least` and `greatest` into a room, in the middle of it. */
export function plan(
  least: Place,
  greatest: Place,
  { left, top, width, height }: PlanRoom,
  /** No larger than this: so that two drawings have one scale. */
  most = Number.POSITIVE_INFINITY,
): Plan {
  const scale = Math.min(most, width / (greatest.x - least.x || 1), height / (greatest.y - least.y || 1))
  const middle = { x: (least.x + greatest.x) / 2, y: (least.y + greatest.y) / 2 }
  return {
    scale,
    place: ({ x, y }) => ({
      x: left + width / 2 + (x - middle.x) * scale,
      y: top + height / 2 - (y - middle.y) * scale,
    }),
  }
}

/** The points of a polygon as SVG writes them. */
export const polygon = (points: readonly Point[]) => points.map(({ x, y }) => `${x},${y}`).join(' ')
