import { axesOf, USUAL_RAPID_MARKS } from '../machine/index.ts'
import { digitsOfStep, type LengthUnit, roundTo } from '../quantity/index.ts'
import {
  frameOfBody,
  hardPieces,
  isMill,
  pressed,
  type SimulatedMill,
  softPiece,
  standing,
  tipSpot,
  tipZ,
} from './contact.ts'
import { finderOf } from './devices.ts'
import { dialOf } from './dial.ts'
import { isLathe, tipOnLathe } from './lathe.ts'
import { isFinding } from './mill.ts'
import { fromFrame } from './plan-geometry.ts'
import { hasRotary, lying, onRotary } from './rotary.ts'
import { distanceToGo, nextPress } from './run.ts'
import { type Across, flatEnds } from './section.ts'
import type { SimulatedState } from './state.ts'
import type { SeenBody, SimulatedView } from './view-schema.ts'
import { type Standing, trueTool, trueTools } from './world.ts'

/** How well the eye sees where something stands, in the unit of the machine: places are told no better. By judgement. */
const EYE: Record<LengthUnit, number> = { inch: 0.02, mm: 0.5 }

/** A value to the last digit of what shows it. */
const shown = (value: number, step: number) => roundTo(Math.round(value / step) * step, digitsOfStep(step))

/** Machine positions as the control shows them, to its last digit. */
export const positionsShown = ({ world: { machine }, at }: SimulatedState): SimulatedView['positions'] =>
  Object.fromEntries(axesOf(machine).map((axis) => [axis, shown(at[axis], machine.leastStep)]))

/** What a presetter says of a tool: its true length to the last digit of the display. */
function presetLength(simulated: SimulatedState, number: number): number | null {
  const tool = trueTool(simulated.world, number)
  if (!tool || simulated.world.kind === 'lathe') return null
  return shown(tool.length, simulated.world.machine.leastStep)
}

function mountedView(simulated: SimulatedState): SimulatedView['mounted'] {
  const { mounted, world } = simulated
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
      length: presetLength(simulated, mounted.tool),
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
    touching: isMill(simulated) && pressed(simulated).depth > 0,
    harmed: mounted.harmed?.says ?? null,
    looks: finder.kind === 'indicator' ? mounted.looks : null,
    triggered: mounted.triggered && {
      axis: mounted.triggered.axis,
      at: shown(mounted.triggered.at, world.machine.leastStep),
    },
  }
}

function seenUpright(simulated: SimulatedMill, body: Standing, near: (value: number) => number): SeenBody {
  const { id, name, role, rect, bottom, top } = body
  const { x0, x1, y0, y1 } = rect
  const corners = [
    { x: x0, y: y0 },
    { x: x1, y: y0 },
    { x: x1, y: y1 },
    { x: x0, y: y1 },
  ].map((corner) => {
    const at = fromFrame(frameOfBody(simulated, body), corner)
    return { x: near(at.x), y: near(at.y) }
  })
  return { id, name, role, corners, bottom: near(bottom), top: near(top) }
}

