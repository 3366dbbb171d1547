import type { LinearAxis } from '../machine/index.ts'
import { toolParts } from '../prove/index.ts'
import { convertLength } from '../quantity/index.ts'
import { type Finder, finderOf, type Piece } from './devices.ts'
import { type Frame, freeWay, intoFrame, outside, type Spot } from './plan-geometry.ts'
import { depthIn, freeOfLying, lying, onRotary, topUnder } from './rotary.ts'
import type { Mounted, SimulatedState } from './state.ts'
import { blockOf, heldBlock, type MillWorld, type Standing, trueTool } from './world.ts'

/** A simulated mill: what stands on it, and what its spindle carries, as geometry. */
export type SimulatedMill = SimulatedState & { world: MillWorld; vise: NonNullable<SimulatedState['vise']> }

export const isMill = (simulated: SimulatedState): simulated is SimulatedMill =>
  simulated.world.kind === 'mill'

/** All that stands upright on the table now; what lies in a rotary is told apart. */
export function standing(simulated: SimulatedMill): Standing[] {
  if (onRotary(simulated)) return []
  const { world, held, partIn } = simulated
  return [
    ...(partIn ? [blockOf(world)] : []),
    ...world.around,
    ...(held ? [heldBlock(world, held)] : []),
    ...(world.setter ? [world.setter] : []),
  ]
}

export const finderIn = (mounted: Mounted, world: MillWorld): Finder | undefined =>
  mounted.kind === 'nothing' || mounted.kind === 'tool' ? undefined : finderOf(mounted.kind, world.unit)

/** From the gauge line to the tip; the nose of the spindle where nothing is in it. */
function lengthIn({ mounted, world }: SimulatedMill): number {
  if (mounted.kind === 'nothing') return 0
  if (mounted.kind !== 'tool') return finderOf(mounted.kind, world.unit).length
  return trueTool(world, mounted.tool)?.length ?? 0
}

/** Machine Z of the tip. */
export const tipZ = (simulated: SimulatedMill) => simulated.at.Z - lengthIn(simulated)

/** Where what touches stands: an indicator's stylus off the axis, all else on it. */
export function tipSpot(simulated: SimulatedMill): Spot {
  const { mounted, at, world } = simulated
  if (mounted.kind !== 'indicator') return { x: at.X, y: at.Y }
  const towards = { 'X+': 0, 'Y+': Math.PI / 2, 'X-': Math.PI, 'Y-': -Math.PI / 2 }[mounted.looks]
  const radius = world.indicator.radius + mounted.bumps * world.indicator.jump
  const angle = towards + mounted.aside
  return { x: at.X + radius * Math.cos(angle), y: at.Y + radius * Math.sin(angle) }
}

/** What must not touch anything, up from the tip; the whole of a cutting tool. */
export function hardPieces(simulated: SimulatedMill): readonly Piece[] {
  const { mounted, world } = simulated
  const finder = finderIn(mounted, world)
  if (finder) return finder.hard
  const nose: Piece = {
    name: 'nose of the spindle',
    radius: convertLength(1.75, 'inch', world.unit),
    from: lengthIn(simulated),
    to: lengthIn(simulated) + convertLength(4, 'inch', world.unit),
  }
  if (mounted.kind !== 'tool') return [nose]
  const tool = trueTool(world, mounted.tool)
  const parts = toolParts(tool?.shape, false).flatMap((part) =>
    part.form === 'round'
      ? [
          {
            name: `${part.name} of T${mounted.tool}`,
            radius: part.radius,
            from: part.from,
            to: part.to,
          },
        ]
      : [],
  )
  return [...parts, nose]
}

const AS_THE_MACHINE: Frame = { x: 0, y: 0, angle: 0 }

/** The frame that a body stands in. */
export const frameOfBody = (simulated: SimulatedMill, { fixed }: Standing): Frame =>
  fixed ? AS_THE_MACHINE : simulated.vise.frame

/** How far outside a body a place lies in plan. */
const outsideOf = (simulated: SimulatedMill, body: Standing, at: Spot) =>
  outside(body.rect, intoFrame(frameOfBody(simulated, body), at))

/** Whether a stretch of heights and a body overlap; what touches does not. */
const beside = ({ bottom, top }: Standing, low: number, high: number) =>
  low < top - 1e-9 && high > bottom + 1e-9

