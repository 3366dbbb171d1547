import type { Answer, Finding, Freshness } from '../fact/index.ts'
import type { Machine } from '../machine/index.ts'
import { judgeToolLength, pickupSettings, toolLength } from '../pickup/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import { inOrder, machineEdited } from './derive.ts'
import type { Entry, EntryOf } from './entries.ts'
import { effectiveStrikes } from './strikes.ts'

/** A tool's length as it stands in the machine's table, in the unit asked for. */
export interface ToolFact {
  tool: number
  length: Answer<number>
  entry: EntryOf<'tool-length'>
  freshness: Freshness
  findings: Finding[]
}

/**
 * The lengths of a machine's tools, from the logs of every setup on it: a tool keeps its length from one setup to the
 * next, until it is measured again.
 */
export function deriveTools(entries: readonly Entry[], machine: Machine, unit: LengthUnit): ToolFact[] {
  const ordered = inOrder(entries)
  const strikes = effectiveStrikes(ordered)
  const settings = pickupSettings(machine, unit)
  const tools = new Map<number, ToolFact>()
  for (const entry of ordered) {
    if (strikes.has(entry.id)) continue
    if (entry.kind === 'tool-length') {
      const length = toolLength(entry, settings)
      const last = tools.get(entry.tool)?.length.value
      tools.set(entry.tool, {
        tool: entry.tool,
        length,
        entry,
        freshness: { state: 'fresh' },
        findings: [
          ...judgeToolLength(entry, length, { machine, unit, last }),
          ...machineEdited(entry.machine, 'length', machine),
        ],
      })
    }
    if (entry.kind === 'happened' && entry.what === 'tool-measured-again' && entry.tool !== undefined) {
      const known = tools.get(entry.tool)
      if (known?.freshness.state === 'fresh')
        known.freshness = {
          state: 'stale',
          cause: {
            entryId: entry.id,
            at: entry.at,
            says: 'measured before it was measured again at the control',
          },
        }
    }
  }
  return [...tools.values()].sort((a, b) => a.tool - b.tool)
}
