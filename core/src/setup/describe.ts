import { METHOD_NAMES, type PickupSettings, pickUp, type Reading } from '../pickup/index.ts'
import { describeTyped, formatWithUnit } from '../quantity/index.ts'
import type { Entry } from './entries.ts'
import { HAPPENINGS } from './happenings.ts'

export interface Description {
  /** What happened, in a few words. */
  says: string
  /** As typed, or in the person's own words. */
  detail: string
}

const FIELD_WORDS: Record<string, string> = {
  diameter: 'diameter',
  machinePosition: 'machine position',
  minusSide: 'minus side',
  plusSide: 'plus side',
  toolLength: 'tool length',
  blockHeight: 'block',
  drawingPosition: 'on the drawing',
}

function readingDetail(reading: Reading): string {
  const lengths = Object.entries(reading).flatMap(([name, part]) =>
    typeof part === 'object' ? [`${FIELD_WORDS[name] ?? name} ${describeTyped(part)}`] : [],
  )
  const direction = reading.method === 'edge-finder' ? [`moving ${reading.axis}${reading.direction}`] : []
  const tool = reading.method === 'tool-on-block' ? [`T${reading.tool}`] : []
  return [METHOD_NAMES[reading.method], ...direction, ...tool, ...lengths].join(', ')
}

/** One line of the logbook for an entry. `describeTarget` words the entry that a strike is about. */
export function describeEntry(
  entry: Entry,
  settings: PickupSettings,
  describeTarget: (id: string) => string,
): Description {
  switch (entry.kind) {
    case 'opened':
      return {
        says: `Setup opened: ${entry.title}`,
        detail: `${entry.machine.id} version ${entry.machine.version}, ${entry.unit}, part zero within ${describeTyped(entry.tolerance)}`,
      }
    case 'pickup': {
      const { axis, value } = pickUp(entry.reading, settings)
      return {
        says: `${entry.offset} ${axis} is ${formatWithUnit(value, settings.unit)}`,
        detail: readingDetail(entry.reading),
      }
    }
    case 'checked':
      return {
        says:
          entry.result === 'agrees'
            ? `${entry.offset} checked with a pointed tool: it stands over part zero`
            : `${entry.offset} checked with a pointed tool: it stands off`,
        detail: entry.note,
      }
    case 'program':
      return {
        says: `Program for ${entry.offset} ${entry.how === 'copied' ? 'copied' : 'downloaded'}`,
        detail: `${entry.text.trimEnd().split('\n').length} lines, profile ${entry.profile.id} version ${entry.profile.version}`,
      }
    case 'happened':
      return {
        says: HAPPENINGS[entry.what].title + (entry.tool === undefined ? '' : `: T${entry.tool}`),
        detail: entry.note,
      }
    case 'note':
      return { says: 'Note', detail: entry.text }
    case 'struck':
      return { says: `Struck out: ${describeTarget(entry.target)}`, detail: entry.reason }
  }
}
