import type { TapParams } from './params.ts'
import type { TapSizes } from './sizes.ts'

/** A point of half a section: distance from the hole's middle, depth below the surface. */
export interface Below {
  across: number
  depth: number
}

/** A tapped hole in section, all from its surface down. */
export interface HoleSketch {
  /** The wall of the hole from the surface to the drill's point; without what is not done. */
  wall: Below[]
  thread: { across: number; drilled: number; pitch: number; full: number; tip: number } | null
  /** Where the part ends; null where the hole is blind. */
  thickness: number | null
  drillDepth: number
  /** Above the surface, negative. */
  r: number
  deepest: number
}

/** What a set of tapped holes leaves in the part. */
export function holeSketch(
  params: Pick<TapParams, 'hole' | 'chamfer' | 'drill' | 'tapping'>,
  sizes: TapSizes,
): HoleSketch {
  const { drillDiameter, drillDepth, pointLength, chamfer, thread, tapDepth, lead } = sizes
  const radius = drillDiameter / 2
  const through = params.hole === 'through'
  const wide = Math.max(radius, chamfer.diameter / 2)
  // The chamfer's cone, down to where the drill's wall begins.
  const cone = chamfer.diameter > 0 ? (chamfer.depth * (wide - radius)) / (chamfer.diameter / 2) : 0
  const wall: Below[] = params.drill
    ? [
        ...(params.chamfer ? [{ across: wide, depth: 0 }] : []),
        { across: radius, depth: params.chamfer ? cone : 0 },
        { across: radius, depth: drillDepth },
        { across: 0, depth: drillDepth + pointLength },
      ]
    : params.chamfer
      ? [
          { across: wide, depth: 0 },
          { across: 0, depth: chamfer.depth },
        ]
      : []
  return {
    wall,
    thread: params.tapping
      ? {
          across: thread.major / 2,
          drilled: radius,
          pitch: thread.pitch,
          full: through ? sizes.threadDepth : Math.max(0, tapDepth - lead),
          tip: tapDepth,
        }
      : null,
    thickness: through ? sizes.threadDepth : null,
    drillDepth,
    r: -sizes.r.tap,
    deepest: Math.max(drillDepth + pointLength, tapDepth, through ? sizes.threadDepth : 0),
  }
}
