import { type AngleDraft, angleDraftOf, emptyAngleDraft } from '../angle/index.ts'
import type { LinearAxis } from '../machine/index.ts'
import { CARRIED, METHODS, methodsFor, type PickupDraft, type PickupMethod } from '../pickup/index.ts'
import type { EntryOf, Logged, OffsetState, Setup } from '../setup/index.ts'
import { reachOfPart } from './work-area.ts'

const isPickupBy = (entry: Logged, method: PickupMethod): entry is EntryOf<'pickup'> =>
  entry.kind === 'pickup' && entry.reading.method === method

const textIn = (part: unknown): string | undefined =>
  typeof part === 'number'
    ? String(part)
    : typeof part === 'object' && part !== null && 'text' in part
      ? String(part.text)
      : undefined

/** An empty form for an axis: what touched, as it was typed last in this setup, part zero on the feature. */
export function startingDraft(
  { log, machine }: Setup,
  axis: LinearAxis,
  method: PickupMethod = methodsFor(axis, machine)[0] ?? 'edge-finder',
): PickupDraft {
  const last = log.findLast(
    ({ entry, standing }) => standing !== 'struck' && isPickupBy(entry, method),
  )?.entry
  const draft: PickupDraft = { axis, method, choices: {}, fields: {} }
  const { fields, choices } = METHODS[method]
  for (const { name } of fields) {
    if (name.startsWith('drawing')) draft.fields[name] = '0'
    if (name === 'cornerAngle') draft.fields[name] = '90'
  }
  if (last?.kind !== 'pickup') return draft
  const parts = last.reading as Partial<Record<string, unknown>>
  for (const { name } of fields) {
    const text = CARRIED.includes(name) ? textIn(parts[name]) : undefined
    if (text !== undefined) draft.fields[name] = text
  }
  // The way into the face differs from axis to axis; what touched, and from where, seldom does.
  for (const { name } of choices) {
    const value = parts[name]
    if ((name === 'device' || name === 'side') && typeof value === 'string') draft.choices[name] = value
  }
  return draft
}

/** The method that an axis was last taken with in this setup, else the usual one. */
export function usualMethod({ log, machine }: Setup, axis: LinearAxis): PickupMethod {
  const methods = methodsFor(axis, machine)
  const last = log.findLast(
    ({ entry }) => entry.kind === 'pickup' && methods.includes(entry.reading.method),
  )?.entry
  return last?.kind === 'pickup' ? last.reading.method : (methods[0] ?? 'edge-finder')
}

/** An empty form for the angle of an offset: as it was measured last, without its points. */
export function startingAngle(setup: Setup, { angle }: OffsetState): AngleDraft {
  const { machine, unit, tolerance } = setup
  if (!angle)
    return emptyAngleDraft(tolerance, unit, machine.probe ? 'probe' : 'edge-finder', reachOfPart(setup))
  const { reading, ...asked } = angle.entry
  return { ...angleDraftOf(reading, asked), points: '', holes: '', features: '', angle: '' }
}
