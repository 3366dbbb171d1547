import { axesOf, type LinearAxis, type MachineKind, USUAL_RAPID_MARKS } from '../machine/index.ts'
import { digitsOfStep, type LengthUnit, roundTo } from '../quantity/index.ts'
import {
  frameOfBody,
  hardPieces,
  isMillBench,
  type MillBench,
  pressed,
  softPiece,
  standing,
  tipSpot,
  tipZ,
} from './contact.ts'
import { type FinderKind, finderOf } from './devices.ts'
import { dialOf } from './dial.ts'
import { isLatheBench, tipOnLathe } from './lathe.ts'
import { isFinding } from './mill.ts'
import { fromFrame, type Spot } from './plan-geometry.ts'
import { hasRotary, lying, onRotary } from './rotary.ts'
import { distanceToGo, nextPress } from './run.ts'
import type { ProgramRun } from './run-plan.ts'
import { type Across, flatEnds } from './section.ts'
import type { Alarm, Bench, BoltState, Looks } from './state.ts'
import { type HeldAgainst, type Standing, trueTool, trueTools } from './world.ts'

/** How well the eye sees where something stands, in the unit of the machine: places are told no better. By judgement. */
const EYE: Record<LengthUnit, number> = { inch: 0.02, mm: 0.5 }

/** A body in plan as the eye sees it. */
export interface SeenBody {
  id: string
  name: string
  role: string
  corners: readonly Spot[]
  bottom: number
  top: number
}

/** What an operator sees and reads at the simulated machine. Lengths in its unit; nothing in it tells what is hidden. */
export interface BenchView {
  kind: MachineKind
  name: string
  unit: LengthUnit
  leastStep: number
  /** Marks of the rapid override, per cent. */
  rapidMarks: readonly number[]
  axes: readonly LinearAxis[]
  /** As the control shows them, to its last digit. */
  positions: Partial<Record<LinearAxis, number>>
  rpm: number
  mounted: {
    kind: FinderKind | 'tool' | 'nothing'
    tool: number | null
    name: string
    /** From the gauge line, where it is known: of a device as its label says, of a tool as it was measured. */
    length: number | null
    diameter: number | null
    kicked: boolean
    /** Pressed against something. */
    touching: boolean
    harmed: string | null
    looks: Looks | null
    triggered: { axis: LinearAxis; at: number } | null
  }
  /** What the dial shows, to its last digit; null where there is none. */
  dial: { value: number; step: number; gives: number } | null
  /** What the micrometer showed last; null before. */
  measured: number | null
  partIn: boolean
  /** A tool can be sought down on a setter. */
  setter: boolean
  vise: { left: BoltState; right: BoltState; length: number; pivots: { left: number; right: number } } | null
  held: HeldAgainst | null
  alarm: Alarm | null
  says: string
  /** What stands on the table, and the tip, as the eye sees it. Null on a lathe. */
  seen: {
    bodies: SeenBody[]
    spindle: Spot
    tip: Spot
    tipZ: number
    tipRadius: number
    /** What is in the spindle, from the tip up: radius, and from where to where. */
    pieces: readonly { radius: number; from: number; to: number }[]
  } | null
  /** The rotary of a mill that has one. */
  rotary: { word: 'A' | 'B' | 'C'; shown: number; onTable: boolean } | null
  /** Across the rotary's axis as the eye sees it, from the right end: Y to the right, Z up. Null where it is not on the table. */
  end: {
    round: readonly { id: string; role: string; middle: Across; radius: number; flat: readonly Across[] }[]
    tip: Across
  } | null
  /** The bar as the eye sees it, from the chuck's face, and the tip of the tool. Null on a mill. */
  bar: {
    diameter: number
    face: number
    turned: { diameter: number; to: number } | null
    tip: { X: number; Z: number } | null
  } | null
  tools: readonly { number: number; name: string; length: number | null }[]
  offsets: Bench['offsets']
  rotaryZeros: Bench['rotaryZeros']
  lengths: Bench['lengths']
  /** Common variables that programs have set, as the macro page shows them. */
  variables: Bench['variables']
  run:
    | (Omit<ProgramRun, 'into'> & {
        blocks: number
        line: number
        toGo: readonly [number, number, number] | null
        /** What the next press does, in a sentence. */
        next: string | null
      })
    | null
  tally: Bench['tally']
  worked: number
}

