import type { LinearAxis } from '../machine/index.ts'
import { travelIn } from '../machine/index.ts'
import { isArc, type Motion, type ReadOptions, ROW, read, readSteps } from '../program/index.ts'
import {
  alongRow,
  type Body,
  findHits,
  type Hit,
  pathOf,
  pressOf,
  rowsOfBlock,
  type Triple,
} from '../prove/index.ts'
import { convertLength, formatLength } from '../quantity/index.ts'
import { cycleTime, type MachineSpeeds, speedsOf } from '../timing/index.ts'
import { isMillBench, type MillBench, standing } from './contact.ts'
import { isLatheBench, type LatheBench } from './lathe.ts'
import { intoFrame } from './plan-geometry.ts'
import type { ProgramRun, RunPlan } from './run-plan.ts'
import type { Bench } from './state.ts'
import { blockOf, partZeroOf } from './world.ts'

/**
 * Where the motion's frame lies for a tool: what to add for the machine position of spindle or turret. Where no offset is
 * called yet (a lathe before its first tool) the reader takes home to be half a travel away.
 */
function commanded({ world }: Bench, motion: Motion, row: number): Triple {
  const { machine } = world
  const shift = motion.states[motion.state[row] as number]?.toMachine ?? [Number.NaN, Number.NaN, Number.NaN]
  const along = (axis: LinearAxis, own: number) => {
    const travel = machine.axes[axis]
    if (!Number.isNaN(own) || !travel) return Number.isNaN(own) ? 0 : own
    const radius = machine.kind === 'lathe' && axis === 'X' ? 0.5 : 1
    return (machine.home[axis] - (travel.greatest - travel.least) / 2) * radius
  }
  return [along('X', shift[0]), along('Y', shift[1]), along('Z', shift[2])]
}

/** A program that runs longer is not taken: others work at this server meanwhile. */
const MOST_BLOCKS = 60_000

/** The offset whose part zero the motion counts from. */
const frameOf = ({ world }: Bench) => world.profile.offsets.standard[0] ?? 'G54'

/** From the machine position of spindle or turret to the true place of the tip, from the true part zero. */
function tipFrom(bench: Bench, tool: number): (at: Triple) => Triple {
  if (isMillBench(bench)) {
    const { world, vise } = bench
    const length = world.tools.find(({ shape }) => shape.number === tool)?.length ?? 0
    const zero = partZeroOf(world, vise.frame)
    const frame = { x: zero.X, y: zero.Y, angle: vise.frame.angle }
    return ([x, y, z]) => {
      const spot = intoFrame(frame, { x, y })
      return [spot.x, spot.y, z - length - zero.Z]
    }
  }
  const lathe = bench as LatheBench
  const geometry = lathe.world.tools.find(({ shape }) => shape.number === tool)?.geometry
  return ([x, y, z]) => [x - (geometry?.X ?? 0) / 2, y, z - (geometry?.Z ?? 0) - lathe.bar.face]
}

/** The motion moved to where the tool really goes. Arcs turn with it; only those in XY are exact where the part lies turned. */
function asItReallyGoes(bench: Bench, motion: Motion): Motion {
  const [x, y, z] = [motion.x.slice(), motion.y.slice(), motion.z.slice()]
  const arcs = motion.arcs.slice()
  const place = (row: number, at: Triple): Triple => {
    const shift = commanded(bench, motion, row)
    const tool = motion.states[motion.state[row] as number]?.tool ?? 0
    return tipFrom(bench, tool)([at[0] + shift[0], at[1] + shift[1], at[2] + shift[2]])
  }
  for (let row = 0; row < motion.count; row++) {
    const to = place(row, [motion.x[row] as number, motion.y[row] as number, motion.z[row] as number])
    x[row] = to[0]
    y[row] = to[1]
    z[row] = to[2]
    if (!isArc(motion.kind[row] as number)) continue
    const base = 6 * (motion.aux[row] as number)
    const centre = place(row, [arcs[base] as number, arcs[base + 1] as number, arcs[base + 2] as number])
    arcs.set(centre, base)
  }
  return { ...motion, x, y, z, arcs, start: motion.count > 0 ? place(0, motion.start) : motion.start }
}

/** What stands on the machine as Prove sees it, from the true part zero. */
export function trueBodies(bench: Bench): Body[] {
  if (isMillBench(bench)) {
    const { rect, top } = blockOf(bench.world)
    return standing(bench).map((body) => ({
      id: body.id,
      name: body.name,
      role: body.role,
      shape: 'box',
      at: { x: body.rect.x0 - rect.x0, y: body.rect.y0 - rect.y0, z: body.bottom - top },
      size: {
        x: body.rect.x1 - body.rect.x0,
        y: body.rect.y1 - body.rect.y0,
        z: body.top - body.bottom,
      },
    }))
  }
  const { bar } = bench as LatheBench
  return [
    {
      id: 'bar',
      name: 'part',
      role: 'part',
      shape: 'cylinder',
      axis: 'Z',
      at: { x: 0, y: 0, z: -bar.face },
      diameter: bar.diameter,
      length: bar.face,
    },
    {
      id: 'chuck',
      name: 'chuck',
      role: 'chuck',
      shape: 'cylinder',
      axis: 'Z',
      at: { x: 0, y: 0, z: -bar.face - 2 * bar.diameter },
      diameter: 4 * bar.diameter,
      length: 2 * bar.diameter,
    },
  ]
}