/** What touches and is meant to: from its lowest point up. */
export function softPiece(simulated: SimulatedMill): Piece | undefined {
  const finder = finderIn(simulated.mounted, simulated.world)
  return (
    finder && {
      name: finder.name,
      radius: finder.tip,
      from: -liftOf(finder),
      to: finder.tipHeight,
      ...(finder.kind === 'edge-finder' ? {} : { ball: true as const }),
    }
  )
}

/** A 3D sensor touches from above before its tip is where its dial shows zero. */
const liftOf = (finder: Finder) => (finder.kind === 'sensor' ? finder.tip : 0)

export interface Pressed {
  /** How deep what touches is in a body; negative while it is free of the nearest. */
  depth: number
  from: 'side' | 'top'
  body: string
}

/** How the tip of a finder stands to what is nearest to it: beside it, over it, or pressed against it (the shorter way out). */
export function pressed(simulated: SimulatedMill): Pressed {
  const finder = finderIn(simulated.mounted, simulated.world)
  let deepest: Pressed = { depth: Number.NEGATIVE_INFINITY, from: 'side', body: '' }
  if (!finder) return deepest
  const z = tipZ(simulated)
  const spot = tipSpot(simulated)
  for (const body of standing(simulated)) {
    if (z + finder.tipHeight <= body.bottom) continue
    const side = finder.tip - outsideOf(simulated, body, spot)
    const down = body.top + liftOf(finder) - z
    if (side <= 0 && down <= 0) continue
    const from = down > 0 && (side <= 0 || side <= down) ? 'side' : 'top'
    const depth = from === 'side' ? side : down
    if (depth > deepest.depth) deepest = { depth, from, body: body.name }
  }
  const soft = softPiece(simulated)
  for (const body of soft ? lying(simulated) : []) {
    const depth = soft ? depthIn(body, soft, spot, z) : 0
    if (depth > deepest.depth) deepest = { depth, from: 'top', body: body.name }
  }
  return deepest
}

/** The free height between a tool and what lies under it; Infinity where nothing does. */
export function heightUnder(simulated: SimulatedMill): number {
  const z = tipZ(simulated)
  const tops = standing(simulated)
    .filter(
      (body) => outsideOf(simulated, body, { x: simulated.at.X, y: simulated.at.Y }) <= 0 && z > body.bottom,
    )
    .map(({ top }) => z - top)
  const spot = { x: simulated.at.X, y: simulated.at.Y }
  const round = lying(simulated).flatMap((body) => {
    const top = topUnder(body, spot)
    return top === undefined ? [] : [z - top]
  })
  return Math.min(Number.POSITIVE_INFINITY, ...tops, ...round)
}

export interface Way {
  /** How far it is free, up to what was asked. */
  free: number
  /** What is met then. */
  meets?: { piece: string; body: string }
}

/** How far the pieces of what is in the spindle can go along an axis before one of them meets something. */
export function freeAlong(
  simulated: SimulatedMill,
  pieces: readonly Piece[],
  axis: LinearAxis,
  way: 1 | -1,
  most: number,
  from: Spot = { x: simulated.at.X, y: simulated.at.Y },
): Way {
  const z = tipZ(simulated)
  const along = axis === 'X' ? { x: way, y: 0 } : { x: 0, y: way }
  let found: Way = { free: most }
  const take = (free: number, piece: Piece, body: { name: string }) => {
    if (free < found.free) found = { free: Math.max(0, free), meets: { piece: piece.name, body: body.name } }
  }
  for (const piece of pieces)
    for (const body of standing(simulated)) {
      const [low, high] = [z + piece.from, z + piece.to]
      if (axis === 'Z') {
        if (outsideOf(simulated, body, from) >= piece.radius) continue
        if (way < 0 && low >= body.top - 1e-9) take(low - body.top, piece, body)
        if (way > 0 && high <= body.bottom + 1e-9) take(body.bottom - high, piece, body)
        continue
      }
      if (!beside(body, low, high)) continue
      const frame = frameOfBody(simulated, body)
      const turned = intoFrame({ x: 0, y: 0, angle: frame.angle }, along)
      take(freeWay(body.rect, piece.radius, intoFrame(frame, from), turned), piece, body)
    }
  for (const piece of pieces)
    for (const body of lying(simulated)) take(freeOfLying(body, piece, axis, way, from, z), piece, body)
  return found
}
