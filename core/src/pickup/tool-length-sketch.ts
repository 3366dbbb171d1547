import type { LengthUnit } from '../quantity/index.ts'
import { readPosition } from './position.ts'
import type { ToolLengthDraft } from './tool-length.ts'

/** The master and a tool on the same block, as machine positions of Z in the setup's unit. */
export interface ToolSketch {
  /** Where the gauge line stands with each. */
  master: number
  tool: number
  /** Top of the block, as far below as the picture needs it. */
  block: number
  least: number
  greatest: number
  /** How much longer the tool is than the master; undefined while a position is not known. */
  longerBy: number | undefined
  known: ReadonlySet<'masterPosition' | 'machinePosition'>
}

/** Works out the picture of a tool's length, however much has been typed. */
export function toolSketch(draft: ToolLengthDraft, unit: LengthUnit): ToolSketch {
  const inch = unit === 'inch' ? 1 : 25
  const known = new Set<'masterPosition' | 'machinePosition'>()
  const at = (field: 'masterPosition' | 'machinePosition') => {
    const entry = readPosition(draft[field], unit)
    if (entry.ok) known.add(field)
    return entry.ok ? entry.value.value : undefined
  }
  const [typedMaster, typedTool] = [at('masterPosition'), at('machinePosition')]
  const master = typedMaster ?? (typedTool ?? 0) - inch
  const tool = typedTool ?? master + inch
  const length = readPosition(draft.masterLength, unit)
  // A master of length 0 still has a body to be drawn.
  const body = length.ok && length.value.value > 0 ? length.value.value : 3 * inch
  const block = Math.min(master - body, tool - 0.5 * inch)
  const span = Math.max(master, tool) - block
  return {
    master,
    tool,
    block,
    known,
    longerBy: known.size === 2 ? tool - master : undefined,
    least: block - 0.2 * span,
    greatest: Math.max(master, tool) + 0.05 * span,
  }
}