/** What probing meets: the true part, seen from where the control believes that it is. */
function metByProbing(bench: MillBench) {
  const { world, vise } = bench
  const zero = partZeroOf(world, vise.frame)
  const frame = { x: zero.X, y: zero.Y, angle: vise.frame.angle }
  const keyed = bench.offsets[frameOf(bench)] ?? {}
  const probe = world.machine.probe?.tool
  const tool = world.tools.find(({ shape }) => shape.number === probe)
  const longer = probe === undefined ? 0 : (tool?.length ?? 0) - (bench.lengths[probe] ?? 0)
  const { size } = world.block
  return {
    strict: true,
    holds: (x: number, y: number, z: number) => {
      const spot = intoFrame(frame, { x: x + (keyed.X ?? 0), y: y + (keyed.Y ?? 0) })
      const height = z + (keyed.Z ?? 0) - longer - zero.Z
      return (
        spot.x >= 0 && spot.x <= size.x && spot.y >= 0 && spot.y <= size.y && height >= -size.z && height <= 0
      )
    },
  }
}

/** Axes that leave the travel in a row, or whose machine position nobody can tell. */
function leavesTravel(bench: Bench, motion: Motion, row: number): string | undefined {
  const { machine, unit } = bench.world
  const shift = commanded(bench, motion, row)
  const lathe = machine.kind === 'lathe'
  const places = [motion.x[row], motion.y[row], motion.z[row]] as number[]
  for (const [index, axis] of (['X', 'Y', 'Z'] as const).entries()) {
    if (!machine.axes[axis]) continue
    const at = ((places[index] as number) + (shift[index] as number)) * (lathe && axis === 'X' ? 2 : 1)
    const { least, greatest } = travelIn(machine, axis, unit)
    if (at < least - machine.leastStep || at > greatest + machine.leastStep)
      return `${axis} would leave its travel: machine ${axis} ${formatLength(at, unit)}.`
  }
  return undefined
}

/** How far along a row, as a share of its length, a place of its path lies. */
function shareOf(motion: Motion, row: number, at: Triple, speeds: MachineSpeeds): number {
  const path = pathOf(motion, row, speeds)
  const gap = (a: Triple, b: Triple) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2])
  const lengths = path.slice(1).map((point, n) => gap(point, path[n] as Triple))
  const whole = lengths.reduce((sum, each) => sum + each, 0)
  let [best, share, before] = [Number.POSITIVE_INFINITY, 1, 0]
  for (const [n, length] of lengths.entries()) {
    const [a, b] = [path[n], path[n + 1]] as [Triple, Triple]
    const t =
      length === 0
        ? 0
        : Math.max(
            0,
            Math.min(
              1,
              ((at[0] - a[0]) * (b[0] - a[0]) +
                (at[1] - a[1]) * (b[1] - a[1]) +
                (at[2] - a[2]) * (b[2] - a[2])) /
                (length * length),
            ),
          )
    const off = gap(at, [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]), a[2] + t * (b[2] - a[2])])
    if (off < best - 1e-9) [best, share] = [off, whole === 0 ? 0 : (before + t * length) / whole]
    before += length
  }
  return share
}

/** Offsets that the program itself writes, line by line. */
function offsetLoads(text: string, options: ReadOptions): RunPlan['loads'] {
  const loads = new Map<number, { offset: string; axes: Partial<Record<LinearAxis, number>> }>()
  const { loadOffset, offsets } = options.profile
  if (!loadOffset || !text.toUpperCase().includes(loadOffset.code)) return loads
  const { steps, unit = options.unit } = readSteps(text, options)
  for (const step of steps) {
    if (step.does !== 'load-offset') continue
    const { l, p, axes, line } = step
    const offset =
      l === loadOffset.standardL
        ? offsets.standard[p - 1]
        : offsets.extended && `${offsets.extended.code} P${p}`
    const own = Object.fromEntries(
      Object.entries(axes).map(([axis, value]) => [axis, convertLength(value, unit, options.unit)]),
    )
    if (offset) loads.set(line, { offset, axes: own })
  }
  return loads
}

const hitWords = ({ body, part }: Hit, tool: number) => `the ${part} of T${tool} met the ${body.name}`

/**
 * Reads a program against what is keyed in, and works out where it really goes: the tip stands where spindle or turret
 * is, less the true length, whatever the table says; the part lies where it lies.
 */
