import { type Answer, type Finding, type Freshness, finding } from '../fact/index.ts'
import { type Order, orderOf } from '../log/index.ts'
import type { Machine } from '../machine/index.ts'
import { isHeight, judgeToolLength, pickupSettings, type Reading, toolLength } from '../pickup/index.ts'
import { convertLength, formatLength, formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { machineEdited } from './derive.ts'
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

/** Whether a length still holds: the tool was not measured again, here or at the control, by anything that is not surely older. */
function measuredSince(
  of: EntryOf<'tool-length'>,
  counting: readonly Entry[],
  surelyBefore: Order<Entry>['surelyBefore'],
): Freshness {
  const since = counting.find(
    (entry) =>
      entry.kind === 'happened' &&
      entry.what === 'tool-measured-again' &&
      entry.tool === of.tool &&
      !surelyBefore(entry, of),
  )
  const rival = counting.findLast(
    (entry) =>
      entry !== of && entry.kind === 'tool-length' && entry.tool === of.tool && !surelyBefore(entry, of),
  )
  const by = since ?? rival
  if (!by) return { state: 'fresh' }
  const before = since
    ? 'measured before it was measured again at the control'
    : `measured before it was measured by ${by.by}`
  const says = surelyBefore(of, by) ? before : `perhaps ${before}, the order is not sure`
  return { state: 'stale', cause: { entryId: by.id, at: by.at, says } }
}

/**
 * The lengths of a machine's tools, from the logs of every setup on it: a tool keeps its length from one setup to the
 * next, until it is measured again.
 */
export function deriveTools(entries: readonly Entry[], machine: Machine, unit: LengthUnit): ToolFact[] {
  const { ordered, surelyBefore } = orderOf(entries)
  const strikes = effectiveStrikes(ordered)
  const settings = pickupSettings(machine, unit)
  const tools = new Map<number, ToolFact>()
  const counting = ordered.filter(({ id }) => !strikes.has(id))
  for (const entry of counting) {
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
  }
  for (const tool of tools.values()) tool.freshness = measuredSince(tool.entry, counting, surelyBefore)
  return [...tools.values()].sort((a, b) => a.tool - b.tool)
}

/** A length that is typed for a Z against the one in the table: another length, or one that no longer holds. */
export function againstTable(reading: Reading, tools: readonly ToolFact[], unit: LengthUnit): Finding[] {
  if (!isHeight(reading)) return []
  const known = tools.find(({ tool }) => tool === reading.tool)
  if (!known) return []
  const { value, doubt } = known.length
  const typed = convertLength(reading.toolLength.value, reading.toolLength.unit, unit)
  const name = `T${reading.tool}`
  if (known.freshness.state === 'stale')
    return [
      finding(
        'note',
        'table-stale',
        'toolLength',
        `The length of ${name} in the tool table is stale.`,
        `It was ${known.freshness.cause.says}; it stood at ${formatWithUnit(value, unit)}.`,
      ),
    ]
  if (Math.abs(typed - value) <= 3 * doubt.value) return []
  return [
    finding(
      'look',
      'length-not-in-table',
      'toolLength',
      `${name} is ${formatLength(value, unit)} in the tool table, not ${formatLength(typed, unit)}.`,
      `Measured by ${known.entry.by}; the two differ by more than three times its doubt. A Z that is found with the wrong length is off by the difference.`,
      'Check which length the control has.',
    ),
  ]
}
