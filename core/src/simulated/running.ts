import { type MotionEvent, ROW } from '../program/index.ts'
import { roundTo } from '../quantity/index.ts'
import { isMill } from './contact.ts'
import { isLathe } from './lathe.ts'
import { alarmed, home, mountedTool } from './mill.ts'
import { blockRows, placeOf, planRun, turnOf } from './run.ts'
import type { ProgramRun } from './run-plan.ts'
import type { SimulatedState } from './state.ts'
import { trueTool } from './world.ts'

/** Blocks without any time are run through; so many at once are taken for a loop. */
const MOST_ROWS = 200_000
/** Numbers of chance that a run is taken to have drawn, so that the next one's touches scatter otherwise. */
const DRAWN_BY_RUN = 500

/** Takes a program in, at its first block, with single block as it was. */
export function load(simulated: SimulatedState, text: string): SimulatedState {
  const plan = planRun(simulated, text)
  const before = simulated.run
  const run: ProgramRun = {
    phase: 'ready',
    block: 0,
    row: 0,
    into: 0,
    single: before?.single ?? true,
    rapid: before?.rapid ?? 25,
    feed: before?.feed ?? 100,
    presses: 0,
    loads: (before?.loads ?? 0) + 1,
  }
  if (plan.motion.blocks === 0)
    return { ...simulated, says: 'Nothing in this text moves the machine or does anything.' }
  return { ...simulated, plan, run, says: `The program is loaded: ${plan.motion.blocks} blocks.` }
}

/** Cycle start: goes on, or begins with the block in hand. What is keyed in counts as it stands at the first press. */
export function start(simulated: SimulatedState): SimulatedState {
  const { run, plan } = simulated
  if (!run || !plan) return { ...simulated, says: 'Load a program first.' }
  if (run.phase === 'running') return simulated
  if (run.phase === 'done' || (run.phase === 'ready' && run.presses === 0)) {
    // The reader begins at home, and so does the machine here.
    const ready = isMill(simulated)
      ? home(simulated)
      : { ...simulated, at: { ...simulated.world.machine.home } }
    if (ready.alarm) return ready
    const again: ProgramRun = { ...run, phase: 'running', block: 0, row: 0, into: 0, presses: 1 }
    const next = { ...ready, plan: planRun(ready, plan.text), drawn: ready.drawn + DRAWN_BY_RUN }
    return advance({ ...next, run: again, says: '' }, 0)
  }
  const next: ProgramRun =
    run.phase === 'held'
      ? { ...run, phase: 'running' }
      : { ...run, phase: 'running', row: blockRows(plan, run.block).from, into: 0 }
  return advance({ ...simulated, run: { ...next, presses: run.presses + 1 }, says: '' }, 0)
}

export const feedHold = (simulated: SimulatedState): SimulatedState =>
  simulated.run?.phase === 'running'
    ? { ...simulated, run: { ...simulated.run, phase: 'held' }, says: 'Feed hold. Cycle start goes on.' }
    : simulated

/** How much faster than at full speed a row goes, by the overrides. */
function paceOf({ plan, run }: SimulatedState): number {
  if (!plan || !run) return 1
  const kind = plan.motion.kind[run.row]
  if (kind === ROW.EVENT) return 1
  return kind === ROW.RAPID
    ? run.rapid / 100
    : kind === ROW.IN_STEP || kind === ROW.TAP_OUT
      ? 1
      : run.feed / 100
}

/** What an event of the program does to the machine. */
function carriedOut(simulated: SimulatedState, event: MotionEvent | undefined): SimulatedState {
  if (event?.does === 'tool') return { ...simulated, mounted: mountedTool(simulated, event.tool), rpm: 0 }
  if (event?.does === 'spindle' && !event.driven) return { ...simulated, rpm: event.turning ? event.rpm : 0 }
  return simulated
}

/** The end of a row: the next one, or the stop at the end of its block. */
function ended(simulated: SimulatedState): SimulatedState {
  const { plan, run } = simulated
  if (!plan || !run) return simulated
  const { motion } = plan
  const event = motion.kind[run.row] === ROW.EVENT ? motion.events[motion.aux[run.row] as number] : undefined
  const at = placeOf(simulated, { ...run, into: Number.POSITIVE_INFINITY })
  const turned = turnOf(simulated, run.row)
  const next = carriedOut(
    {
      ...simulated,
      at: at ? { ...simulated.at, ...at } : simulated.at,
      turn:
        simulated.turn && turned !== undefined
          ? { ...simulated.turn, shown: roundTo(turned, 3) }
          : simulated.turn,
    },
    event,
  )
  const { to } = blockRows(plan, run.block)
  const row = run.row + 1
  if (row < to) return { ...next, run: { ...run, row, into: 0 } }
  return ofNextBlock(next, run.block + 1, event)
}