export function planRun(bench: Bench, text: string): RunPlan {
  const { world } = bench
  const { machine, profile, unit, tools } = world
  const standard = profile.offsets.standard.map((name): [string, Partial<Record<LinearAxis, number>>] => [
    name,
    { X: 0, Y: 0, Z: 0, ...bench.offsets[name] },
  ])
  const others = Object.entries(bench.offsets).filter(([name]) => !profile.offsets.standard.includes(name))
  const geometry = tools.map(({ shape }): [string, Partial<Record<LinearAxis, number>>] => [
    `T${shape.number}`,
    { X: 0, Z: 0, ...bench.offsets[`T${shape.number}`] },
  ])
  const options: ReadOptions = {
    mostBlocks: MOST_BLOCKS,
    profile,
    machine,
    unit,
    frame: frameOf(bench),
    offsets: new Map([...standard, ...others, ...(machine.kind === 'lathe' ? geometry : [])]),
    lengths: new Map(tools.map(({ shape }) => [shape.number, bench.lengths[shape.number] ?? 0])),
    ...(isMillBench(bench) ? { standIn: metByProbing(bench) } : {}),
  }
  const program = read(text, options)
  const { motion } = program
  const speeds = speedsOf(machine, profile, unit)
  const really = asItReallyGoes(bench, motion)
  const bodies = trueBodies(bench)
  const shapes = new Map(tools.map(({ shape }) => [shape.number, shape]))
  const found = findHits({ motion: really, bodies, tools: shapes, speeds, lathe: machine.kind === 'lathe' })
  const hits = new Map<number, { share: number; says: string }>()
  for (const hit of found) {
    const tool = motion.states[motion.state[hit.row] as number]?.tool ?? 0
    // A turret without a tool at work has no tip.
    if (machine.kind === 'lathe' && !shapes.has(tool)) continue
    const share = shareOf(really, hit.row, hit.at, speeds)
    const known = hits.get(hit.row)
    if (!known || share < known.share) hits.set(hit.row, { share, says: hitWords(hit, tool) })
  }
  const refused = new Map<number, string>()
  for (const { severity, line, says } of program.diagnostics) {
    if (severity !== 'stop') continue
    const row = motion.line.indexOf(line)
    if (row >= 0 && !refused.has(row)) refused.set(row, says)
  }
  for (let row = 0; row < motion.count; row++) {
    const says = motion.kind[row] === ROW.EVENT ? undefined : leavesTravel(bench, motion, row)
    if (says) {
      if (!refused.has(row)) refused.set(row, says)
      break
    }
  }
  return {
    text,
    program,
    motion,
    seconds: cycleTime(motion, speeds).rows,
    speeds,
    really,
    bodies,
    hits,
    loads: offsetLoads(text, options),
    refused,
  }
}

/** Where the tip is along a row of the control's motion, after so many of its seconds. */
function along({ motion, seconds, speeds }: RunPlan, row: number, into: number): Triple {
  const whole = seconds[row] ?? 0
  return alongRow(motion, row, whole > 0 ? Math.min(1, into / whole) : 1, speeds)
}

/** The machine position of spindle or turret while a row runs; on a lathe X as a diameter. */
export function placeOf(bench: Bench, { row, into }: ProgramRun): Record<LinearAxis, number> | undefined {
  const { plan } = bench
  if (!plan || plan.motion.count === 0 || row >= plan.motion.count) return undefined
  const at = along(plan, row, into)
  const shift = commanded(bench, plan.motion, row)
  const twice = isLatheBench(bench) ? 2 : 1
  return {
    X: (at[0] + shift[0]) * twice,
    Y: at[1] + shift[1],
    Z: at[2] + shift[2],
  }
}

/** Distance to go: of the move that runs, or of the first that the next press makes. X of a lathe as a diameter. */
export function distanceToGo(bench: Bench): Triple | undefined {
  const { plan, run } = bench
  if (!plan || !run || run.phase === 'done') return undefined
  const { motion } = plan
  // Under way, or stopped within a move: by an alarm.
  if (run.phase === 'running' || run.phase === 'held' || run.into > 0) {
    if (motion.kind[run.row] === ROW.EVENT) return [0, 0, 0]
    const at = along(plan, run.row, run.into)
    const twice = isLatheBench(bench) ? 2 : 1
    return [
      ((motion.x[run.row] as number) - at[0]) * twice,
      (motion.y[run.row] as number) - at[1],
      (motion.z[run.row] as number) - at[2],
    ]
  }
  return nextPress(bench)?.toGo
}

/** What the next press of cycle start does, as the control and the operator see it. */
export function nextPress(bench: Bench) {
  const { plan, run, world } = bench
  if (!plan || !run || run.block >= plan.motion.blocks) return undefined
  return pressOf(
    {
      motion: plan.motion,
      unit: world.unit,
      speeds: plan.speeds,
      lathe: world.kind === 'lathe',
      top: undefined,
    },
    run.block,
  )
}

/** The rows of the block that a run is in. */
export const blockRows = ({ motion }: RunPlan, block: number) => rowsOfBlock(motion, block)
