import { axesOf, type LinearAxis } from '@dogleg/core/machine'
import { convertLength, fixedDigits } from '@dogleg/core/quantity'
import { positionsShown, type SimulatedState } from '@dogleg/core/simulated'

/** One value that was seen to be so from a time on, in the words and units of MTConnect. */
export interface Observation {
  sequence: number
  /** The data item that it is of. */
  id: string
  value: string
  /** ms since 1970. */
  at: number
}

/** Where a data item stands among the components of a machine. */
export interface DataItem {
  id: string
  component: 'Device' | 'Linear' | 'Rotary' | 'Controller' | 'Path'
  /** Name of the component. */
  of: string
  category: 'SAMPLE' | 'EVENT' | 'CONDITION'
  type: string
  /** The element that it is in a stream: the type in camel case (MTConnect part 3). */
  element: string
  subType?: string
  units?: string
  nativeUnits?: string
  coordinateSystem?: 'MACHINE'
}

const positionItem = (axis: LinearAxis, nativeUnits: string): DataItem => ({
  id: `${axis.toLowerCase()}_position`,
  component: 'Linear',
  of: axis,
  category: 'SAMPLE',
  type: 'POSITION',
  element: 'Position',
  subType: 'ACTUAL',
  units: 'MILLIMETER',
  nativeUnits,
  coordinateSystem: 'MACHINE',
})

/** The angle of a rotary in machine positions, in degrees (MTConnect part 2, ANGLE). */
const angleItem = (word: string): DataItem => ({
  id: `${word.toLowerCase()}_angle`,
  component: 'Rotary',
  of: word,
  category: 'SAMPLE',
  type: 'ANGLE',
  element: 'Angle',
  subType: 'ACTUAL',
  units: 'DEGREE',
  coordinateSystem: 'MACHINE',
})

/** Every data item of a simulated machine, component by component. */
export function dataItems({ world }: SimulatedState): DataItem[] {
  const native = world.unit === 'inch' ? 'INCH' : 'MILLIMETER'
  return [
    {
      id: 'avail',
      component: 'Device',
      of: '',
      category: 'EVENT',
      type: 'AVAILABILITY',
      element: 'Availability',
    },
    ...axesOf(world.machine).map((axis) => positionItem(axis, native)),
    ...(world.machine.rotary ? [angleItem(world.machine.rotary.word)] : []),
    {
      id: 's_speed',
      component: 'Rotary',
      of: 'S',
      category: 'SAMPLE',
      type: 'ROTARY_VELOCITY',
      element: 'RotaryVelocity',
      subType: 'ACTUAL',
      units: 'REVOLUTION/MINUTE',
    },
    {
      id: 'system',
      component: 'Controller',
      of: 'controller',
      category: 'CONDITION',
      type: 'SYSTEM',
      element: 'Normal',
    },
    {
      id: 'execution',
      component: 'Path',
      of: 'path',
      category: 'EVENT',
      type: 'EXECUTION',
      element: 'Execution',
    },
    {
      id: 'mode',
      component: 'Path',
      of: 'path',
      category: 'EVENT',
      type: 'CONTROLLER_MODE',
      element: 'ControllerMode',
    },
    {
      id: 'tool',
      component: 'Path',
      of: 'path',
      category: 'EVENT',
      type: 'TOOL_NUMBER',
      element: 'ToolNumber',
    },
    {
      id: 'line',
      component: 'Path',
      of: 'path',
      category: 'EVENT',
      type: 'LINE_NUMBER',
      subType: 'ABSOLUTE',
      element: 'LineNumber',
    },
  ]
}

/** Execution states, as MTConnect names them. */
function executionOf({ run, alarm }: SimulatedState): string {
  if (alarm) return 'STOPPED'
  switch (run?.phase) {
    case 'running':
      return 'ACTIVE'
    case 'held':
      return 'FEED_HOLD'
    case 'stopped':
      return 'INTERRUPTED'
    case 'done':
      return 'PROGRAM_COMPLETED'
    default:
      return 'READY'
  }
}

/** What each data item is now. Positions in mm, whatever the control shows: so the standard has it. */
export function observe(simulated: SimulatedState): { id: string; value: string }[] {
  const { world, run, plan, turn } = simulated
  const positions = positionsShown(simulated)
  return [
    { id: 'avail', value: 'AVAILABLE' },
    ...axesOf(world.machine).map((axis) => ({
      id: `${axis.toLowerCase()}_position`,
      // Six digits of a mm hold a ten-thousandth of an inch exactly.
      value: fixedDigits(convertLength(positions[axis] ?? 0, world.unit, 'mm'), 6),
    })),
    ...(world.machine.rotary && turn
      ? [{ id: `${world.machine.rotary.word.toLowerCase()}_angle`, value: fixedDigits(turn.shown, 3) }]
      : []),
    { id: 's_speed', value: String(Math.round(simulated.rpm)) },
    {
      id: 'system',
      value: simulated.alarm ? `FAULT ${simulated.alarm.code}: ${simulated.alarm.says}` : 'NORMAL',
    },
    { id: 'execution', value: executionOf(simulated) },
    { id: 'mode', value: run && run.phase !== 'ready' ? 'AUTOMATIC' : 'MANUAL' },
    { id: 'tool', value: simulated.mounted.kind === 'tool' ? String(simulated.mounted.tool) : 'UNAVAILABLE' },
    {
      id: 'line',
      value:
        run && plan
          ? String(plan.motion.blockLine[Math.min(run.block, plan.motion.blocks - 1)] ?? 0)
          : 'UNAVAILABLE',
    },
  ]
}
