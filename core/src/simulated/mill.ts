import { LINEAR_AXES, type LinearAxis, travelIn } from '../machine/index.ts'
import { REPEATABILITY } from '../pickup/index.ts'
import { convertLength, formatLength, formatWithUnit, roundTo } from '../quantity/index.ts'
import type { ActionOf } from './actions.ts'
import {
  finderIn,
  freeAlong,
  hardPieces,
  pressed,
  type SimulatedMill,
  softPiece,
  tipSpot,
  tipZ,
} from './contact.ts'
import { FINDER_RPM, type Finder } from './devices.ts'
import { dice } from './dice.ts'
import { degreesText, depthIn, homedRotary, LOOK_EVERY, lying, onRotary, turnedBy } from './rotary.ts'
import type { Mounted, SimulatedState } from './state.ts'
import type { Alarm } from './state-schema.ts'
import { isMillWorld, trueTool } from './world.ts'

/** Jog speed and that of a probe that searches, in inches a second. By judgement. */
const JOG = 1
const SEARCH = 0.25
/** Of the repeatability to assume of a setter this much is its own bound; the rest is for the step of the display. By judgement. */
const SETTER_REPEATS = 0.6

export const inch = (simulated: SimulatedState, value: number) =>
  convertLength(value, 'inch', simulated.world.unit)
const text = (simulated: SimulatedState, value: number) => formatWithUnit(value, simulated.world.unit)

export const alarmed = <B extends SimulatedState>(
  simulated: B,
  code: Alarm['code'],
  says: string,
  fix: string,
): B => ({
  ...simulated,
  alarm: { code, says, fix },
  says,
  rpm: 0,
})

/** A move that stops at the end of the travel: how far it may go. */
export function withinReach(
  simulated: SimulatedState,
  axis: LinearAxis,
  by: number,
): { by: number; end: boolean } {
  const { machine, unit } = simulated.world
  const { least, greatest } = travelIn(machine, axis, unit)
  const to = Math.min(greatest, Math.max(least, simulated.at[axis] + by))
  return { by: to - simulated.at[axis], end: Math.abs(to - simulated.at[axis] - by) > 1e-9 }
}

type Finding = Extract<Mounted, { touch: number }>

/** Whether something is mounted that finds faces. */
export const isFinding = (mounted: Mounted): mounted is Finding =>
  mounted.kind !== 'nothing' && mounted.kind !== 'tool'

/** A collision: it stands where it touched; what was in the spindle is to be taken out. */
function collision(
  simulated: SimulatedMill,
  { piece, body }: { piece: string; body: string },
): SimulatedMill {
  return alarmed(
    { ...simulated, tally: { ...simulated.tally, collisions: simulated.tally.collisions + 1 } },
    'collision',
    `Collision: the ${piece} met the ${body}.`,
    'Nothing is harmed here. Reset: the spindle goes up. Look at all three axes before the next move.',
  )
}

/** How far a finder may be pushed on from where it first touches. */
export const pushAllowed = (finder: Finder) => (finder.kind === 'sensor' ? finder.tip : 0) + finder.gives

const HARM: Record<Finder['kind'], string> = {
  'edge-finder': 'The edge finder was pushed until its tip bent: it reads wrong from now on.',
  indicator: 'The indicator was pushed past its range: it was bumped, and no longer stands as it was set.',
  sensor: 'The 3D sensor was pushed past its end: the stylus is broken.',
  probe: 'The stylus of the probe was pushed past its overtravel: it is broken.',
}

/** What pushing a finder too far does to it. */
export function harmed(simulated: SimulatedMill, finder: Finder, mounted: Finding): SimulatedMill {
  const chance = dice(simulated.world.seed, simulated.drawn)
  const next: Finding =
    finder.kind === 'indicator'
      ? { ...mounted, bumps: mounted.bumps + 1 }
      : {
          ...mounted,
          harmed: {
            says: HARM[finder.kind],
            off: inch(simulated, chance.between(0.003, 0.008)) * chance.pick([-1, 1]),
          },
        }
  const tally = { ...simulated.tally, bumps: simulated.tally.bumps + 1 }
  return { ...simulated, mounted: next, drawn: chance.drawn, tally, says: HARM[finder.kind] }
}

