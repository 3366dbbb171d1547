import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { type LinearAxis, type Machine, probeAsTool, type ToolShape, toolIn } from '../machine/index.ts'
import type { BodyRole } from '../prove/index.ts'
import { convertLength, type LengthUnit, roundTo } from '../quantity/index.ts'
import { finderOf } from './devices.ts'
import { dice } from './dice.ts'
import { type Frame, fromFrame, type Rect } from './plan-geometry.ts'
import type { HeldAgainst } from './state-schema.ts'
import { rotaryOf, type TrueRotary } from './true-rotary.ts'

/** An upright box on the table, in the frame of the vise where it is not fixed; its heights are machine Z of a tip that touches there. */
export interface Standing {
  id: string
  name: string
  role: BodyRole
  rect: Rect
  bottom: number
  top: number
  /** It is bolted to the table by itself: its place is the machine's, whatever the vise does. */
  fixed?: true
}

/** A tool of the machine as it really is. */
export interface TrueTool {
  /** In the machine's unit. */
  shape: ToolShape
  /** From the gauge line to the tip; on a lathe 0. */
  length: number
  /** On a lathe: machine X (a diameter) and Z of the turret with the tip on the centre line and at the chuck's zero. */
  geometry?: { X: number; Z: number }
}

/** What a simulated machine is, with all that its operator cannot see. Lengths in the machine's unit. */
interface Common {
  seed: number
  machine: Machine
  profile: Profile
  unit: LengthUnit
  tools: readonly TrueTool[]
}

/** A mill with a vise on its table and a block in it. */
export interface MillWorld extends Common {
  kind: 'mill'
  /** The frame of the vise: X along the fixed jaw from its left end, Y to the back from the jaw's face. */
  vise: { length: number; pivots: { left: number; right: number }; pivotY: number; frame: Frame }
  /** The block: its left end along the jaw, its size; its back lies on the fixed jaw. */
  block: { x: number; size: { x: number; y: number; z: number }; top: number }
  /** Jaws, clamps and the like, in the frame of the vise. */
  around: readonly Standing[]
  /** How an indicator is set: from the spindle's axis to the stylus, and how far it jumps when it is bumped. */
  indicator: { radius: number; jump: number }
  /** How far each bolt turns the vise as it is tightened, in radians. */
  tightening: { left: number; right: number }
  /** The rotary that can stand on its table instead of the vise. */
  rotary: TrueRotary | null
  /** A tool setter beside the vise; it may be pressed down from where a tip triggers it to its top. */
  setter: (Standing & { trigger: number }) | null
}

/** A lathe with a bar in its chuck. Z counts from the chuck's face. */
export interface LatheWorld extends Common {
  kind: 'lathe'
  bar: { diameter: number; face: number }
}

export type World = MillWorld | LatheWorld

export const isMillWorld = (world: World): world is MillWorld => world.kind === 'mill'

/** Every tool of a machine as it really is: those of its table, and its probe, which is as long as its label says. */
export function trueTools({ machine, tools, unit }: World): readonly TrueTool[] {
  const { probe } = machine
  if (!probe || tools.some(({ shape }) => shape.number === probe.tool)) return tools
  return [...tools, { shape: probeAsTool(probe, machine), length: finderOf('probe', unit).length }]
}

/** A tool of a machine by its number. */
export const trueTool = (world: World, number: number) =>
  trueTools(world).find(({ shape }) => shape.number === number)

/** What a machine is given that stands for practice only. Travels and speeds are usual ones. */
export const practiceMachine = (kind: 'mill' | 'lathe', unit: LengthUnit): Machine => {
  const own = (value: number) => roundTo(convertLength(value, 'inch', unit), unit === 'inch' ? 4 : 0)
  const mill = kind === 'mill'
  return {
    id: `practice-${kind}-${unit}`,
    version: 1,
    name: mill ? 'Practice mill' : 'Practice lathe',
    kind,
    unit,
    axes: mill
      ? {
          X: { least: own(-30), greatest: 0 },
          Y: { least: own(-16), greatest: 0 },
          Z: { least: own(-20), greatest: 0 },
        }
      : { X: { least: own(-16), greatest: 0 }, Y: null, Z: { least: own(-23), greatest: 0 } },
    tableMoves: { X: mill, Y: mill },
    home: { X: 0, Y: 0, Z: 0 },
    rapids: { X: own(1000), Y: mill ? own(1000) : null, Z: own(800) },
    dynamics: null,
    rotary: null,
    around: null,
    head: null,
    turret: null,
    rapidMarks: null,
    xSpeeds: null,
    costs: null,
    pallets: null,
    shape: 2,
    secondHome: null,
    readyList: null,
    leastStep: unit === 'inch' ? 0.0001 : 0.001,
    toolLengths: 'gauge-line',
    probe: mill
      ? { tool: 20, stylus: own(0.2362), reach: own(1.97), body: own(1.26), overtravel: own(0.24) }
      : null,
    profileId: 'compact',
    positions: { from: 'simulated' },
    note: '',
  }
}

