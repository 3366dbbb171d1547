import { type MotionEvent, ROW } from '../program/index.ts'
import { roundTo } from '../quantity/index.ts'
import { isMillBench } from './contact.ts'
import { isLatheBench } from './lathe.ts'
import { alarmed, home, mountedTool } from './mill.ts'
import { blockRows, placeOf, planRun, turnOf } from './run.ts'
import type { ProgramRun } from './run-plan.ts'
import type { Bench } from './state.ts'
import { trueTool } from './world.ts'

/** Blocks without any time are run through; so many at once are taken for a loop. */
const MOST_ROWS = 200_000
/** Numbers of chance that a run is taken to have drawn, so that the next one's touches scatter otherwise. */
const DRAWN_BY_RUN = 500

/** Takes a program in, at its first block, with single block as it was. */
export function load(bench: Bench, text: string): Bench {
  const plan = planRun(bench, text)
  const before = bench.run
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
    return { ...bench, says: 'Nothing in this text moves the machine or does anything.' }
  return { ...bench, plan, run, says: `The program is loaded: ${plan.motion.blocks} blocks.` }
}

/** Cycle start: goes on, or begins with the block in hand. What is keyed in counts as it stands at the first press. */
export function start(bench: Bench): Bench {
  const { run, plan } = bench
  if (!run || !plan) return { ...bench, says: 'Load a program first.' }
  if (run.phase === 'running') return bench
  if (run.phase === 'done' || (run.phase === 'ready' && run.presses === 0)) {
    // The reader begins at home, and so does the machine here.
    const ready = isMillBench(bench) ? home(bench) : { ...bench, at: { ...bench.world.machine.home } }
    if (ready.alarm) return ready
    const again: ProgramRun = { ...run, phase: 'running', block: 0, row: 0, into: 0, presses: 1 }
    const next = { ...ready, plan: planRun(ready, plan.text), drawn: ready.drawn + DRAWN_BY_RUN }
    return advance({ ...next, run: again, says: '' }, 0)
  }
  const next: ProgramRun =
    run.phase === 'held'
      ? { ...run, phase: 'running' }
      : { ...run, phase: 'running', row: blockRows(plan, run.block).from, into: 0 }
  return advance({ ...bench, run: { ...next, presses: run.presses + 1 }, says: '' }, 0)
}

export const feedHold = (bench: Bench): Bench =>
  bench.run?.phase === 'running'
    ? { ...bench, run: { ...bench.run, phase: 'held' }, says: 'Feed hold. Cycle start goes on.' }
    : bench

/** How much faster than at full speed a row goes, by the overrides. */
function paceOf({ plan, run }: Bench): number {
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
function carriedOut(bench: Bench, event: MotionEvent | undefined): Bench {
  if (event?.does === 'tool') return { ...bench, mounted: mountedTool(bench, event.tool), rpm: 0 }
  if (event?.does === 'spindle') return { ...bench, rpm: event.turning ? event.rpm : 0 }
  return bench
}

/** The end of a row: the next one, or the stop at the end of its block. */
function ended(bench: Bench): Bench {
  const { plan, run } = bench
  if (!plan || !run) return bench
  const { motion } = plan
  const event = motion.kind[run.row] === ROW.EVENT ? motion.events[motion.aux[run.row] as number] : undefined
  const at = placeOf(bench, { ...run, into: Number.POSITIVE_INFINITY })
  const turned = turnOf(bench, run.row)
  const next = carriedOut(
    {
      ...bench,
      at: at ? { ...bench.at, ...at } : bench.at,
      turn: bench.turn && turned !== undefined ? { ...bench.turn, shown: roundTo(turned, 3) } : bench.turn,
    },
    event,
  )
  const { to } = blockRows(plan, run.block)
  const row = run.row + 1
  if (row < to) return { ...next, run: { ...run, row, into: 0 } }
  return ofNextBlock(next, run.block + 1, event)
}

/** What a block that is over has written: into the offsets, on their page from then on, and into variables. */
function withWritten(bench: Bench): Bench {
  const { plan, run } = bench
  const written = run && plan?.written.get(run.block)
  if (!written) return bench
  const offsets = { ...bench.offsets }
  const rotaryZeros = { ...bench.rotaryZeros }
  for (const { offset, axes, rotary } of written.offsets) {
    offsets[offset] = { ...offsets[offset], ...axes }
    if (rotary !== undefined) rotaryZeros[offset] = rotary
  }
  const variables = { ...bench.variables }
  for (const { variable, value } of written.sets) variables[variable] = value
  const lengths = { ...bench.lengths }
  const { leastStep } = bench.world.machine
  for (const tool of written.lengths) {
    const length = trueTool(bench.world, tool)?.length
    // As the control shows it, to its last digit.
    if (length !== undefined) lengths[tool] = Math.round(length / leastStep) * leastStep
  }
  return { ...bench, offsets, rotaryZeros, variables, lengths }
}

/** Goes to a block: runs on, or stands before it. */
function ofNextBlock(before: Bench, block: number, event: MotionEvent | undefined): Bench {
  const bench = withWritten(before)
  const { plan, run } = bench
  if (!plan || !run) return bench
  const { motion, program } = plan
  if (block >= motion.blocks) {
    const done: Bench = {
      ...bench,
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
  return { ...bench, run: next, ...(event?.does === 'stop' && event.says ? { says: event.says } : {}) }
}

/**
 * Lets a program run for so many seconds of the clock. It stops at the end of a block under single block, at a stop of the
 * program, where the control refuses a move, and where something is hit: the crash that Prove foretold, without harm.
 */
export function advance(bench: Bench, seconds: number): Bench {
  let [now, left] = [bench, seconds]
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
export const rewound = (bench: Bench): Bench => ({
  ...bench,
  rpm: 0,
  run: bench.run && { ...bench.run, phase: 'ready', block: 0, row: 0, into: 0, presses: 0 },
  at: isLatheBench(bench) ? { ...bench.world.machine.home } : { ...bench.at, Z: bench.world.machine.home.Z },
})
