import { formatLength, type LengthUnit } from '../quantity/index.ts'
import { isRoundTool, type ToolShape, toolIn, toolOnLathe } from './tool.ts'

/** The imaginary tip of an insert: the number that a control knows it by, and on which side of the nose's centre it lies. */
export interface ToolTip {
  /** 1 to 4, as the geometry page asks for it. */
  number: 1 | 2 | 3 | 4
  /** +1 away from the centre line. */
  x: 1 | -1
  /** +1 away from the chuck. */
  z: 1 | -1
}

/**
 * The tip that an insert is programmed by, from what it is made for and which corner of it: 3 outside towards the chuck, 4 away from it,
 * 2 in a bore towards the chuck, 1 away from it; in a face 3 towards the centre, 2 outwards. Seen with X up and Z to the right, whichever
 * side the turret is on. Undefined for a tool that turns: it has no nose. Common practice, from memory.
 */
export function tipOf(tool: Pick<ToolShape, 'kind' | 'onLathe'>): ToolTip | undefined {
  if (isRoundTool(tool)) return undefined
  const { side, corner } = toolOnLathe(tool)
  const low = corner === 'low'
  if (side === 'outside') return { number: low ? 3 : 4, x: -1, z: low ? -1 : 1 }
  if (side === 'inside') return { number: low ? 2 : 1, x: 1, z: low ? -1 : 1 }
  return { number: low ? 3 : 2, x: low ? -1 : 1, z: -1 }
}

/** Nose and tip of a lathe's insert in words, as its geometry page asks for them; nothing for a tool that turns. */
export function noseWords(tool: ToolShape, unit: LengthUnit): string[] {
  const tip = tipOf(tool)
  if (!tip) return []
  const { nose } = toolIn(tool, unit)
  return [...(nose ? [`nose ${formatLength(nose, unit)}`] : []), `tip ${tip.number}`]
}