/** How far it must come free before the next touch is another one. */
const REARM = 0.003

/** What touching or coming free makes of a finder, after a move. */
export function settled(simulated: SimulatedMill): SimulatedMill {
  const { mounted, world } = simulated
  const finder = finderIn(mounted, world)
  if (!finder || !isFinding(mounted)) return simulated
  const { depth } = pressed(simulated)
  if (depth < -inch(simulated, REARM)) {
    const chance = dice(world.seed, simulated.drawn)
    const touch = chance.within(finder.repeats)
    return { ...simulated, drawn: chance.drawn, mounted: { ...mounted, touch, kicked: false } }
  }
  if (finder.kind !== 'edge-finder') return simulated
  const push = depth + mounted.touch + (mounted.harmed?.off ?? 0)
  if (push < 0) return simulated
  if (simulated.rpm < FINDER_RPM.least)
    return {
      ...simulated,
      says: 'The tip touches, and only leans over: an edge finder kicks while the spindle turns, at about 1000 a minute.',
    }
  return {
    ...simulated,
    mounted: { ...mounted, kicked: true },
    says: mounted.kicked ? simulated.says : 'The edge finder kicked.',
  }
}

/** Moves one axis as a hand does: on when something is touched, not when something is hit. */
function moveMill(simulated: SimulatedMill, axis: LinearAxis, asked: number, seconds: number): SimulatedMill {
  const { by, end } = withinReach(simulated, axis, asked)
  const before = { ...simulated, worked: simulated.worked + seconds, says: '' }
  const way = by < 0 ? -1 : 1
  const most = Math.abs(by)
  const hard = freeAlong(simulated, hardPieces(simulated), axis, way, most)
  const soft = softPiece(simulated)
  const finder = finderIn(simulated.mounted, simulated.world)
  let free = hard.free
  let push = false
  if (soft && finder && isFinding(simulated.mounted)) {
    // What is left of the tip where it is pushed in as far as it may be.
    const allowed = pushAllowed(finder)
    const core = {
      ...soft,
      radius: axis === 'Z' ? soft.radius : soft.radius - allowed,
      from: soft.from + allowed,
    }
    const room = freeAlong(simulated, [core], axis, way, most, tipSpot(simulated))
    if (room.meets && room.free < free) {
      free = room.free
      push = true
    }
  }
  const to = simulated.at[axis] + way * Math.min(free, most)
  let after = settled({ ...before, at: { ...simulated.at, [axis]: to } })
  if (push && finder && isFinding(after.mounted)) after = harmed(after, finder, after.mounted)
  else if (hard.meets && free < most) return collision(after, hard.meets)
  if (end && !after.says)
    return { ...after, says: `${axis} is at the end of its travel, at ${text(simulated, to)}.` }
  return after
}

export const wheel = (simulated: SimulatedMill, { axis, step, clicks }: ActionOf<'wheel'>): SimulatedMill =>
  moveMill(simulated, axis, roundTo(step * clicks, 6), 0.4 + 0.06 * Math.abs(clicks))

export const jog = (simulated: SimulatedMill, { axis, by }: ActionOf<'jog'>): SimulatedMill =>
  moveMill(simulated, axis, by, 1 + Math.abs(by) / inch(simulated, JOG))

