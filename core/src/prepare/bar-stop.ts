import {
  type BarStopSituation,
  type BarStopTask,
  type WrittenBarStop,
  writeBarStop,
} from '../bar-stop/index.ts'
import { barRange } from '../hold/index.ts'
import { offsetOf, type Setup } from '../setup/index.ts'

/** The geometry of a stop in the turret, by its station. */
const stopGeometry = (setup: Setup, tool: number) => offsetOf(setup, `T${tool}`).axes

/** What is known of the bar, the collet that closes on it and the stop, in the setup's unit. */
export function barStopSituation(setup: Setup, tool: number): BarStopSituation {
  const { machine, unit, hold } = setup
  const { X, Z } = stopGeometry(setup, tool)
  const { grip } = hold
  const drawsBack = grip && grip.spread.ratio > 0
  return {
    machine,
    unit,
    geometry: {
      ...(X ? { X: X.value } : {}),
      ...(Z ? { Z: Z.value + (setup.shift?.shift.value ?? 0) } : {}),
    },
    ...(grip ? { diameter: barRange(grip.entry.bars, unit).greatest } : {}),
    ...(drawsBack ? { drawnBack: { from: grip.collet.name, by: grip.spread.value } } : {}),
  }
}

/** The program that drives a stop to the bar, or the findings that stand against it. */
export const barStopProgram = (setup: Setup, task: BarStopTask): WrittenBarStop =>
  writeBarStop(task, barStopSituation(setup, task.tool), setup.profile, [
    `Setup: ${setup.opened.title}, ${setup.machine.name}.`,
    `Log ${setup.id}.`,
  ])

/** What such a program rests on: the geometry of the stop, and the collet or chuck whose face it counts from. */
export const barStopRests = (setup: Setup, tool: number): string[] => [
  ...Object.values(stopGeometry(setup, tool)).map(({ entry }) => entry.id),
  ...(setup.hold.grip ? [setup.hold.grip.entry.id] : []),
  ...(setup.shift ? [setup.shift.entry.id] : []),
]
