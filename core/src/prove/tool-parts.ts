import type { ToolShape } from '../machine/index.ts'

/** One piece of a tool, from the tip: a standing cylinder on a mill, a box on a lathe. */
export interface ToolPart {
  name: 'cutter' | 'shank' | 'holder'
  /** Half of its width along X, Y; on a lathe along Z. */
  radius: number
  /** Up from the tip (Z on a mill; X, away from the centre line, on a lathe). */
  from: number
  to: number
}

/** Less than this is no overlap: what touches does not hit. In the unit of the shape's lengths, a millionth of it. */
const TOUCH = 1e-6

/** The pieces of a tool in its holder. Without a shape a point that is known to nothing but itself. */
export function toolParts(shape: ToolShape | undefined): ToolPart[] {
  if (!shape) return [{ name: 'cutter', radius: 0, from: 0, to: TOUCH }]
  const { diameter, flute, stickOut, holderDiameter, holderLength } = shape
  const parts: ToolPart[] = [{ name: 'cutter', radius: diameter / 2, from: 0, to: flute }]
  if (stickOut > flute) parts.push({ name: 'shank', radius: diameter / 2, from: flute, to: stickOut })
  parts.push({ name: 'holder', radius: holderDiameter / 2, from: stickOut, to: stickOut + holderLength })
  return parts
}