const COMPACT = BUILT_IN_PROFILES.find(({ id }) => id === 'compact') as Profile

export interface WorldOptions {
  machine: Machine
  profile?: Profile
  /** Shapes of its tools; each gets a true length of its own. */
  tools?: readonly ToolShape[]
  /** The vise stands square within a few tenths over its length; else up to three quarters of a degree off. */
  squared?: boolean
  /** Size of the block along the jaw, across and up, in the machine's unit, each within a hundredth; else chosen by the seed. */
  block?: { x: number; y: number; z: number }
  /** A tool setter stands on the table of a mill. */
  setter?: boolean
  /** More that stands on the table, in the frame of the vise with heights from the block's top. */
  clamps?: readonly Standing[]
}

/** A tool setter on the table, just left of the vise. */
function setterBeside(vise: Frame, top: number, own: (inch: number) => number): MillWorld['setter'] {
  const { x, y } = fromFrame(vise, { x: own(-1.6), y: own(0.65) })
  const half = own(0.4)
  return {
    id: 'setter',
    name: 'tool setter',
    role: 'stop',
    rect: { x0: x - half, x1: x + half, y0: y - half, y1: y + half },
    bottom: top - own(2.5),
    top,
    trigger: top + own(0.02),
    fixed: true,
  }
}

/** A mill by its seed: where the vise stands, how far it is turned, what block is in it, how long the tools are. */
export function millWorld(seed: number, options: WorldOptions): MillWorld {
  const { machine } = options
  const { unit } = machine
  const own = (inch: number) => convertLength(inch, 'inch', unit)
  const chance = dice(seed)
  const middle = (axis: LinearAxis) => {
    const travel = machine.axes[axis]
    return travel ? (travel.least + travel.greatest) / 2 : 0
  }
  const length = own(6)
  const angle = options.squared
    ? chance.within(own(0.0002) / length)
    : ((chance.pick([-1, 1]) * chance.between(0.15, 0.75)) / 180) * Math.PI
  const frame: Frame = {
    x: middle('X') - length / 2 + chance.within(own(2.5)),
    y: middle('Y') + chance.within(own(1.2)),
    angle,
  }
  const nominal = options.block ?? {
    x: own(chance.pick([3.5, 4, 4.5])),
    y: own(chance.pick([2, 2.5, 3])),
    z: own(1.5),
  }
  const size = {
    x: nominal.x + chance.within(own(0.005)),
    y: nominal.y + chance.within(own(0.005)),
    z: nominal.z + chance.within(own(0.005)),
  }
  const travelZ = machine.axes.Z
  const top = travelZ.least + own(2.6) + chance.within(own(0.4))
  const jawTop = top - own(0.75)
  const jaw = (id: string, name: string, y0: number, y1: number): Standing => ({
    id,
    name,
    role: 'vise',
    rect: { x0: 0, x1: length, y0, y1 },
    bottom: jawTop - own(2.5),
    top: jawTop,
  })
  const tools = (options.tools ?? [])
    .map((tool) => toolIn(tool, unit))
    .map((shape) => {
      const length = own(4) + shape.stickOut / 2 + chance.within(own(0.8))
      return { shape, length: shape.number === machine.probe?.tool ? finderOf('probe', unit).length : length }
    })
  return {
    kind: 'mill',
    seed,
    machine,
    profile: options.profile ?? COMPACT,
    unit,
    tools,
    vise: { length, pivots: { left: own(-1), right: length + own(1) }, pivotY: own(-2), frame },
    block: { x: (length - size.x) / 2 + chance.within(own(0.4)), size, top },
    around: [
      jaw('fixed-jaw', 'fixed jaw', 0, own(1.3)),
      jaw('moving-jaw', 'moving jaw', -size.y - own(1.3), -size.y),
      ...(options.clamps ?? []).map((each) => ({
        ...each,
        bottom: each.bottom + top,
        top: each.top + top,
      })),
    ],
    indicator: {
      radius: own(0.7) + chance.within(own(0.15)),
      jump: own(chance.between(0.002, 0.005)) * chance.pick([-1, 1]),
    },
    tightening: {
      left: (chance.pick([-1, 1]) * own(chance.between(0.0001, 0.0003))) / length,
      right: (chance.pick([-1, 1]) * own(chance.between(0.0001, 0.0003))) / length,
    },
    rotary: rotaryOf(machine, chance, { x: middle('X'), y: middle('Y') }, top),
    setter: options.setter ? setterBeside(frame, jawTop + chance.within(own(0.2)), own) : null,
  }
}