/** A value to the last digit of what shows it. */
const shown = (value: number, step: number) => roundTo(Math.round(value / step) * step, digitsOfStep(step))

/** Machine positions as the control shows them, to its last digit. */
export const positionsShown = ({ world: { machine }, at }: Bench): BenchView['positions'] =>
  Object.fromEntries(axesOf(machine).map((axis) => [axis, shown(at[axis], machine.leastStep)]))

/** What a presetter says of a tool: its true length to the last digit of the display. */
function presetLength(bench: Bench, number: number): number | null {
  const tool = trueTool(bench.world, number)
  if (!tool || bench.world.kind === 'lathe') return null
  return shown(tool.length, bench.world.machine.leastStep)
}

function mountedView(bench: Bench): BenchView['mounted'] {
  const { mounted, world } = bench
  const none = {
    tool: null,
    length: null,
    diameter: null,
    kicked: false,
    touching: false,
    harmed: null,
    looks: null,
    triggered: null,
  }
  if (mounted.kind === 'nothing') return { ...none, kind: 'nothing', name: 'nothing' }
  if (mounted.kind === 'tool') {
    const shape = world.tools.find((tool) => tool.shape.number === mounted.tool)?.shape
    return {
      ...none,
      kind: 'tool',
      tool: mounted.tool,
      name: shape?.name ?? `T${mounted.tool}`,
      length: presetLength(bench, mounted.tool),
    }
  }
  const finder = finderOf(mounted.kind, world.unit)
  return {
    ...none,
    kind: finder.kind,
    name: finder.name,
    length: finder.kind === 'indicator' ? null : finder.length,
    diameter: finder.kind === 'indicator' ? null : finder.kind === 'sensor' ? 0 : 2 * finder.tip,
    kicked: mounted.kicked,
    touching: isMillBench(bench) && pressed(bench).depth > 0,
    harmed: mounted.harmed?.says ?? null,
    looks: finder.kind === 'indicator' ? mounted.looks : null,
    triggered: mounted.triggered && {
      axis: mounted.triggered.axis,
      at: shown(mounted.triggered.at, world.machine.leastStep),
    },
  }
}

function seenUpright(bench: MillBench, body: Standing, near: (value: number) => number): SeenBody {
  const { id, name, role, rect, bottom, top } = body
  const { x0, x1, y0, y1 } = rect
  const corners = [
    { x: x0, y: y0 },
    { x: x1, y: y0 },
    { x: x1, y: y1 },
    { x: x0, y: y1 },
  ].map((corner) => {
    const at = fromFrame(frameOfBody(bench, body), corner)
    return { x: near(at.x), y: near(at.y) }
  })
  return { id, name, role, corners, bottom: near(bottom), top: near(top) }
}

const seenLying = (bench: Bench, near: (value: number) => number): SeenBody[] =>
  lying(bench).map(({ id, name, role, x0, x1, section: { middle, radius } }) => {
    const [left, right, front, back] = [x0, x1, middle.y - radius, middle.y + radius].map(near) as [
      number,
      number,
      number,
      number,
    ]
    return {
      id,
      name,
      role,
      corners: [
        { x: left, y: front },
        { x: right, y: front },
        { x: right, y: back },
        { x: left, y: back },
      ],
      bottom: near(middle.z - radius),
      top: near(middle.z + radius),
    }
  })

function seenOnTable(bench: Bench): BenchView['seen'] {
  if (!isMillBench(bench)) return null
  const eye = EYE[bench.world.unit]
  const near = (value: number) => shown(value, eye)
  const spot = tipSpot(bench)
  const { mounted } = bench
  const tool = mounted.kind === 'tool' && bench.world.tools.find(({ shape }) => shape.number === mounted.tool)
  const soft = softPiece(bench)
  return {
    pieces: [...(soft ? [{ ...soft, from: 0 }] : []), ...hardPieces(bench)].map(({ radius, from, to }) => ({
      radius,
      from,
      to,
    })),
    bodies: [...seenLying(bench, near), ...standing(bench).map((body) => seenUpright(bench, body, near))],
    spindle: { x: bench.at.X, y: bench.at.Y },
    tip: { x: near(spot.x), y: near(spot.y) },
    tipZ: near(tipZ(bench)),
    tipRadius: isFinding(mounted)
      ? finderOf(mounted.kind, bench.world.unit).tip
      : tool
        ? tool.shape.diameter / 2
        : 0,
  }
}

