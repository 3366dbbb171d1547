import type { LinearAxis } from '../machine/index.ts'
import { cutterRadii, insertNoses, travelIn } from '../machine/index.ts'
import {
  FLAG,
  type Motion,
  type OffsetWritten,
  type Program,
  type ReadOptions,
  ROW,
  read,
  type VariableSet,
} from '../program/index.ts'
import {
  aboveTool,
  alongRow,
  findHits,
  type Hit,
  pathOf,
  pressOf,
  rowsOfBlock,
  type Triple,
} from '../prove/index.ts'
import { formatLength } from '../quantity/index.ts'
import { cycleTime, type MachineSpeeds, speedsOf } from '../timing/index.ts'
import { isMill } from './contact.ts'
import { isLathe } from './lathe.ts'
import type { ProgramRun, RunPlan } from './run-plan.ts'
import type { SimulatedState } from './state.ts'
import { asItReallyGoes, commanded, frameOf, metByProbing, trueBodies } from './true-path.ts'
import { trueTools } from './world.ts'

/** A program that runs longer is not taken: others work at this server meanwhile. */
const MOST_BLOCKS = 60_000
/** Its rows and expressions: some 100,000 rows. In the units of the reader. */
const MOST_WORK = 2_500_000

/** Axes that leave the travel in a row, or whose machine position nobody can tell. */
function leavesTravel(simulated: SimulatedState, motion: Motion, row: number): string | undefined {
  const { machine, unit } = simulated.world
  const shift = commanded(simulated, motion, row)
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

/** What the blocks of a program write, by block. */
function writtenBy({ offsets, sets, lengths }: Program): RunPlan['written'] {
  const written = new Map<number, { offsets: OffsetWritten[]; sets: VariableSet[]; lengths: number[] }>()
  const of = (block: number) => {
    const known = written.get(block) ?? { offsets: [], sets: [], lengths: [] }
    written.set(block, known)
    return known
  }
  for (const each of offsets) of(each.block).offsets.push(each)
  for (const each of sets) of(each.block).sets.push(each)
  for (const { tool, block } of lengths) of(block).lengths.push(tool)
  return written
}

/** What is above the tool is the machine's, not the tool's. */
const hitWords = ({ body, part }: Hit, tool: number) =>
  part === 'nose' || part === 'head' || part === 'turret' || part === 'station'
    ? `the ${part === 'nose' ? 'spindle nose' : part} met the ${body.name} with T${tool} in place`
    : `the ${part} of T${tool} met the ${body.name}`

/**
 * Reads a program against what is keyed in, and works out where it really goes: the tip stands where spindle or turret
 * is, less the true length, whatever the table says; the part lies where it lies.
 */
export function planRun(simulated: SimulatedState, text: string): RunPlan {
  const { world } = simulated
  const { machine, profile, unit } = world
  const tools = trueTools(world)
  const standard = profile.offsets.standard.map((name): [string, Partial<Record<LinearAxis, number>>] => [
    name,
    { X: 0, Y: 0, Z: 0, ...simulated.offsets[name] },
  ])
  const others = Object.entries(simulated.offsets).filter(
    ([name]) => !profile.offsets.standard.includes(name),
  )
  const geometry = tools.map(({ shape }): [string, Partial<Record<LinearAxis, number>>] => [
    `T${shape.number}`,
    { X: 0, Z: 0, ...simulated.offsets[`T${shape.number}`] },
  ])
  const inserts = tools.map(({ shape }) => shape)
  const options: ReadOptions = {
    mostBlocks: MOST_BLOCKS,
    mostWork: MOST_WORK,
    profile,
    machine,
    unit,
    frame: frameOf(simulated),
    offsets: new Map([...standard, ...others, ...(machine.kind === 'lathe' ? geometry : [])]),
    lengths: new Map(tools.map(({ shape }) => [shape.number, simulated.lengths[shape.number] ?? 0])),
    radii: cutterRadii(inserts, unit),
    noses: insertNoses(inserts, unit),
    // On a lathe Z of the first offset is the work shift.
    ...(machine.kind === 'lathe'
      ? { workShift: simulated.offsets[profile.offsets.standard[0] ?? '']?.Z ?? 0 }
      : {}),
    rotaryZeros: new Map(
      [...profile.offsets.standard, ...Object.keys(simulated.rotaryZeros)].map((name) => [
        name,
        simulated.rotaryZeros[name] ?? 0,
      ]),
    ),
    ...(isMill(simulated) ? { standIn: metByProbing(simulated) } : {}),
  }
  const program = read(text, options)
  const { motion } = program
  const speeds = speedsOf(machine, profile, unit)
  const really = asItReallyGoes(simulated, motion)
  const bodies = trueBodies(simulated)
  const shapes = new Map(tools.map(({ shape }) => [shape.number, shape]))
  const lathe = machine.kind === 'lathe'
  const lengths = new Map(tools.map(({ shape, length }) => [shape.number, length]))
  const above = (tool: number) => aboveTool({ machine, unit, tools: shapes, lengths }, tool)
  const found = findHits({ motion: really, bodies, tools: shapes, speeds, lathe, above, atFull: true })
  const hits = new Map<number, { share: number; says: string }>()
  for (const hit of found) {
    const tool = motion.states[motion.state[hit.row] as number]?.tool ?? 0
    // A turret without a tool at work has no tip.
    if (lathe && !shapes.has(tool)) continue
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
    const says = motion.kind[row] === ROW.EVENT ? undefined : leavesTravel(simulated, motion, row)
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
    hits,
    written: writtenBy(program),
    rotaryZero: simulated.rotaryZeros[frameOf(simulated)] ?? 0,
    refused,
  }
}

/** Where the tip is along a row of the control's motion, after so many of its seconds. */
function along({ motion, seconds, speeds }: RunPlan, row: number, into: number): Triple {
  const whole = seconds[row] ?? 0
  return alongRow(motion, row, whole > 0 ? Math.min(1, into / whole) : 1, speeds)
}

/** The machine position of spindle or turret while a row runs; on a lathe X as a diameter. */
export function placeOf(
  simulated: SimulatedState,
  { row, into }: ProgramRun,
): Record<LinearAxis, number> | undefined {
  const { plan } = simulated
  if (!plan || plan.motion.count === 0 || row >= plan.motion.count) return undefined
  const at = along(plan, row, into)
  const shift = commanded(simulated, plan.motion, row)
  const twice = isLathe(simulated) ? 2 : 1
  return {
    X: (at[0] + shift[0]) * twice,
    Y: at[1] + shift[1],
    Z: at[2] + shift[2],
  }
}

/** Where a row sends the rotary, as the control shows it in degrees; nothing where it does not. */
export function turnOf({ plan }: SimulatedState, row: number): number | undefined {
  if (!plan) return undefined
  const { motion } = plan
  if (((motion.flags[row] as number) & (FLAG.ROTARY | FLAG.MAPPED)) === 0) return undefined
  // The motion counts from what was keyed in when the program began.
  return (motion.rotary?.[row] ?? 0) + plan.rotaryZero
}

/** Distance to go: of the move that runs, or of the first that the next press makes. X of a lathe as a diameter. */
export function distanceToGo(simulated: SimulatedState): Triple | undefined {
  const { plan, run } = simulated
  if (!plan || !run || run.phase === 'done') return undefined
  const { motion } = plan
  // Under way, or stopped within a move: by an alarm.
  if (run.phase === 'running' || run.phase === 'held' || run.into > 0) {
    if (motion.kind[run.row] === ROW.EVENT) return [0, 0, 0]
    const at = along(plan, run.row, run.into)
    const twice = isLathe(simulated) ? 2 : 1
    return [
      ((motion.x[run.row] as number) - at[0]) * twice,
      (motion.y[run.row] as number) - at[1],
      (motion.z[run.row] as number) - at[2],
    ]
  }
  return nextPress(simulated)?.toGo
}

/** What the next press of cycle start does, as the control and the operator see it. */
export function nextPress(simulated: SimulatedState) {
  const { plan, run, world } = simulated
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