/** A lathe by its seed: the bar, and where its tools really stand in the turret. */
export function latheWorld(seed: number, options: WorldOptions): LatheWorld {
  const { machine } = options
  const { unit } = machine
  const own = (inch: number) => convertLength(inch, 'inch', unit)
  const chance = dice(seed)
  const tools = (options.tools ?? [])
    .map((tool) => toolIn(tool, unit))
    .map((shape) => ({
      shape,
      length: 0,
      geometry: {
        X: machine.axes.X.least + own(1.2) + chance.within(own(0.6)),
        Z: machine.axes.Z.least + own(1.5) + chance.within(own(0.8)),
      },
    }))
  return {
    kind: 'lathe',
    seed,
    machine,
    profile: options.profile ?? COMPACT,
    unit,
    tools,
    bar: {
      diameter: own(chance.pick([1, 1.25, 1.5, 1.75])) + chance.within(own(0.006)),
      face: own(chance.between(2.2, 3.4)),
    },
  }
}

/** The true place of part zero of a mill: the block's front left corner and its top, and how it lies, in degrees. */
export function partZeroOf({ block }: MillWorld, frame: Frame) {
  const corner = fromFrame(frame, { x: block.x, y: -block.size.y })
  return { X: corner.x, Y: corner.y, Z: block.top, angle: (frame.angle * 180) / Math.PI }
}

/** The true middle of the block's top. */
export function blockMiddle({ block }: MillWorld, frame: Frame) {
  const { x, y } = fromFrame(frame, { x: block.x + block.size.x / 2, y: -block.size.y / 2 })
  return { X: x, Y: y, Z: block.top }
}

/** The block as a box in the frame of the vise. */
export const blockOf = ({ block }: MillWorld): Standing => ({
  id: 'block',
  name: 'part',
  role: 'part',
  rect: { x0: block.x, x1: block.x + block.size.x, y0: -block.size.y, y1: 0 },
  bottom: block.top - block.size.z,
  top: block.top,
})

/** The gauge block that is held against a side of the block. */
export function heldBlock(world: MillWorld, side: HeldAgainst): Standing {
  const { rect } = blockOf(world)
  const own = (inch: number) => convertLength(inch, 'inch', world.unit)
  const [thick, half] = [own(0.4), own(0.75)]
  const middle = { x: (rect.x0 + rect.x1) / 2, y: (rect.y0 + rect.y1) / 2 }
  const across = { x0: middle.x - half, x1: middle.x + half, y0: middle.y - half, y1: middle.y + half }
  const rects: Record<HeldAgainst, Rect> = {
    'X-': { ...across, x0: rect.x0 - thick, x1: rect.x0 },
    'X+': { ...across, x0: rect.x1, x1: rect.x1 + thick },
    'Y-': { ...across, y0: rect.y0 - thick, y1: rect.y0 },
    'Y+': { ...across, y0: rect.y1, y1: rect.y1 + thick },
  }
  return {
    id: 'held',
    name: 'gauge block',
    role: 'stop',
    rect: rects[side],
    bottom: world.block.top - own(0.5),
    top: world.block.top + own(0.9),
  }
}
