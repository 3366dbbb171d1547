import type { Machine, ToolKind, ToolShape } from '@dogleg/core/machine'
import { NEW } from './editing.ts'

/** A new tool of a machine, with the next number, of which nothing else is known yet. */
export function newTool(machine: Machine, tools: readonly ToolShape[], kind: ToolKind = 'mill'): ToolShape {
  const taken = tools.filter(({ machineId }) => machineId === machine.id).map(({ number }) => number)
  return {
    id: NEW,
    version: 1,
    machineId: machine.id,
    number: Math.max(0, ...taken) + 1,
    name: '',
    kind,
    unit: machine.unit,
    diameter: Number.NaN,
    flute: Number.NaN,
    stickOut: Number.NaN,
    holderDiameter: Number.NaN,
    holderLength: Number.NaN,
    pitch: kind === 'tap' ? Number.NaN : null,
    note: '',
  }
}
