import { type Block, type Profile, printedDigits, writeNumber } from '../../control/index.ts'
import type { Finding } from '../../fact/index.ts'
import type { Machine, ToolShape } from '../../machine/index.ts'
import { type LengthUnit, roundTo } from '../../quantity/index.ts'
import type { HolePlace } from './places.ts'
import type { PlannedRow } from './planned.ts'

/** Something that stands in the work area, seen from above, in `unit` from part zero. */
export interface PlanBody {
  name: string
  /** The part itself, or what holds it. */
  part: boolean
  top: number
  /** Of a cylinder that lies along X: its radius, the height of its axis, and from where to where it reaches. */
  lies?: { radius: number; axisZ: number; from: number; to: number }
  shape:
    | { kind: 'rectangle'; least: HolePlace; greatest: HolePlace }
    | { kind: 'circle'; at: HolePlace; radius: number }
}

/** How far a point lies outside a shape seen from above; negative inside. */
export function outside({ shape }: PlanBody, [x, y]: readonly [number, number]): number {
  if (shape.kind === 'circle') return Math.hypot(x - shape.at.x, y - shape.at.y) - shape.radius
  const [dx, dy] = [
    Math.max(shape.least.x - x, x - shape.greatest.x),
    Math.max(shape.least.y - y, y - shape.greatest.y),
  ]
  return dx > 0 && dy > 0 ? Math.hypot(dx, dy) : Math.max(dx, dy)
}

/** What a cycle is written for. Lengths in `unit`. */
export interface CycleCase {
  profile: Profile
  machine: Machine
  unit: LengthUnit
  /** The tools of the machine, in `unit`. */
  tools: readonly ToolShape[]
  /** How the part lies, degrees counter-clockwise; 0 where it lies straight or nobody measured. */
  angle: number
  /** What stands in the work area, as far as it was placed. */
  bodies?: readonly PlanBody[]
}

/** How the spindle turns: at a speed, or at a speed over the surface that is held down to a clamp (rpm). */
export type Spindle =
  | { turning: 3 | 4; rpm: number; field?: string; announces?: boolean }
  | { turning: 3 | 4; surface: number; clamp: number | null; field?: string; clampField?: string }

/** One tool's work: what is written once it is in the spindle and stands over its start, and what that does. */
export interface Operation {
  tool: number
  toolField: string
  /** For the comment at the tool change, and the list. */
  says: string
  spindle: Spindle
  /** Where it stands before the first block: X and Y (on a lathe a radius), and the height it comes down to. */
  start: HolePlace & { z: number; zField?: string }
  /** On a lathe: to the start along Z first, then along X; else X first. */
  zFirst?: boolean
  coolant: boolean
  blocks: readonly Block[]
  planned: readonly PlannedRow[]
  /** On a lathe: the radius and Z that are clear of the part, from where it may go home; null on a mill. */
  clear?: { x: number; z: number }
}

/** What a cycle comes to: its operations in order, and what its checks say. With a stop there are none. */
export interface WrittenCycle {
  operations: Operation[]
  findings: Finding[]
}

/** A value as the control will print it. */
export const printed = (value: number, { profile, unit }: Pick<CycleCase, 'profile' | 'unit'>) =>
  roundTo(value, printedDigits(profile, unit))

/** Degrees as they are printed. */
export const ANGLE_DIGITS = 4

/** Whether the angle is written as a code, or worked into the places. */
export const turnsByCode = ({ profile, angle }: CycleCase) => angle !== 0 && profile.rotation !== null

function rotate({ x, y }: HolePlace, degrees: number): HolePlace {
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)]
  return { x: x * cos - y * sin, y: x * sin + y * cos }
}

/** A place as it is written, digit by digit, and where the tip then stands. */
export interface PlacedHole {
  x: string
  y: string
  meant: HolePlace
}

/** Where a point that the program says comes to stand: turned about part zero where the code turns. */
export const meantAt = (said: HolePlace, on: CycleCase): HolePlace =>
  on.angle !== 0 && turnsByCode(on) ? rotate(said, roundTo(on.angle, ANGLE_DIGITS)) : said

/** Degrees in the program of a direction of the part: with the part's own where no code turns. */
export const programAngle = (degrees: number, on: CycleCase): number =>
  roundTo(degrees + (turnsByCode(on) ? 0 : roundTo(on.angle, ANGLE_DIGITS)), ANGLE_DIGITS)

/**
 * A place as the program says it, and where the tip then really stands: about part zero the part's angle is turned to,
 * by the code where the control has one, else in the numbers.
 */
export function placeHole(of: HolePlace, on: CycleCase): PlacedHole {
  const at = on.angle === 0 || turnsByCode(on) ? of : rotate(of, roundTo(on.angle, ANGLE_DIGITS))
  const x = writeNumber(at.x, on.unit, on.profile)
  const y = writeNumber(at.y, on.unit, on.profile)
  const said = { x: Number(x), y: Number(y) }
  return { x, y, meant: meantAt(said, on) }
}

/** The tool of a number, if the table has it. */
export const toolOf = ({ tools }: CycleCase, number: number) => tools.find((tool) => tool.number === number)
