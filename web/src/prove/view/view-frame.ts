import { type Body, boundsOf, type PathPicture, type Triple } from '@dogleg/core/prove'

/** A side from which the work area is looked at, straight on. */
export interface Side {
  name: 'plan' | 'side' | 'turning'
  label: string
  /** The axis to the right, the one upwards, and the one towards the eye. */
  right: 0 | 1 | 2
  up: 0 | 1 | 2
  eye: 0 | 1 | 2
  /** Whether the eye is on the positive side. */
  from: 1 | -1
}

export const PLAN: Side = { name: 'plan', label: 'Plan, from above', right: 0, up: 1, eye: 2, from: 1 }
export const SIDE: Side = { name: 'side', label: 'Side, from the front', right: 0, up: 2, eye: 1, from: -1 }
/** A lathe: Z to the right, X up; the spindle is on the left. */
export const TURNING: Side = {
  name: 'turning',
  label: 'Side, spindle on the left',
  right: 2,
  up: 0,
  eye: 1,
  from: 1,
}

/** What of the work area is seen, and how large: pixels for a unit of length. */
export interface Window {
  right: number
  up: number
  scale: number
}

export interface Size {
  width: number
  height: number
}

export type Extent = { least: [number, number, number]; greatest: [number, number, number] }

/** Straight on, through a window. */
export interface StraightEye {
  side: Side
  window: Window
}

/** From somewhere round the work area: radians about Z and above the table. */
export interface SpaceEye {
  turn: number
  tilt: number
  closer: number
  extent: Extent
}

/** From where a view is looked at. */
export type Eye = StraightEye | SpaceEye

const nothing = (): Extent => ({
  least: [Infinity, Infinity, Infinity],
  greatest: [-Infinity, -Infinity, -Infinity],
})

function put({ least, greatest }: Extent, axis: 0 | 1 | 2, value: number) {
  if (value < least[axis]) least[axis] = value
  if (value > greatest[axis]) greatest[axis] = value
}

/** Where the feed moves are; undefined where there are none. */
export function pathExtent({ feed }: PathPicture): Extent | undefined {
  const extent = nothing()
  for (let at = 0; at < feed.length; at++) put(extent, (at % 3) as 0 | 1 | 2, feed[at] as number)
  return feed.length > 0 ? extent : undefined
}

/** All that should be in sight: the bodies, or the feed moves where there are none. */
export function sceneExtent(bodies: readonly Body[], path: Extent | undefined): Extent {
  if (bodies.length === 0) return path ?? { least: [-1, -1, -1], greatest: [1, 1, 1] }
  const extent = nothing()
  for (const body of bodies)
    for (const corner of Object.values(boundsOf(body)))
      for (const axis of [0, 1, 2] as const) put(extent, axis, corner[axis])
  return extent
}

/** A window that shows an extent whole, with room round it. */
export function fit({ least, greatest }: Extent, side: Side, { width, height }: Size): Window {
  const [w, h] = [greatest[side.right] - least[side.right], greatest[side.up] - least[side.up]]
  // Above the part the tool comes down: more room there than below.
  const room = side.name === 'side' ? Math.max(h, w * 0.25) * 0.5 : 0
  const scale = Math.min((width * 0.86) / Math.max(w, 1e-6), (height * 0.82) / Math.max(h + room, 1e-6))
  return {
    right: (least[side.right] + greatest[side.right]) / 2,
    up: (least[side.up] + greatest[side.up] + room) / 2,
    scale,
  }
}

/** A point of the work area in pixels of the view. */
export const toView = (point: Triple, side: Side, { right, up, scale }: Window, { width, height }: Size) => ({
  x: (point[side.right] - right) * scale + width / 2,
  y: height / 2 - (point[side.up] - up) * scale,
})

/** Where a pixel is in the work area. */
export const fromView = (x: number, y: number, { right, up, scale }: Window, { width, height }: Size) => ({
  right: (x - width / 2) / scale + right,
  up: (height / 2 - y) / scale + up,
})
