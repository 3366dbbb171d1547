import { z } from 'zod'
import type { LogEntry } from './entry.ts'
import type { AnyKind } from './kind.ts'
import { plainly } from './plainly.ts'
import { isObject, issueIn, raised } from './shapes.ts'
import { clockStamp } from './stamp.ts'
import { NO_TIME, type UnreadEntry } from './unread.ts'

/** What is known of where something stood that cannot be read as an entry. */
export interface Place {
  id?: string
  setup?: string
  seq?: number
  /** When it was written, as far as whoever kept it knows, ISO 8601. */
  at?: string
  received?: string | undefined
  latest?: string | undefined
}

const textIn = (data: Readonly<Record<string, unknown>>, name: string) => {
  const value = data[name]
  return typeof value === 'string' ? value : undefined
}

/** What of a stamp can be relied on where the rest was written by a newer version: the stamp is older than any kind. */
const stampOf = z.looseObject({
  id: z.string().min(1),
  setup: z.string().min(1),
  at: z.iso.datetime({ precision: 3 }),
  by: z.string(),
  clock: clockStamp.optional().catch(undefined),
})

/** How an entry is read: by its schema, or, where it was read by it before, as it is. */
export type Trust = 'read-before' | 'not-read-before'

/**
 * The one door from stored or received data to an entry: whatever it was written by, it comes out in today's shape of its kind,
 * or as what cannot be read here. `place` says what is known of it beside what it says itself.
 */
export function entryDoor<Entry extends LogEntry>(list: readonly AnyKind[]) {
  const byName = new Map<string, AnyKind>(list.map((each) => [each.kind, each]))

  const unread = (
    looks: UnreadEntry['why'],
    says: string,
    data: unknown,
    place: Place,
    raw = JSON.stringify(data) ?? '',
  ): UnreadEntry => {
    const kind = isObject(data) ? textIn(data, 'kind') : undefined
    const own = looks === 'newer' ? stampOf.safeParse(data).data : undefined
    // What has no stamp was written by nobody. Of something damaged nothing is believed that is known from elsewhere.
    const why = own ? 'newer' : 'damaged'
    const said = isObject(data) ? data : {}
    const { received, latest, seq } = place
    const at = own?.at ?? place.at ?? received ?? NO_TIME
    return {
      id: place.id ?? own?.id ?? textIn(said, 'id') ?? `unread-${seq ?? raw.slice(0, 40)}`,
      setup: place.setup ?? own?.setup ?? textIn(said, 'setup') ?? '',
      at,
      by: own?.by ?? textIn(said, 'by')?.slice(0, 8) ?? '',
      kind: 'unread',
      why,
      says,
      raw,
      ...(kind === undefined ? {} : { said: kind.slice(0, 40) }),
      ...(seq === undefined ? {} : { seq }),
      ...(received === undefined ? {} : { received }),
      ...(latest === undefined ? {} : { latest }),
      ...(own?.clock ? { clock: own.clock } : {}),
    }
  }

  /** Reads data as an entry. */
  const readEntry = (
    data: unknown,
    place: Place = {},
    trust: Trust = 'not-read-before',
  ): Entry | UnreadEntry => {
    if (!isObject(data)) return unread('damaged', 'This is no entry. (entry)', data, place)
    const kind = textIn(data, 'kind')
    if (kind === undefined) return unread('damaged', 'It does not say what it is. (kind)', data, place)
    const known = byName.get(kind)
    if (!known)
      return unread('newer', `There is no kind of entry "${kind.slice(0, 40)}" here. (kind)`, data, place)
    const today = raised(data, `a "${kind}"`, known)
    if (!today.ok) return unread(today.why, today.says, data, place)
    if (trust === 'read-before') return today.data as Entry
    const read = known.schema.safeParse(today.data, { error: plainly })
    if (!read.success) return unread('damaged', issueIn(read.error), data, place)
    if (place.setup !== undefined && (read.data as LogEntry).setup !== place.setup)
      return unread('damaged', 'It says that it belongs to another setup.', data, place)
    return read.data as Entry
  }

  /** Reads the text of an entry, as it was stored. */
  const readEntryText = (text: string, place: Place = {}, trust?: Trust): Entry | UnreadEntry => {
    let data: unknown
    try {
      data = JSON.parse(text)
    } catch {
      return unread('damaged', 'What stands in its place is no entry.', undefined, place, text)
    }
    return readEntry(data, place, trust)
  }

  /** What there is against an entry of today's shape that is about to be recorded, field by field. */
  const entryIssues = (entry: object): { field: string; says: string }[] => {
    const read: z.ZodSafeParseResult<unknown> | undefined = byName
      .get('kind' in entry ? String(entry.kind) : '')
      ?.schema.safeParse(entry, { error: plainly })
    if (!read) return [{ field: 'kind', says: 'There is no such kind of entry.' }]
    return (read.error?.issues ?? []).map(({ path, message }) => ({ field: String(path[0]), says: message }))
  }

  return { readEntry, readEntryText, entryIssues }
}