/** A tool is brought down on the setter, spindle stopped: it stops where that triggers, as well as a setter repeats. */
function seekSetter(simulated: SimulatedMill, { axis, by: asked }: ActionOf<'search'>): SimulatedMill {
  const { world } = simulated
  if (!world.setter) return { ...simulated, says: 'Only a probe can search: put it into the spindle.' }
  if (axis !== 'Z' || asked > 0)
    return { ...simulated, says: 'A tool is sought down on the setter: along Z, minus, from over it.' }
  if (simulated.rpm > 0)
    return alarmed(
      simulated,
      'spindle',
      'The spindle turns: the tool would mill the setter.',
      'Reset: the spindle stands. Try again.',
    )
  const { by } = withinReach(simulated, axis, asked)
  const most = Math.abs(by)
  const gap = world.setter.trigger - world.setter.top
  // It triggers before it gives no further.
  const way = freeAlong(simulated, hardPieces(simulated), axis, -1, most + gap)
  const chance = dice(world.seed, simulated.drawn)
  const off = chance.within(SETTER_REPEATS * REPEATABILITY.setter[world.unit])
  const triggers = Math.max(0, way.free - gap - off)
  const onSetter = way.meets?.body === world.setter.name && triggers <= most
  const meets = onSetter || way.free > most ? undefined : way.meets
  const gone = onSetter ? triggers : Math.min(way.free, most)
  const after = {
    ...simulated,
    at: { ...simulated.at, Z: simulated.at.Z - gone },
    drawn: chance.drawn,
    worked: simulated.worked + 1 + gone / inch(simulated, SEARCH),
  }
  if (meets) return collision(after, meets)
  if (!onSetter)
    return alarmed(
      { ...after, tally: { ...simulated.tally, misses: simulated.tally.misses + 1 } },
      'no-contact',
      `The tool went down ${text(simulated, most)} and met no setter.`,
      'Reset, and look where the tool is: over the setter? Seek only a little further than the gap.',
    )
  return { ...after, says: `The setter triggered at Z ${formatLength(after.at.Z, world.unit)}.` }
}

/** A protected move: the probe stops where it triggers; its body is not looked at, and neither is a miss forgiven. */
export function search(simulated: SimulatedMill, { axis, by: asked }: ActionOf<'search'>): SimulatedMill {
  const { mounted } = simulated
  const soft = softPiece(simulated)
  if (mounted.kind === 'tool') return seekSetter(simulated, { do: 'search', axis, by: asked })
  if (mounted.kind !== 'probe' || !soft)
    return { ...simulated, says: 'Only a probe can search: put it into the spindle.' }
  if (mounted.harmed) return { ...simulated, says: `${mounted.harmed.says} Put in another one.` }
  const { by } = withinReach(simulated, axis, asked)
  const way = by < 0 ? -1 : 1
  const most = Math.abs(by)
  const chance = dice(simulated.world.seed, simulated.drawn)
  const touch = chance.within(finderIn(mounted, simulated.world)?.repeats ?? 0)
  const room = freeAlong(simulated, [soft], axis, way, most)
  const hard = freeAlong(simulated, hardPieces(simulated), axis, way, most)
  const trigger = room.meets ? Math.max(0, room.free - touch) : Number.POSITIVE_INFINITY
  const gone = Math.min(trigger, hard.free, most)
  const at = { ...simulated.at, [axis]: simulated.at[axis] + way * gone }
  const after = {
    ...simulated,
    at,
    drawn: chance.drawn,
    worked: simulated.worked + 1 + gone / inch(simulated, SEARCH),
    mounted: { ...mounted, touch },
  }
  if (hard.meets && hard.free < trigger) return collision(after, hard.meets)
  if (!room.meets)
    return alarmed(
      { ...after, tally: { ...simulated.tally, misses: simulated.tally.misses + 1 } },
      'no-contact',
      `The probe went ${text(simulated, most)} along ${axis} and touched nothing.`,
      'Reset, and look where the tip is: beside the part, above it? Search only a little further than the gap.',
    )
  return {
    ...after,
    mounted: { ...after.mounted, triggered: { axis, at: at[axis] } },
    says: `The probe triggered at ${axis} ${formatLength(at[axis], simulated.world.unit)}.`,
  }
}

export function up(simulated: SimulatedMill): SimulatedMill {
  const by = simulated.world.machine.home.Z - simulated.at.Z
  return moveMill(simulated, 'Z', by, 1 + Math.abs(by) / inch(simulated, JOG))
}

export function home(simulated: SimulatedMill): SimulatedMill {
  const raised = up(simulated)
  if (raised.alarm) return raised
  const { home: to } = simulated.world.machine
  const at = Object.fromEntries(LINEAR_AXES.map((axis) => [axis, to[axis]])) as SimulatedState['at']
  const homed = homedRotary({ ...raised, at })
  return {
    ...settled(homed),
    worked: raised.worked + 8,
    says: `Home: Z first, then X and Y${homed.turn && raised.world.rotary ? ` and ${raised.world.rotary.word}` : ''}.`,
  }
}

