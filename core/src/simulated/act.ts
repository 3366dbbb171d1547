import { formatWithUnit } from '../quantity/index.ts'
import type { SimulatedAction } from './actions.ts'
import { bolt, tap } from './clamping.ts'
import { isMill, type SimulatedMill } from './contact.ts'
import { look, rock, zeroDial } from './dial.ts'
import { tryBlock } from './gauge-block.ts'
import { isLathe, measure, mountOnLathe, moveBar, moveLathe, type SimulatedLathe } from './lathe.ts'
import { home, inch, isFinding, jog, mount, search, settled, spindle, turn, up, wheel } from './mill.ts'
import { degreesText, onRotary, putOnTable } from './rotary.ts'
import { advance, feedHold, load, rewound, start } from './running.ts'
import type { SimulatedState } from './state.ts'
import type { World } from './world.ts'

/** A machine as it is switched on: at home, nothing in the spindle, tables empty, both bolts of the vise tight. */
export function switchOn(world: World): SimulatedState {
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
function common(simulated: SimulatedState, action: SimulatedAction): SimulatedState | undefined {
  switch (action.do) {
    case 'key-offset': {
      const { offset, axis, value } = action
      if (axis === 'A' || axis === 'B' || axis === 'C')
        return {
          ...simulated,
          worked: simulated.worked + 8,
          rotaryZeros: { ...simulated.rotaryZeros, [offset]: value },
          says: `Keyed in: ${offset} ${axis} ${degreesText(value)}.`,
        }
      return {
        ...simulated,
        worked: simulated.worked + 8,
        offsets: { ...simulated.offsets, [offset]: { ...simulated.offsets[offset], [axis]: value } },
        says: `Keyed in: ${offset} ${axis} ${formatWithUnit(value, simulated.world.unit)}.`,
      }
    }
    case 'key-length':
      return {
        ...simulated,
        worked: simulated.worked + 8,
        lengths: { ...simulated.lengths, [action.tool]: action.length },
        says: `Keyed in: length of T${action.tool}, ${formatWithUnit(action.length, simulated.world.unit)}.`,
      }
    case 'load':
      return load(simulated, action.text)
    case 'single':
      return simulated.run ? { ...simulated, run: { ...simulated.run, single: action.on } } : simulated
    case 'override':
      return simulated.run
        ? {
            ...simulated,
            run: {
              ...simulated.run,
              rapid: action.rapid ?? simulated.run.rapid,
              feed: action.feed ?? simulated.run.feed,
            },
          }
        : simulated
    case 'start':
      return start(simulated)
    case 'feed-hold':
      return feedHold(simulated)
    default:
      return undefined
  }
}

/** What is done at the vise, and cannot be while the rotary stands there. */
const AT_VISE = new Set<SimulatedAction['do']>(['hold-block', 'part', 'bolt', 'tap'])

function onMill(simulated: SimulatedMill, action: SimulatedAction): SimulatedMill {
  if (AT_VISE.has(action.do) && onRotary(simulated))
    return { ...simulated, says: 'The vise is not on the table: the rotary is.' }
  switch (action.do) {
    case 'turn':
      return turn(simulated, action)
    case 'table':
      return settled(putOnTable(simulated, action) as SimulatedMill)
    case 'wheel':
      return wheel(simulated, action)
    case 'jog':
      return jog(simulated, action)
    case 'search':
      return search(simulated, action)
    case 'up':
      return up(simulated)
    case 'home':
      return home(simulated)
    case 'spindle':
      return spindle(simulated, action)
    case 'mount':
      return mount(simulated, action)
    case 'look':
      return look(simulated, action)
    case 'rock':
      return rock(simulated)
    case 'zero-dial':
      return zeroDial(simulated)
    case 'hold-block':
      return {
        ...simulated,
        held: action.side,
        worked: simulated.worked + 8,
        says: action.side ? `A gauge block is held against the ${action.side} side.` : '',
      }
    case 'part':
      return {
        ...simulated,
        partIn: action.in,
        held: null,
        worked: simulated.worked + 20,
        says: action.in ? 'The part is in the vise, against the fixed jaw.' : 'The part is out of the vise.',
      }
    case 'try-block':
      return tryBlock(simulated, action)
    case 'bolt':
      return bolt(simulated, action)
    case 'tap':
      return tap(simulated, action)
    default:
      return simulated
  }
}

function onLathe(simulated: SimulatedLathe, action: SimulatedAction): SimulatedLathe {
  switch (action.do) {
    case 'wheel':
      return moveLathe(
        simulated,
        action.axis,
        action.step * action.clicks,
        0.4 + 0.06 * Math.abs(action.clicks),
      )
    case 'jog':
      return moveLathe(simulated, action.axis, action.by, 1 + Math.abs(action.by) / inch(simulated, 1))
    case 'spindle':
      return { ...simulated, rpm: action.rpm, worked: simulated.worked + 3, says: '' }
    case 'mount':
      return mountOnLathe(simulated, action)
    case 'home':
      return {
        ...simulated,
        at: { ...simulated.world.machine.home },
        worked: simulated.worked + 8,
        says: 'Home.',
      }
    case 'measure':
      return measure(simulated)
    case 'bar':
      return moveBar(simulated, action.way)
    default:
      return simulated
  }
}

/**
 * Clears an alarm. After a collision the spindle goes up (a turret home), and what was in the spindle is out of it; so is a
 * finder that was turned. A program is back at its start.
 */
function reset(simulated: SimulatedState): SimulatedState {
  const { alarm, mounted } = simulated
  const calm = { ...simulated, alarm: null, says: alarm ? 'The alarm is cleared.' : '' }
  const collided = alarm?.code === 'collision'
  const out = isMill(simulated) && (collided || (alarm?.code === 'spindle' && isFinding(mounted)))
  if (!collided && !out && !calm.run) return calm
  const back = rewound(calm)
  return out ? { ...back, mounted: { kind: 'nothing' }, held: null, worked: back.worked + 60 } : back
}

/** Moves that a program which runs, and an alarm, do not allow. */
const FREE = new Set<SimulatedAction['do']>(['start', 'feed-hold', 'single', 'override', 'reset'])

/**
 * What an action does to a simulated machine. Pure: the same machine and the same actions always come to the same. It says
 * what happened in `says`; an alarm stays until it is reset.
 */
export function act(simulated: SimulatedState, action: SimulatedAction): SimulatedState {
  if (action.do === 'reset') return reset(simulated)
  if (simulated.alarm) return { ...simulated, says: `${simulated.alarm.says} ${simulated.alarm.fix}` }
  const { phase } = simulated.run ?? {}
  if ((phase === 'running' || phase === 'held') && !FREE.has(action.do))
    return { ...simulated, says: 'A program runs. Stop it with feed hold and reset first.' }
  const alike = common(simulated, action)
  if (alike) return alike
  if (isMill(simulated)) return onMill(simulated, action)
  return isLathe(simulated) ? onLathe(simulated, action) : simulated
}

export { advance }
