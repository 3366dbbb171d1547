import {
  headIn,
  type Machine,
  type SpindleHead,
  type ToolShape,
  type Turret,
  toolOnLathe,
  turretIn,
  usualHead,
} from '../machine/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import type { BlockPart, FlatPart, RoundPart, Span, ToolPart } from './tool-parts.ts'
import { toolParts } from './tool-parts.ts'

/** A head has no top here: nothing is placed over it. In either unit. */
const HIGH = 1e5
/** Pieces along a tool that stands aslant in its station. */
const PIECES = 6

/** What is above the tool and moves with it. */
export interface AboveTool {
  parts: readonly ToolPart[]
  /** Whether the machine's page says it; else what is usual was taken. */
  known: boolean
}

/** What is above the tools of a machine: in the unit of the motion, tool by tool. */
export interface AboveCase {
  machine: Pick<Machine, 'kind' | 'unit' | 'head' | 'turret' | 'toolLengths'>
  unit: LengthUnit
  /** Shapes and lengths by tool number, in `unit`. */
  tools: ReadonlyMap<number, ToolShape>
  lengths: ReadonlyMap<number, number>
}

const NOTHING: AboveTool = { parts: [], known: false }

/** From the tip up to the gauge line: as measured, where lengths are measured from there, or as the tool is described. */
function upToGaugeLine({ machine, tools, lengths }: AboveCase, tool: number): number | undefined {
  const measured = machine.toolLengths === 'gauge-line' ? lengths.get(tool) : undefined
  if (measured !== undefined && measured > 0) return measured
  const shape = tools.get(tool)
  return shape && shape.stickOut + shape.holderLength
}

function headParts({ nose, left, right, front, back }: SpindleHead, from: number): (RoundPart | BlockPart)[] {
  const over = from + nose.length
  return [
    { form: 'round', name: 'nose', radius: nose.diameter / 2, from, to: over },
    { form: 'block', name: 'head', x: [-left, right], y: [-front, back], from: over, to: HIGH },
  ]
}

/** Where the turret is, from the programmed corner of the tool at work: its axis along X, its face towards the chuck. */
function turretAt(shape: ToolShape, { across, thick }: Turret): { axis: number; face: number } {
  const holder = toolParts(shape, true).find(({ name }) => name === 'holder') as FlatPart
  const { side } = toolOnLathe(shape)
  // A tool for outside sits on the rim; a bar and what points to the face begin at the turret's face.
  return side === 'outside'
    ? { axis: holder.x[1] + across / 2, face: (holder.z[0] + holder.z[1]) / 2 - thick / 2 }
    : { axis: (holder.x[0] + holder.x[1]) / 2 + across / 2, face: holder.z[1] }
}

/** A tool in a station turned away by an angle: as pieces in the plane of X and Z, each with its distance from that plane. */
function inStation(
  shape: ToolShape,
  angle: number,
  { across, thick }: Turret,
  { axis, face }: { axis: number; face: number },
): FlatPart[] {
  const [cos, sin] = [Math.cos(angle), Math.abs(Math.sin(angle))]
  const rim = across / 2
  const long = shape.stickOut + shape.holderLength
  /** A stretch of it from one radius about the turret's axis to another, so wide. */
  const piece = (from: number, to: number, wide: number, z: Span): FlatPart => {
    const low = axis - Math.max(from * cos, to * cos) - (wide / 2) * sin
    const high = axis - Math.min(from * cos, to * cos) + (wide / 2) * sin
    const beside = Math.max(0, Math.min(from, to) * sin - (wide / 2) * Math.abs(cos))
    return { form: 'flat', name: 'station', x: [low, high], z, beside, tool: shape.number }
  }
  const { side, bar } = toolOnLathe(shape)
  if (side === 'outside') {
    const wide = Math.max(shape.diameter, shape.holderDiameter)
    const middle = face + thick / 2
    const z: Span = [middle - wide / 2, middle + wide / 2]
    return Array.from({ length: PIECES }, (_, n) =>
      piece(rim + (long * n) / PIECES, rim + (long * (n + 1)) / PIECES, wide, z),
    )
  }
  // The insert of a bar for inside stands out of it.
  const wide = bar === null ? shape.diameter : bar + 2 * shape.flute
  const holder = shape.holderDiameter
  return [
    piece(rim - wide / 2, rim + wide / 2, wide, [face - long, face - shape.holderLength]),
    piece(rim - holder / 2, rim + holder / 2, holder, [face - shape.holderLength, face]),
  ]
}

/** The turret and what is in its other stations, from the programmed corner of the tool at work. */
function turretParts(of: Turret, shape: ToolShape, tools: ReadonlyMap<number, ToolShape>): FlatPart[] {
  const at = turretAt(shape, of)
  const disc: FlatPart = {
    form: 'flat',
    name: 'turret',
    x: [at.axis - of.across / 2, at.axis + of.across / 2],
    z: [at.face, at.face + of.thick],
  }
  const others = [...tools.values()].filter(
    ({ number }) => number !== shape.number && number >= 1 && number <= of.stations,
  )
  return [
    disc,
    ...others.flatMap((other) =>
      inStation(other, ((other.number - shape.number) * 2 * Math.PI) / of.stations, of, at),
    ),
  ]
}

/**
 * What is above a tool and moves with it: on a mill the spindle's nose and the head, as usual where the page does not say; on a
 * lathe the turret and what is in its other stations, nothing where the page does not say. A tool's number is its station.
 */
export function aboveTool(of: AboveCase, tool: number): AboveTool {
  const { machine, unit, tools } = of
  if (machine.kind === 'mill') {
    const from = upToGaugeLine(of, tool)
    if (from === undefined) return NOTHING
    const head = machine.head ? headIn(machine.head, machine.unit, unit) : usualHead(unit)
    return { parts: headParts(head, from), known: machine.head !== null }
  }
  const shape = tools.get(tool)
  if (!machine.turret || !shape) return NOTHING
  return { parts: turretParts(turretIn(machine.turret, machine.unit, unit), shape, tools), known: true }
}

/** All that moves with a tool, itself first; drawn and swept alike. */
export const movingParts = (of: AboveCase, tool: number): ToolPart[] => [
  ...toolParts(of.tools.get(tool), of.machine.kind === 'lathe'),
  ...aboveTool(of, tool).parts,
]