/** Across the rotary as an eye tells it. */
function seenFromEnd(bench: Bench): BenchView['end'] {
  if (!onRotary(bench) || !isMillBench(bench)) return null
  const near = (value: number) => shown(value, EYE[bench.world.unit])
  const place = ({ y, z }: Across) => ({ y: near(y), z: near(z) })
  return {
    round: lying(bench)
      .toReversed()
      .map(({ id, role, section }) => ({
        id,
        role,
        middle: place(section.middle),
        radius: near(section.radius),
        flat: (flatEnds(section) ?? []).map(place),
      })),
    tip: place({ y: tipSpot(bench).y, z: tipZ(bench) }),
  }
}

function seenBar(bench: Bench): BenchView['bar'] {
  if (!isLatheBench(bench)) return null
  const near = (value: number) => shown(value, EYE[bench.world.unit])
  const { bar } = bench
  const tip = tipOnLathe(bench)
  return {
    diameter: near(bar.diameter),
    face: near(bar.face),
    turned: bar.turned && { diameter: near(bar.turned.diameter), to: near(bar.turned.to) },
    tip: tip ? { X: near(tip.X), Z: near(tip.Z) } : null,
  }
}

function runView(bench: Bench): BenchView['run'] {
  const { run, plan } = bench
  if (!run || !plan) return null
  const { into: _, ...rest } = run
  const toGo = distanceToGo(bench)
  const step = bench.world.machine.leastStep
  return {
    ...rest,
    blocks: plan.motion.blocks,
    line: plan.motion.blockLine[Math.min(run.block, plan.motion.blocks - 1)] ?? 1,
    toGo: toGo ? [shown(toGo[0], step), shown(toGo[1], step), shown(toGo[2], step)] : null,
    next:
      run.phase === 'running' || run.phase === 'held' || bench.alarm
        ? null
        : (nextPress(bench)?.says ?? null),
  }
}

/** What is to be seen of a simulated machine: positions, dial, lights, what stands on it to the eye. */
export function viewOf(bench: Bench): BenchView {
  const { world } = bench
  const { machine } = world
  const step = machine.leastStep
  const dial = isMillBench(bench) ? dialOf(bench) : undefined
  const finder = isFinding(bench.mounted) ? finderOf(bench.mounted.kind, world.unit) : undefined
  return {
    kind: machine.kind,
    name: machine.name,
    unit: world.unit,
    leastStep: step,
    rapidMarks: machine.rapidMarks ?? USUAL_RAPID_MARKS,
    axes: axesOf(machine),
    positions: positionsShown(bench),
    rpm: Math.round(bench.rpm),
    mounted: mountedView(bench),
    dial:
      dial === undefined || !finder
        ? null
        : { value: shown(dial, finder.dialStep), step: finder.dialStep, gives: finder.gives },
    measured: bench.measured === null ? null : shown(bench.measured, world.unit === 'inch' ? 0.0001 : 0.001),
    partIn: bench.partIn,
    setter: isMillBench(bench) && standing(bench).some(({ fixed }) => fixed),
    vise:
      bench.vise && world.kind === 'mill'
        ? {
            left: bench.vise.left,
            right: bench.vise.right,
            length: world.vise.length,
            pivots: world.vise.pivots,
          }
        : null,
    held: bench.held,
    alarm: bench.alarm,
    says: bench.says,
    rotary:
      hasRotary(bench) && bench.turn
        ? { word: bench.world.rotary.word, shown: bench.turn.shown, onTable: onRotary(bench) }
        : null,
    end: seenFromEnd(bench),
    seen: seenOnTable(bench),
    bar: seenBar(bench),
    tools: trueTools(world)
      .toSorted((a, b) => a.shape.number - b.shape.number)
      .map(({ shape: { number, name } }) => ({
        number,
        name,
        length: presetLength(bench, number),
      })),
    offsets: bench.offsets,
    rotaryZeros: bench.rotaryZeros,
    lengths: bench.lengths,
    variables: bench.variables,
    run: runView(bench),
    tally: bench.tally,
    worked: bench.worked,
  }
}
