import { cornerTip, isRoundTool, type ToolShape, tipOf, toolOnLathe } from '../machine/index.ts'
import type { Box } from './body.ts'

/** Pieces of a tool, and what is above it and moves with it. */
type PartName = 'cutter' | 'shank' | 'holder' | 'nose' | 'head' | 'turret' | 'station'

/** One piece of a tool on a mill: a standing cylinder, up from the tip. */
export interface RoundPart {
  form: 'round'
  name: PartName
  /** Half of its width along X and Y. */
  radius: number
  /** Z up from the tip. */
  from: number
  to: number
}

/** From a lower to a higher coordinate. */
export type Span = readonly [low: number, high: number]

/** One piece of a tool on a lathe: a rectangle in the plane of X (a radius) and Z, from the programmed corner. */
export interface FlatPart {
  form: 'flat'
  name: PartName
  x: Span
  z: Span
  /** How far from that plane it is at least; 0 where it is left out: a tool at work is in it. */
  beside?: number
  /** The tool number, of what is in another station. */
  tool?: number
}

/** What is square on a mill, round the axis of the spindle: a rectangle along X and Y, up from the tip. */
export interface BlockPart {
  form: 'block'
  name: PartName
  x: Span
  y: Span
  from: number
  to: number
}

export type ToolPart = RoundPart | FlatPart | BlockPart

/** Less than this is no overlap: what touches does not hit. In the unit of the shape's lengths, a millionth of it. */
const TOUCH = 1e-6

/** A tool that nothing is known of but where its tip stands. */
const point = (lathe: boolean): RoundPart | FlatPart =>
  lathe
    ? { form: 'flat', name: 'cutter', x: [0, TOUCH], z: [0, 0] }
    : { form: 'round', name: 'cutter', radius: 0, from: 0, to: TOUCH }

/** Piece by piece from the tip to the turret or spindle: where each begins and ends, and how wide it is. */
function lengthsOf({ diameter, flute, stickOut, holderDiameter, holderLength }: ToolShape) {
  return [
    { name: 'cutter' as const, from: 0, to: flute, wide: diameter },
    ...(stickOut > flute ? [{ name: 'shank' as const, from: flute, to: stickOut, wide: diameter }] : []),
    { name: 'holder' as const, from: stickOut, to: stickOut + holderLength, wide: holderDiameter },
  ]
}

/** A bar for inside: the insert points outwards at its end, the bar lies along Z towards the tailstock. */
function barParts(shape: ToolShape, low: number, bar: number): FlatPart[] {
  const { diameter, flute, stickOut, holderDiameter, holderLength } = shape
  const middle = -flute - bar / 2
  const end = low + stickOut
  return [
    { form: 'flat', name: 'cutter', x: [-flute, 0], z: [low, low + diameter] },
    { form: 'flat', name: 'shank', x: [-flute - bar, -flute], z: [low, end] },
    {
      form: 'flat',
      name: 'holder',
      x: [middle - holderDiameter / 2, middle + holderDiameter / 2],
      z: [end, end + holderLength],
    },
  ]
}

/** From the programmed point of an insert, where that is not its corner, to the corner: by the tips of both. */
function partsOnLathe(shape: ToolShape): FlatPart[] {
  const parts = partsFromCorner(shape)
  const tip = tipOf(shape)
  const nose = shape.nose ?? 0
  if (!tip || nose === 0 || toolOnLathe(shape).point === 'corner') return parts
  const corner = cornerTip(toolOnLathe(shape))
  const [dx, dz] = [(corner.x - tip.x) * nose, (corner.z - tip.z) * nose]
  return parts.map((part) => ({
    ...part,
    x: [part.x[0] + dx, part.x[1] + dx],
    z: [part.z[0] + dz, part.z[1] + dz],
  }))
}

/** The pieces from the corner of an insert, or from the tip of a tool that turns. */
function partsFromCorner(shape: ToolShape): FlatPart[] {
  const { side, corner, bar } = toolOnLathe(shape)
  const round = isRoundTool(shape)
  /** Where the insert begins along its width; a round tool is programmed at its middle. */
  const low = round ? -shape.diameter / 2 : corner === 'low' ? 0 : -shape.diameter
  if (side === 'inside') return barParts(shape, low, bar ?? shape.diameter)
  return lengthsOf(shape).map(({ name, from, to, wide }) => {
    const begin = round ? -wide / 2 : low
    const across: Span = [begin, begin + wide]
    return side === 'face'
      ? { form: 'flat', name, x: across, z: [from, to] }
      : { form: 'flat', name, x: [from, to], z: across }
  })
}

/**
 * The pieces of a tool in its holder. On a lathe an insert and its holder are flush at the lower coordinate; a tool for
 * outside reaches outwards, one for the face away from the chuck. Without a shape a point.
 */
export function toolParts(shape: ToolShape | undefined, lathe: boolean): (RoundPart | FlatPart)[] {
  if (!shape) return [point(lathe)]
  if (lathe) return partsOnLathe(shape)
  return lengthsOf(shape).map(({ name, from, to, wide }) => ({
    form: 'round',
    name,
    radius: wide / 2,
    from,
    to,
  }))
}

/** The box round a piece, with the tip at zero; a lathe's tool has no extent along Y. */
export function partBox(part: ToolPart): Box {
  if (part.form === 'flat') return { least: [part.x[0], 0, part.z[0]], greatest: [part.x[1], 0, part.z[1]] }
  if (part.form === 'block')
    return { least: [part.x[0], part.y[0], part.from], greatest: [part.x[1], part.y[1], part.to] }
  return { least: [-part.radius, -part.radius, part.from], greatest: [part.radius, part.radius, part.to] }
}
