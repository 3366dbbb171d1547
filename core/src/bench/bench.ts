import { formatWithUnit } from '../quantity/index.ts'
import type { BenchAction } from './actions.ts'
import { bolt, tap } from './clamping.ts'
import { isMillBench, type MillBench } from './contact.ts'
import { look, rock, zeroDial } from './dial.ts'
import { tryBlock } from './gauge-block.ts'
import { isLatheBench, type LatheBench, measure, mountOnLathe, moveBar, moveLathe } from './lathe.ts'
import { home, inch, isFinding, jog, mount, search, settled, spindle, turn, up, wheel } from './mill.ts'
import { degreesText, onRotary, putOnTable } from './rotary.ts'
import { advance, feedHold, load, rewound, start } from './running.ts'
import type { Bench } from './state.ts'
import type { World } from './world.ts'

/** A machine as it is switched on: at home, nothing in the spindle, tables empty, both bolts of the vise tight. */
export function switchOn(world: World): Bench {
  const { machine } = world
  return {
    world,
    at: { ...machine.home },
    drawn: 100,
    rpm: 0,
    mounted: { kind: 'nothing' },
    offsets: {},
    lengths: {},
    variables: {},
    table: 'vise',
    turn: world.kind === 'mill' && world.rotary ? { shown: 0, off: world.rotary.notHomed } : null,
    rotaryZeros: {},
    vise: world.kind === 'mill' ? { frame: world.vise.frame, left: 'tight', right: 'tight' } : null,
    held: null,
    partIn: true,
    measured: null,
    bar:
      world.kind === 'lathe'
        ? { face: world.bar.face, diameter: world.bar.diameter, turned: null, pip: false }
        : null,
    alarm: null,
    says: '',
    tally: { collisions: 0, bumps: 0, misses: 0, taps: 0 },
    worked: 0,
    run: null,
    plan: null,
  }
}

/** What both kinds of machine do alike; undefined for what only one of them does. */
function common(bench: Bench, action: BenchAction): Bench | undefined {
  switch (action.do) {
    case 'key-offset': {
      const { offset, axis, value } = action
      if (axis === 'A' || axis === 'B' || axis === 'C')
        return {
          ...bench,
          worked: bench.worked + 8,
          rotaryZeros: { ...bench.rotaryZeros, [offset]: value },
          says: `Keyed in: ${offset} ${axis} ${degreesText(value)}.`,
        }
      return {
        ...bench,
        worked: bench.worked + 8,
        offsets: { ...bench.offsets, [offset]: { ...bench.offsets[offset], [axis]: value } },
        says: `Keyed in: ${offset} ${axis} ${formatWithUnit(value, bench.world.unit)}.`,
      }
    }
    case 'key-length':
      return {
        ...bench,
        worked: bench.worked + 8,
        lengths: { ...bench.lengths, [action.tool]: action.length },
        says: `Keyed in: length of T${action.tool}, ${formatWithUnit(action.length, bench.world.unit)}.`,
      }
    case 'load':
      return load(bench, action.text)
    case 'single':
      return bench.run ? { ...bench, run: { ...bench.run, single: action.on } } : bench
    case 'override':
      return bench.run
        ? {
            ...bench,
            run: {
              ...bench.run,
              rapid: action.rapid ?? bench.run.rapid,
              feed: action.feed ?? bench.run.feed,
            },
          }
        : bench
    case 'start':
      return start(bench)
    case 'feed-hold':
      return feedHold(bench)
    default:
      return undefined
  }
}

/** What is done at the vise, and cannot be while the rotary stands there. */
const AT_VISE = new Set<BenchAction['do']>(['hold-block', 'part', 'bolt', 'tap'])

function onMill(bench: MillBench, action: BenchAction): MillBench {
  if (AT_VISE.has(action.do) && onRotary(bench))
    return { ...bench, says: 'The vise is not on the table: the rotary is.' }
  switch (action.do) {
    case 'turn':
      return turn(bench, action)
    case 'table':
      return settled(putOnTable(bench, action) as MillBench)
    case 'wheel':
      return wheel(bench, action)
    case 'jog':
      return jog(bench, action)
    case 'search':
      return search(bench, action)
    case 'up':
      return up(bench)
    case 'home':
      return home(bench)
    case 'spindle':
      return spindle(bench, action)
    case 'mount':
      return mount(bench, action)
    case 'look':
      return look(bench, action)
    case 'rock':
      return rock(bench)
    case 'zero-dial':
      return zeroDial(bench)
    case 'hold-block':
      return {
        ...bench,
        held: action.side,
        worked: bench.worked + 8,
        says: action.side ? `A gauge block is held against the ${action.side} side.` : '',
      }
    case 'part':
      return {
        ...bench,
        partIn: action.in,
        held: null,
        worked: bench.worked + 20,
        says: action.in ? 'The part is in the vise, against the fixed jaw.' : 'The part is out of the vise.',
      }
    case 'try-block':
      return tryBlock(bench, action)
    case 'bolt':
      return bolt(bench, action)
    case 'tap':
      return tap(bench, action)
    default:
      return bench
  }
}

function onLathe(bench: LatheBench, action: BenchAction): LatheBench {
  switch (action.do) {
    case 'wheel':
      return moveLathe(bench, action.axis, action.step * action.clicks, 0.4 + 0.06 * Math.abs(action.clicks))
    case 'jog':
      return moveLathe(bench, action.axis, action.by, 1 + Math.abs(action.by) / inch(bench, 1))
    case 'spindle':
      return { ...bench, rpm: action.rpm, worked: bench.worked + 3, says: '' }
    case 'mount':
      return mountOnLathe(bench, action)
    case 'home':
      return { ...bench, at: { ...bench.world.machine.home }, worked: bench.worked + 8, says: 'Home.' }
    case 'measure':
      return measure(bench)
    case 'bar':
      return moveBar(bench, action.way)
    default:
      return bench
  }
}

/**
 * Clears an alarm. After a collision the spindle goes up (a turret home), and what was in the spindle is out of it; so is a
 * finder that was turned. A program is back at its start.
 */
function reset(bench: Bench): Bench {
  const { alarm, mounted } = bench
  const calm = { ...bench, alarm: null, says: alarm ? 'The alarm is cleared.' : '' }
  const collided = alarm?.code === 'collision'
  const out = isMillBench(bench) && (collided || (alarm?.code === 'spindle' && isFinding(mounted)))
  if (!collided && !out && !calm.run) return calm
  const back = rewound(calm)
  return out ? { ...back, mounted: { kind: 'nothing' }, held: null, worked: back.worked + 60 } : back
}

/** Moves that a program which runs, and an alarm, do not allow. */
const FREE = new Set<BenchAction['do']>(['start', 'feed-hold', 'single', 'override', 'reset'])

/**
 * What an action does to a simulated machine. Pure: the same machine and the same actions always come to the same. It says
 * what happened in `says`; an alarm stays until it is reset.
 */
export function act(bench: Bench, action: BenchAction): Bench {
  if (action.do === 'reset') return reset(bench)
  if (bench.alarm) return { ...bench, says: `${bench.alarm.says} ${bench.alarm.fix}` }
  const { phase } = bench.run ?? {}
  if ((phase === 'running' || phase === 'held') && !FREE.has(action.do))
    return { ...bench, says: 'A program runs. Stop it with feed hold and reset first.' }
  const alike = common(bench, action)
  if (alike) return alike
  if (isMillBench(bench)) return onMill(bench, action)
  return isLatheBench(bench) ? onLathe(bench, action) : bench
}

export { advance }
