import type { ProbeShape } from '../machine/index.ts'
import { FEATURES, isTop, type ProbeTask } from './task.ts'

/**
 * A probe call from the side, along the axis of the touch, in the setup's unit on the drawing: `u` along the axis, `z` up.
 * Seen so that the search goes to the right (for a top, down).
 */
export interface ProbeSketch {
  /** The search goes down on a top. */
  down: boolean
  /** The ball's centre where the search begins, where it meets the surface, and where it ends if it misses. */
  start: { u: number; z: number }
  meets: { u: number; z: number }
  ends: { u: number; z: number }
  /** Part, as boxes; the surface is the left edge of the first. */
  bodies: { from: number; to: number; bottom: number; top: number }[]
  top: number
  clear: number
  radius: number
  reach: number
  body: number
  /** A second touch at the other side, as it is for a web, pocket, bore or boss. */
  both: boolean
}

/** Works out the side view of a probe call, whatever its numbers; sizes that are not known yet get a stand-in. */
export function probeSketch(task: ProbeTask, shape: ProbeShape): ProbeSketch {
  const radius = shape.stylus / 2
  const { inside } = FEATURES[task.feature]
  const size = task.size > 0 ? task.size : 4 * shape.body
  const deep = Math.max(1.5 * Math.abs(task.depth), shape.reach)
  const both = ['web', 'pocket', 'bore', 'boss'].includes(task.feature)
  const common = {
    top: task.top,
    clear: task.top + task.clearance,
    radius,
    reach: shape.reach,
    body: shape.body,
    both,
  }
  if (isTop(task)) {
    const z = task.top + radius
    return {
      ...common,
      down: true,
      start: { u: 0, z: z + task.gap },
      meets: { u: 0, z },
      ends: { u: 0, z: z + task.gap - task.search },
      bodies: [{ from: -1.5 * shape.body, to: 1.5 * shape.body, bottom: task.top - deep, top: task.top }],
    }
  }
  const z = task.top + task.depth
  // The surface that is met first stands at u = 0.
  const block = { bottom: task.top - deep, top: task.top }
  const reach = both && !inside ? size : 2 * shape.body
  return {
    ...common,
    down: false,
    start: { u: -radius - task.gap, z },
    meets: { u: -radius, z },
    ends: { u: -radius - task.gap + task.search, z },
    bodies: [
      { from: 0, to: reach, ...block },
      ...(inside ? [{ from: -size - shape.body, to: -size, ...block }] : []),
    ],
  }
}
