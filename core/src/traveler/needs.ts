import { toolsOf } from '../code/index.ts'
import type { CodedFact, OffsetState, Setup, ToolFact } from '../setup/index.ts'
import { offsetOf } from '../setup/index.ts'
import type { Around } from './task.ts'

/** The cycles of a program that are switched on. */
export const cyclesOn = ({ entry }: CodedFact) => entry.sheet.items.filter(({ off }) => !off)

/** The tools that a program of the setup uses, built here or proved here, by number. */
export function toolsNeeded(
  { code, prove, machine }: Setup,
  { reference }: Pick<Around, 'reference'>,
): number[] {
  const used = new Set(code.coded.flatMap((fact) => cyclesOn(fact).flatMap(toolsOf)))
  for (const { entry } of prove.proofs) {
    for (const { tool } of entry.lengths) used.add(tool)
    for (const tool of entry.uses ?? []) used.add(tool)
    for (const row of reference.tools)
      if (row.machineId === machine.id && entry.tools.some(({ id }) => id === row.id)) used.add(row.number)
  }
  return [...used].filter((tool) => tool > 0).sort((a, b) => a - b)
}

/** A tool that a program of a mill needs the length of, and the length as far as it is known. */
export interface NeededLength {
  tool: number
  known?: ToolFact
}

/** Of a mill: on a lathe the geometry of each tool is an offset. */
export const lengthsNeeded = (setup: Setup, around: Pick<Around, 'reference' | 'lengths'>): NeededLength[] =>
  setup.machine.kind === 'lathe'
    ? []
    : toolsNeeded(setup, around).map((tool) => {
        const known = around.lengths.find((each) => each.tool === tool)
        return known ? { tool, known } : { tool }
      })

/** The offsets of the setup, and those that its programs need and nobody began. */
export function offsetsNeeded(setup: Setup): OffsetState[] {
  const { offsets, machine, code, prove } = setup
  const geometry =
    machine.kind === 'lathe' ? code.coded.flatMap((fact) => cyclesOn(fact).flatMap(toolsOf)) : []
  const named = [...geometry.map((tool) => `T${tool}`), ...prove.proofs.map(({ entry }) => entry.frame)]
  const missing = [...new Set(named)].filter((name) => !offsets.some((offset) => offset.name === name))
  return [...offsets, ...missing.map((name) => offsetOf(setup, name))]
}
