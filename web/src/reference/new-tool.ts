import type { Machine, ToolKind, ToolShape } from '@dogleg/core/machine'
import { NEW } from './editing.ts'

/** What a new tool is known by before it is measured: what it is to do. */
export type BegunTool = Partial<Pick<ToolShape, 'name' | 'unit' | 'diameter' | 'pitch'>>

/** A new tool of a machine, with the next number, of which no more is known yet than what it is begun with. */
export function newTool(
  machine: Machine,
  tools: readonly ToolShape[],
  kind: ToolKind = 'mill',
  begun: BegunTool = {},
): ToolShape {
  const taken = tools.filter(({ machineId }) => machineId === machine.id).map(({ number }) => number)
  return {
    shape: 2,
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
    ...begun,
  }
}
