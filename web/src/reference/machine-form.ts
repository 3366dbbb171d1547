import { type Machine, machine as machineSchema } from '@dogleg/core/machine'
import { type Typed, type TypedNumbers, typedResolver } from './typed-form.ts'

export type MachineForm = Typed<Machine>

export const MACHINE_NUMBERS: TypedNumbers = {
  leastStep: 'length',
  'axes.*.*': 'length',
  'home.*': 'length',
  'secondHome.*': 'length',
  'rapids.*': 'length',
  'rapidMarks.*': 'number',
  'dynamics.acceleration.*': 'length',
  'dynamics.smoothing': 'number',
  'dynamics.topFeed': 'length',
  'dynamics.cornerTolerance': 'length',
  'dynamics.spindleTop': 'number',
  'dynamics.tapTop': 'number',
  'dynamics.spindleAcceleration': 'number',
  'dynamics.toolChange': 'number',
  'dynamics.rotary.top': 'number',
  'dynamics.rotary.acceleration': 'number',
  'head.*': 'length',
  'head.nose.*': 'length',
  'turret.stations': 'number',
  'turret.across': 'length',
  'turret.thick': 'length',
  'rotary.turns.*': 'number',
  'costs.anHour': 'number',
  'costs.shiftsAMonth': 'number',
  'pallets.count': 'number',
  'pallets.swap': 'number',
  'probe.tool': 'number',
  'probe.stylus': 'length',
  'probe.reach': 'length',
  'probe.body': 'length',
  'probe.overtravel': 'length',
  'around.tableDepth': 'length',
  'around.obstacles.*.at': 'length',
  'around.obstacles.*.bottom': 'length',
  'around.obstacles.*.top': 'length',
}

export const machineResolver = typedResolver<Machine>(machineSchema, MACHINE_NUMBERS, ({ unit }) => unit)
