import { type Material, materialIn, rpmFor } from '../../cutting/index.ts'
import type { ToolShape } from '../../machine/index.ts'
import { rpmAtRadius, type SurfaceSpeed } from '../../program/index.ts'
import { convertLength, type TypedLength } from '../../quantity/index.ts'
import { type CycleCase, printed, toolOf } from '../cycle/index.ts'
import type { GrooveParams } from './params.ts'
import type { Insert, Section, UV } from './section.ts'

/** A stepover that leaves no rings and spares the insert, of its width (trade.md 7). */
const USUAL_STEPOVER = 0.8

/** Everything that a groove comes to, in the case's unit, with u and v as in a section. */
export interface GrooveSizes {
  where: GrooveParams['where']
  section: Section
  insert: Insert
  /** Radius of the surface; in a face its Z. */
  surface: number
  reach: number
  minBore: number | null
  firstCut: { least: number | null; most: number | null }
  /** Free height over the surface, as v: negative. */
  level: number
  /** Z of the programmed corner in front of the part. */
  front: number
  stepover: number
  /** 0 where it does not peck. */
  peck: number
  peckRetreat: number
  /** Where the programmed end of the insert plunges first and last; what is left for finishing is off them. */
  start: number
  last: number
  /** Depth of the plunges. */
  plungeDepth: number
  finish: boolean
  feed: number
  finishFeed: number
  spindle: { surface: number; clamp: number | null } | { turns: number }
  /** Offsets along u of the equal grooves. */
  shifts: number[]
  /** How far off each wall and the bottom may be, in u and v: half of what is allowed on a diameter. */
  tolerance: { wall: number; bottom: number }
}

/** The smallest bore that a bar of the tool table enters: its thickness, and what the insert stands out of it. */
function boreFor(tool: ToolShape | undefined): number | null {
  const bar = tool?.onLathe?.bar
  return tool && bar ? bar + tool.flute : null
}

/** All sizes of a groove; `material` gives the speed and the feed that were not typed. */
export function grooveSizes(params: GrooveParams, on: CycleCase, material: Material): GrooveSizes {
  const { unit } = on
  const own = ({ value, unit: from }: TypedLength) => convertLength(value, from, unit)
  const { where } = params
  const face = where === 'face'
  const tool = toolOf(on, params.tool)
  const width = params.insertWidth
    ? own(params.insertWidth)
    : (tool?.diameter ?? (unit === 'inch' ? 0.125 : 3))
  const insert: Insert = { width, corner: own(params.insertCorner), programmed: params.programmed }
  // In a face the walls are diameters, and u is a radius.
  const half = face ? 0.5 : 1
  const [a, b] = [own(params.near) * half, own(params.far) * half]
  const [low, high] = [Math.min(a, b), Math.max(a, b)]
  const surface = face ? own(params.surface) : own(params.surface) / 2
  const bottom = face ? own(params.bottom) : own(params.bottom) / 2
  const depth = where === 'inside' ? bottom - surface : surface - bottom
  const section: Section = {
    low,
    high,
    depth,
    corner: own(params.corner),
    edge: { kind: params.edge, size: params.edge === 'none' ? 0 : own(params.edgeSize) },
  }
  const speeds = materialIn(material, unit)
  const finish = params.finish
  // Between walls that the insert fills there is no room for stock: it plunges in the middle.
  const wallStock = Math.min(finish ? own(params.wallStock) : 0, (high - low - width) / 2)
  const floorStock = finish ? own(params.floorStock) : 0
  const place = (u: number) => (insert.programmed === 'low' ? u - width : u)
  const start = params.start ? own(params.start) * half : place(high - wallStock)
  const last = params.last ? own(params.last) * half : place(low + wallStock + width)
  const feed = params.feed ? own(params.feed) : speeds.grooveFeed
  return {
    where,
    section,
    insert,
    surface,
    reach: params.reach ? own(params.reach) : (tool?.flute ?? Number.POSITIVE_INFINITY),
    minBore: params.minBore ? own(params.minBore) : boreFor(tool),
    firstCut: {
      least: params.faceLeast ? own(params.faceLeast) : null,
      most: params.faceMost ? own(params.faceMost) : null,
    },
    level: -own(params.clearance) * (face ? 1 : 0.5),
    // Clear with its end towards the chuck, whichever corner is programmed.
    front: own(params.front) + (insert.programmed === 'high' ? width : 0),
    stepover: params.stepover ? own(params.stepover) : printed(USUAL_STEPOVER * width, on),
    peck: params.pecking ? (params.peck ? own(params.peck) : printed(0.4 * width, on)) : 0,
    peckRetreat: params.peckRetreat ? own(params.peckRetreat) : unit === 'inch' ? 0.01 : 0.25,
    start,
    last,
    plungeDepth: depth - floorStock,
    finish,
    feed,
    finishFeed: params.finishFeed ? own(params.finishFeed) : 0.75 * feed,
    spindle:
      params.speed === 'surface'
        ? { surface: params.surfaceSpeed ?? Math.round(speeds.grooving), clamp: params.clamp }
        : { turns: params.turns },
    shifts: Array.from({ length: params.count }, (_, n) => -n * own(params.pitch) * half),
    // As the drawing gives them: on the diameter where what they belong to is one.
    tolerance: {
      wall: own(params.widthTolerance) * half,
      bottom: own(params.bottomTolerance) * (face ? 1 : 0.5),
    },
  }
}

/** A point of the section on the machine: X as a radius, and Z. */
export function onMachine({ where, surface }: Pick<GrooveSizes, 'where' | 'surface'>, { u, v }: UV) {
  if (where === 'face') return { x: u, z: surface - v }
  return { x: where === 'inside' ? surface + v : surface - v, z: u }
}

/** The point of the section that a place on the machine is. */
export function inSection(
  { where, surface }: Pick<GrooveSizes, 'where' | 'surface'>,
  at: { x: number; z: number },
): UV {
  if (where === 'face') return { u: at.x, v: surface - at.z }
  return { u: at.z, v: where === 'inside' ? at.x - surface : surface - at.x }
}

/** The speed over the surface that is held, if one is: no faster than the clamp or the machine. */
export function heldSpeed(
  { spindle }: Pick<GrooveSizes, 'spindle'>,
  { unit, machine }: CycleCase,
): SurfaceSpeed | undefined {
  if ('turns' in spindle) return undefined
  const top = Math.min(
    spindle.clamp ?? Number.POSITIVE_INFINITY,
    machine.dynamics?.spindleTop ?? Number.POSITIVE_INFINITY,
  )
  // On a diameter of 2 the radius is 1: turns times radius.
  return { perRadius: rpmFor(spindle.surface, 2, unit), top }
}

/** Spindle speed in rpm at a radius. */
export function rpmAt(sizes: Pick<GrooveSizes, 'spindle'>, radius: number, on: CycleCase): number {
  const held = heldSpeed(sizes, on)
  return held ? rpmAtRadius(radius, held) : (sizes.spindle as { turns: number }).turns
}
