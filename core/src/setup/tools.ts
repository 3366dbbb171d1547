import { type Answer, type Finding, type Freshness, finding, howStale } from '../fact/index.ts'
import { effectiveStrikes, type Order, orderOf, unreadPast } from '../log/index.ts'
import type { Machine } from '../machine/index.ts'
import {
  isHeight,
  judgeSetter,
  judgeToolLength,
  pickupSettings,
  type Reading,
  setterHeight,
  toolLength,
} from '../pickup/index.ts'
import { convertLength, formatLength, formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { editedNote } from './edited.ts'
import { HAPPENINGS } from './happenings.ts'
import type { EntryOf, Logged } from './kinds.ts'

/** A tool's length as it stands in the machine's table, in the unit asked for. */
export interface ToolFact {
  tool: number
  length: Answer<number>
  entry: EntryOf<'tool-length'>
  freshness: Freshness
  findings: Finding[]
}

/** The setter of a machine as it was calibrated last, in the unit asked for. */
export interface SetterFact {
  height: Answer<number>
  entry: EntryOf<'setter'>
  freshness: Freshness
  findings: Finding[]
}

/** What counts of a machine's entries, in order. */
interface Counting {
  counting: readonly Logged[]
  surelyBefore: Order<Logged>['surelyBefore']
}

function countingOf(entries: readonly Logged[]): Counting {
  const order = orderOf(entries)
  const strikes = effectiveStrikes(order.ordered)
  return {
    counting: order.ordered.filter(({ id }) => !strikes.has(id)),
    surelyBefore: (one, other) => order.surelyBefore(one, other),
  }
}

/** After these a setter may have been knocked, or home is elsewhere: it is calibrated again (common practice). */
const KNOCKED: readonly string[] = ['alarm', 'homed-again']

/**
 * The tool setter of a machine, from the logs of every setup on it: it keeps its height from one setup to the next, until an alarm or
 * a homing makes it doubtful, or it is calibrated again. Undefined where nobody did.
 */
export function deriveSetter(
  entries: readonly Logged[],
  machine: Machine,
  unit: LengthUnit,
): SetterFact | undefined {
  const { counting, surelyBefore } = countingOf(entries)
  const settings = pickupSettings(machine, unit)
  const all = counting.filter((entry): entry is EntryOf<'setter'> => entry.kind === 'setter')
  const entry = all.at(-1)
  if (!entry) return undefined
  const height = setterHeight(entry.reading, settings)
  const before = all.at(-2)
  const was = before && setterHeight(before.reading, settings)
  const since = counting.find(
    (each) =>
      (each.kind === 'unread' || (each.kind === 'happened' && KNOCKED.includes(each.what))) &&
      !surelyBefore(each, entry),
  )
  const past =
    since?.kind === 'unread'
      ? unreadPast(since)
      : since?.kind === 'happened'
        ? HAPPENINGS[since.what].past
        : ''
  return {
    height,
    entry,
    freshness: since
      ? {
          state: 'stale',
          cause: {
            entryId: since.id,
            at: since.at,
            says: `${surelyBefore(entry, since) ? '' : 'perhaps '}calibrated before ${past}`,
          },
        }
      : { state: 'fresh' },
    findings: [
      ...judgeSetter(entry.reading, height, {
        machine,
        unit,
        last: was && { value: was.value, doubt: was.doubt.value },
      }),
      ...editedNote(entry.machine, 'setter', machine),
    ],
  }
}

/** Whether a setter was found to lie elsewhere than a length was measured with: further than both may be off. */
function liesElsewhere(now: EntryOf<'setter'>, { setter, masterPosition }: EntryOf<'tool-length'>): boolean {
  if (!setter || setter.entry === now.id) return false
  const { value, doubt } = setterHeight(now.reading, { unit: 'mm', leastStep: 0 })
  const inMm = ({ value: of, unit }: { value: number; unit: LengthUnit }) => convertLength(of, unit, 'mm')
  return Math.abs(value - inMm(masterPosition)) > 3 * Math.hypot(doubt.value, inMm(setter.within))
}

/** What cannot be read and was not surely made before a length was measured may have been another. */
function unreadSince(of: EntryOf<'tool-length'>, { counting, surelyBefore }: Counting): Freshness {
  const unread = counting.find((entry) => entry.kind === 'unread' && !surelyBefore(entry, of))
  if (unread?.kind !== 'unread') return { state: 'fresh' }
  const says = `${surelyBefore(of, unread) ? '' : 'perhaps '}measured before ${unreadPast(unread)}`
  return { state: 'stale', cause: { entryId: unread.id, at: unread.at, says } }
}

/** Whether a length still holds: the tool was not measured again, here or at the control, by anything that is not surely older. */
function measuredSince(of: EntryOf<'tool-length'>, { counting, surelyBefore }: Counting): Freshness {
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
  const moved = counting.find(
    (entry) => entry.kind === 'setter' && !surelyBefore(entry, of) && liesElsewhere(entry, of),
  )
  if (moved && !since && !rival)
    return {
      state: 'stale',
      cause: {
        entryId: moved.id,
        at: moved.at,
        says: `${surelyBefore(of, moved) ? '' : 'perhaps '}measured before the setter was found to lie elsewhere`,
      },
    }
  const by = since ?? rival
  if (!by) return unreadSince(of, { counting, surelyBefore })
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
export function deriveTools(entries: readonly Logged[], machine: Machine, unit: LengthUnit): ToolFact[] {
  const { counting, surelyBefore } = countingOf(entries)
  const settings = pickupSettings(machine, unit)
  const tools = new Map<number, ToolFact>()
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
          ...editedNote(entry.machine, 'length', machine),
        ],
      })
    }
  }
  for (const tool of tools.values()) tool.freshness = measuredSince(tool.entry, { counting, surelyBefore })
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
        `It ${howStale(known.freshness.cause)}; it stood at ${formatWithUnit(value, unit)}.`,
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