/** Turns the rotary, and what it holds with it: as far as nothing is met. */
export function turn(simulated: SimulatedMill, { by }: ActionOf<'turn'>): SimulatedMill {
  if (!simulated.turn || !simulated.world.rotary) return { ...simulated, says: 'This machine has no rotary.' }
  if (!onRotary(simulated)) return { ...simulated, says: 'The rotary is not on the table.' }
  const { word } = simulated.world.rotary
  const before = { ...simulated, worked: simulated.worked + 1 + Math.abs(by) / 30, says: '' }
  const looks = Math.max(1, Math.ceil(Math.abs(by) / LOOK_EVERY))
  const soft = softPiece(simulated)
  const finder = finderIn(simulated.mounted, simulated.world)
  for (let look = 1; look <= looks; look++) {
    const at = turnedBy(before, (by * look) / looks)
    const z = tipZ(at)
    for (const body of lying(at)) {
      const met = hardPieces(at).find((piece) => depthIn(body, piece, { x: at.at.X, y: at.at.Y }, z) > 1e-9)
      if (met) return collision(at, { piece: met.name, body: body.name })
      if (
        soft &&
        finder &&
        isFinding(at.mounted) &&
        depthIn(body, soft, tipSpot(at), z) > pushAllowed(finder)
      )
        return harmed(at, finder, at.mounted)
    }
  }
  const turned = settled(turnedBy(before, by))
  return turned.says
    ? turned
    : { ...turned, says: `${word} stands at ${degreesText(turned.turn?.shown ?? 0)}.` }
}

export function spindle(simulated: SimulatedMill, { rpm }: ActionOf<'spindle'>): SimulatedMill {
  const { mounted } = simulated
  const turning = {
    ...simulated,
    rpm,
    worked: simulated.worked + 3,
    says: rpm === 0 ? 'The spindle stands.' : '',
  }
  if (rpm === 0 || !isFinding(mounted)) return turning
  if (mounted.kind !== 'edge-finder')
    return alarmed(
      simulated,
      'spindle',
      `The spindle must stand still with a ${finderIn(mounted, simulated.world)?.name} in it.`,
      'Reset. On a real machine it would be torn out.',
    )
  if (rpm > FINDER_RPM.most)
    return alarmed(
      { ...simulated, tally: { ...simulated.tally, bumps: simulated.tally.bumps + 1 } },
      'spindle',
      `At ${Math.round(rpm)} a minute an edge finder flies apart.`,
      'Reset, and run it at about 1000 a minute.',
    )
  return settled(turning)
}

const NEW_FINDER = {
  touch: 0,
  kicked: false,
  harmed: null,
  looks: 'X+',
  aside: 0,
  zero: 0,
  bumps: 0,
  triggered: null,
} as const

/** What is in the spindle when a tool of that number is: the machine's probe where it is its own. */
export const mountedTool = ({ world }: SimulatedState, tool: number): Mounted =>
  isMillWorld(world) && world.machine.probe?.tool === tool
    ? { kind: 'probe', ...NEW_FINDER }
    : { kind: 'tool', tool }

export function mount(simulated: SimulatedMill, { what, tool = 0 }: ActionOf<'mount'>): SimulatedMill {
  if (what === 'tool' && !trueTool(simulated.world, tool))
    return { ...simulated, says: `There is no T${tool} in this machine.` }
  const mounted: Mounted =
    what === 'nothing'
      ? { kind: 'nothing' }
      : what === 'tool'
        ? mountedTool(simulated, tool)
        : { kind: what, ...NEW_FINDER }
  // It goes to the top by itself before it changes. Common practice.
  const at = { ...simulated.at, Z: simulated.world.machine.home.Z }
  const put: SimulatedMill = {
    ...simulated,
    at,
    mounted,
    rpm: 0,
    worked: simulated.worked + 25,
  }
  const name = what === 'tool' ? `T${tool}` : (finderIn(mounted, simulated.world)?.name ?? 'nothing')
  return { ...settled(put), says: `In the spindle now: ${name}.` }
}
