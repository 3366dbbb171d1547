import { formatLength, type LengthUnit } from '../quantity/index.ts'
import { isRoundTool, type ToolOnLathe, type ToolShape, type ToolSide, toolIn, toolOnLathe } from './tool.ts'

/** The imaginary tip of an insert: the number that a control knows it by, and on which side of the nose's middle it lies. */
export interface ToolTip {
  /** 0 to 8, as the geometry page asks for it; 9 is another name of 0. */
  number: number
  /** +1 away from the centre line, -1 towards it, 0 level with the middle of the nose. */
  x: -1 | 0 | 1
  /** +1 away from the chuck. */
  z: -1 | 0 | 1
}

/** The edge of the nose, level with its middle, by what the insert points to. */
const EDGES: Record<ToolSide, ToolTip> = {
  outside: { number: 8, x: -1, z: 0 },
  inside: { number: 6, x: 1, z: 0 },
  face: { number: 7, x: 0, z: -1 },
}

/** The tip at the programmed corner of an insert. */
export function cornerTip({ side, corner }: Pick<ToolOnLathe, 'side' | 'corner'>): ToolTip {
  const low = corner === 'low'
  if (side === 'outside') return { number: low ? 3 : 4, x: -1, z: low ? -1 : 1 }
  if (side === 'inside') return { number: low ? 2 : 1, x: 1, z: low ? -1 : 1 }
  return { number: low ? 3 : 2, x: low ? -1 : 1, z: -1 }
}

/**
 * The tip that an insert is programmed by, from what it is made for and which point of it. At a corner: 3 outside towards the chuck, 4 away
 * from it, 2 in a bore towards the chuck, 1 away from it; in a face 3 towards the centre, 2 outwards. At the edge of its nose: 8 outside, 6 in a bore,
 * 7 in a face; 0 is the middle of the nose. Seen with X up and Z to the right, whichever side the turret is on. Undefined for a tool that
 * turns: it has no nose. Common practice, from memory.
 */
export function tipOf(tool: Pick<ToolShape, 'kind' | 'onLathe'>): ToolTip | undefined {
  if (isRoundTool(tool)) return undefined
  const stands = toolOnLathe(tool)
  if (stands.point === 'nose') return { number: 0, x: 0, z: 0 }
  return stands.point === 'edge' ? EDGES[stands.side] : cornerTip(stands)
}

/** The round nose of an insert, and by which point of it programs are written. */
export interface Nose {
  /** NaN where nobody entered it. */
  radius: number
  /** Where the programmed point lies from the middle of the nose, in radii: -1, 0 or 1 along X (as a radius) and Z. */
  x: number
  z: number
}

/** The nose of each insert, by the tool's number, in a unit: what compensation of a lathe goes by. */
export const insertNoses = (tools: readonly ToolShape[], unit: LengthUnit): Map<number, Nose> =>
  new Map(
    tools.flatMap((tool) => {
      const tip = tipOf(tool)
      return tip
        ? [[tool.number, { radius: toolIn(tool, unit).nose ?? Number.NaN, x: tip.x, z: tip.z }] as const]
        : []
    }),
  )

/** Nose and tip of a lathe's insert in words, as its geometry page asks for them; nothing for a tool that turns. */
export function noseWords(tool: ToolShape, unit: LengthUnit): string[] {
  const tip = tipOf(tool)
  if (!tip) return []
  const { nose } = toolIn(tool, unit)
  return [...(nose ? [`nose ${formatLength(nose, unit)}`] : []), `tip ${tip.number}`]
}
