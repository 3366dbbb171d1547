import { RADIAN } from './control-state.ts'
import { PLANE_AXES } from './motion.ts'
import type { Run } from './run.ts'
import type { Polar } from './ways.ts'

const AXES = ['X', 'Y', 'Z'] as const

/** Positions by radius and angle from part zero of the plane (G16); both are still to be said. Common practice. */
export const polarFromZero = (): Polar => ({ origin: [0, 0], radius: Number.NaN, degrees: Number.NaN })

/**
 * Puts where the words of a block lead into its target: the word of the plane's first axis is the radius, that of the second the angle.
 * Under G90 from part zero and from the first axis; a radius under G91 counts from where the tool stands, an angle under G91 from the
 * last one. `lengthOf` reads a length word of the block. Common practice.
 */
export function polarTarget(
  run: Run,
  to: [number, number, number],
  lengthOf: (letter: string) => number | undefined,
): void {
  const { polar } = run
  if (!polar) return
  const [first, second] = PLANE_AXES[run.plane]
  const radius = lengthOf(AXES[first])
  const angle = lengthOf(AXES[second])
  if (radius === undefined && angle === undefined) return
  const at = [run.wx, run.wy, run.wz]
  const here: [number, number] = [at[first] as number, at[second] as number]
  if (radius !== undefined) {
    polar.origin = run.absolute ? [0, 0] : here
    polar.radius = radius
  }
  // An angle is no length.
  if (angle !== undefined) polar.degrees = angle / run.scale + (run.absolute ? 0 : polar.degrees)
  if (Number.isNaN(polar.radius + polar.degrees)) {
    run.wrong(
      'polar-not-said',
      'stop',
      `Under G16 the ${Number.isNaN(polar.radius) ? 'radius' : 'angle'} has not been said yet.`,
      {
        does: 'What the control takes for it differs: that of the place, or nothing. Write both under G90 first.',
      },
    )
    if (Number.isNaN(polar.radius)) polar.radius = Math.hypot(...here)
    if (Number.isNaN(polar.degrees)) polar.degrees = (angle ?? 0) / run.scale
  }
  to[first] = polar.origin[0] + polar.radius * Math.cos(polar.degrees * RADIAN)
  to[second] = polar.origin[1] + polar.radius * Math.sin(polar.degrees * RADIAN)
}