/** What a block that is over has written: into the offsets, on their page from then on, and into variables. */
function withWritten(simulated: SimulatedState): SimulatedState {
  const { plan, run } = simulated
  const written = run && plan?.written.get(run.block)
  if (!written) return simulated
  const offsets = { ...simulated.offsets }
  const rotaryZeros = { ...simulated.rotaryZeros }
  for (const { offset, axes, rotary } of written.offsets) {
    offsets[offset] = { ...offsets[offset], ...axes }
    if (rotary !== undefined) rotaryZeros[offset] = rotary
  }
  const variables = { ...simulated.variables }
  for (const { variable, value } of written.sets) variables[variable] = value
  const lengths = { ...simulated.lengths }
  const { leastStep } = simulated.world.machine
  for (const tool of written.lengths) {
    const length = trueTool(simulated.world, tool)?.length
    // As the control shows it, to its last digit.
    if (length !== undefined) lengths[tool] = Math.round(length / leastStep) * leastStep
  }
  return { ...simulated, offsets, rotaryZeros, variables, lengths }
}

/** Goes to a block: runs on, or stands before it. */
function ofNextBlock(before: SimulatedState, block: number, event: MotionEvent | undefined): SimulatedState {
  const simulated = withWritten(before)
  const { plan, run } = simulated
  if (!plan || !run) return simulated
  const { motion, program } = plan
  if (block >= motion.blocks) {
    const done: SimulatedState = {
      ...simulated,
      rpm: 0,
      run: { ...run, block, row: motion.count, into: 0, phase: 'done' },
    }
    return program.alarm
      ? alarmed(
          done,
          'program',
          `Alarm: ${program.alarm.says}`,
          `It is line ${program.alarm.line} of the program.`,
        )
      : { ...done, says: 'The program is at its end.' }
  }
  const stops = run.single || event?.does === 'stop'
  const next: ProgramRun = {
    ...run,
    block,
    row: blockRows(plan, block).from,
    into: 0,
    phase: stops ? 'stopped' : 'running',
  }
  return { ...simulated, run: next, ...(event?.does === 'stop' && event.says ? { says: event.says } : {}) }
}

/**
 * Lets a program run for so many seconds of the clock. It stops at the end of a block under single block, at a stop of the
 * program, where the control refuses a move, and where something is hit: the crash that Prove foretold, without harm.
 */
export function advance(simulated: SimulatedState, seconds: number): SimulatedState {
  let [now, left] = [simulated, seconds]
  for (let rows = 0; rows < MOST_ROWS; rows++) {
    const { run, plan } = now
    if (!run || !plan || run.phase !== 'running' || now.alarm) break
    const { from, to } = blockRows(plan, run.block)
    if (from >= to) {
      now = ofNextBlock(now, run.block + 1, undefined)
      continue
    }
    const refused = plan.refused.get(run.row)
    if (refused !== undefined && run.into === 0) {
      now = alarmed(
        { ...now, run: { ...run, phase: 'stopped' } },
        'program',
        `Alarm: ${refused}`,
        `Nothing moved. It is line ${plan.motion.line[run.row]} of the program.`,
      )
      break
    }
    const whole = plan.seconds[run.row] ?? 0
    const hit = plan.hits.get(run.row)
    const until = hit ? whole * hit.share : whole
    const pace = paceOf(now)
    const needs = until - run.into
    if (needs > 0 && (pace === 0 || left * pace < needs - 1e-9)) {
      const into = run.into + left * pace
      const at = placeOf(now, { ...run, into })
      now = { ...now, at: at ? { ...now.at, ...at } : now.at, run: { ...run, into } }
      break
    }
    left -= needs > 0 ? needs / pace : 0
    if (hit) {
      const at = placeOf(now, { ...run, into: until })
      now = alarmed(
        {
          ...now,
          at: at ? { ...now.at, ...at } : now.at,
          run: { ...run, into: until, phase: 'stopped' },
          tally: { ...now.tally, collisions: now.tally.collisions + 1 },
        },
        'collision',
        `Collision: ${hit.says}, in line ${plan.motion.line[run.row]}.`,
        'Nothing is harmed here. Reset, and look why: offset, tool length, or the program.',
      )
      break
    }
    now = ended(now)
  }
  return { ...now, worked: now.worked + Math.max(0, seconds - Math.max(0, left)) }
}

/** Puts the run back to its beginning, as reset does. */
export const rewound = (simulated: SimulatedState): SimulatedState => ({
  ...simulated,
  rpm: 0,
  run: simulated.run && { ...simulated.run, phase: 'ready', block: 0, row: 0, into: 0, presses: 0 },
  at: isLathe(simulated)
    ? { ...simulated.world.machine.home }
    : { ...simulated.at, Z: simulated.world.machine.home.Z },
})
