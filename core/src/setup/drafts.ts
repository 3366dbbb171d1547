import type { LinearAxis } from '../machine/index.ts'
import {
  type FieldName,
  METHOD_FIELDS,
  methodsFor,
  type PickupDraft,
  type PickupMethod,
} from '../pickup/index.ts'
import type { Setup } from './derive.ts'
import type { Entry, EntryOf } from './entries.ts'

/** What stays the same from one pickup to the next; positions are always typed anew. */
const CARRIED: readonly FieldName[] = ['diameter', 'tool', 'toolLength', 'blockHeight']

const isPickupBy = (entry: Entry, method: PickupMethod): entry is EntryOf<'pickup'> =>
  entry.kind === 'pickup' && entry.reading.method === method

/** An empty form for an axis: the finder, the tool and the block as they were typed last in this setup, part zero on the feature. */
export function startingDraft(
  { log }: Setup,
  axis: LinearAxis,
  method: PickupMethod = methodsFor(axis)[0] ?? 'edge-finder',
): PickupDraft {
  const last = log.findLast(
    ({ entry, standing }) => standing !== 'struck' && isPickupBy(entry, method),
  )?.entry
  const fields: PickupDraft['fields'] = { drawingPosition: '0' }
  if (last?.kind === 'pickup') {
    for (const [name, part] of Object.entries(last.reading)) {
      const field = METHOD_FIELDS[method].find((each) => each === name && CARRIED.includes(each))
      if (field) fields[field] = typeof part === 'object' ? part.text : String(part)
    }
  }
  return { axis, method, fields }
}

/** The method that an axis was last taken with in this setup, else the usual one. */
export function usualMethod({ log }: Setup, axis: LinearAxis): PickupMethod {
  const methods = methodsFor(axis)
  const last = log.findLast(
    ({ entry }) => entry.kind === 'pickup' && methods.includes(entry.reading.method),
  )?.entry
  return last?.kind === 'pickup' ? last.reading.method : (methods[0] ?? 'edge-finder')
}