const seenLying = (simulated: SimulatedState, near: (value: number) => number): SeenBody[] =>
  lying(simulated).map(({ id, name, role, x0, x1, section: { middle, radius } }) => {
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

function seenOnTable(simulated: SimulatedState): SimulatedView['seen'] {
  if (!isMill(simulated)) return null
  const eye = EYE[simulated.world.unit]
  const near = (value: number) => shown(value, eye)
  const spot = tipSpot(simulated)
  const { mounted } = simulated
  const tool =
    mounted.kind === 'tool' && simulated.world.tools.find(({ shape }) => shape.number === mounted.tool)
  const soft = softPiece(simulated)
  return {
    pieces: [...(soft ? [{ ...soft, from: 0 }] : []), ...hardPieces(simulated)].map(
      ({ radius, from, to }) => ({
        radius,
        from,
        to,
      }),
    ),
    bodies: [
      ...seenLying(simulated, near),
      ...standing(simulated).map((body) => seenUpright(simulated, body, near)),
    ],
    spindle: { x: simulated.at.X, y: simulated.at.Y },
    tip: { x: near(spot.x), y: near(spot.y) },
    tipZ: near(tipZ(simulated)),
    tipRadius: isFinding(mounted)
      ? finderOf(mounted.kind, simulated.world.unit).tip
      : tool
        ? tool.shape.diameter / 2
        : 0,
  }
}

/** Across the rotary as an eye tells it. */
function seenFromEnd(simulated: SimulatedState): SimulatedView['end'] {
  if (!onRotary(simulated) || !isMill(simulated)) return null
  const near = (value: number) => shown(value, EYE[simulated.world.unit])
  const place = ({ y, z }: Across) => ({ y: near(y), z: near(z) })
  return {
    round: lying(simulated)
      .toReversed()
      .map(({ id, role, section }) => ({
        id,
        role,
        middle: place(section.middle),
        radius: near(section.radius),
        flat: (flatEnds(section) ?? []).map(place),
      })),
    tip: place({ y: tipSpot(simulated).y, z: tipZ(simulated) }),
  }
}

function seenBar(simulated: SimulatedState): SimulatedView['bar'] {
  if (!isLathe(simulated)) return null
  const near = (value: number) => shown(value, EYE[simulated.world.unit])
  const { bar } = simulated
  const tip = tipOnLathe(simulated)
  return {
    diameter: near(bar.diameter),
    face: near(bar.face),
    turned: bar.turned && { diameter: near(bar.turned.diameter), to: near(bar.turned.to) },
    tip: tip ? { X: near(tip.X), Z: near(tip.Z) } : null,
  }
}

function runView(simulated: SimulatedState): SimulatedView['run'] {
  const { run, plan } = simulated
  if (!run || !plan) return null
  const { into: _, ...rest } = run
  const toGo = distanceToGo(simulated)
  const step = simulated.world.machine.leastStep
  return {
    ...rest,
    blocks: plan.motion.blocks,
    line: plan.motion.blockLine[Math.min(run.block, plan.motion.blocks - 1)] ?? 1,
    toGo: toGo ? [shown(toGo[0], step), shown(toGo[1], step), shown(toGo[2], step)] : null,
    next:
      run.phase === 'running' || run.phase === 'held' || simulated.alarm
        ? null
        : (nextPress(simulated)?.says ?? null),
  }
}

/** What is to be seen of a simulated machine: positions, dial, lights, what stands on it to the eye. */
export function viewOf(simulated: SimulatedState): SimulatedView {
  const { world } = simulated
  const { machine } = world
  const step = machine.leastStep
  const dial = isMill(simulated) ? dialOf(simulated) : undefined
  const finder = isFinding(simulated.mounted) ? finderOf(simulated.mounted.kind, world.unit) : undefined
  return {
    kind: machine.kind,
    name: machine.name,
    unit: world.unit,
    leastStep: step,
    rapidMarks: machine.rapidMarks ?? USUAL_RAPID_MARKS,
    axes: axesOf(machine),
    positions: positionsShown(simulated),
    rpm: Math.round(simulated.rpm),
    mounted: mountedView(simulated),
    dial:
      dial === undefined || !finder
        ? null
        : { value: shown(dial, finder.dialStep), step: finder.dialStep, gives: finder.gives },
    measured:
      simulated.measured === null ? null : shown(simulated.measured, world.unit === 'inch' ? 0.0001 : 0.001),
    partIn: simulated.partIn,
    setter: isMill(simulated) && standing(simulated).some(({ fixed }) => fixed),
    vise:
      simulated.vise && world.kind === 'mill'
        ? {
            left: simulated.vise.left,
            right: simulated.vise.right,
            length: world.vise.length,
            pivots: world.vise.pivots,
          }
        : null,
    held: simulated.held,
    alarm: simulated.alarm,
    says: simulated.says,
    rotary:
      hasRotary(simulated) && simulated.turn
        ? { word: simulated.world.rotary.word, shown: simulated.turn.shown, onTable: onRotary(simulated) }
        : null,
    end: seenFromEnd(simulated),
    seen: seenOnTable(simulated),
    bar: seenBar(simulated),
    tools: trueTools(world)
      .toSorted((a, b) => a.shape.number - b.shape.number)
      .map(({ shape: { number, name } }) => ({
        number,
        name,
        length: presetLength(simulated, number),
      })),
    offsets: simulated.offsets,
    rotaryZeros: simulated.rotaryZeros,
    lengths: simulated.lengths,
    variables: simulated.variables,
    run: runView(simulated),
    tally: simulated.tally,
    worked: simulated.worked,
  }
}
