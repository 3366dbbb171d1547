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
  tablet?: string | undefined
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

/** Data as a text; undefined where it is nested too deeply to be put into one. */
function textOf(data: unknown): string | undefined {
  try {
    return JSON.stringify(data) ?? ''
  } catch {
    return undefined
  }
}

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
    wrong: string,
    data: unknown,
    place: Place,
    text: string | undefined,
  ): UnreadEntry => {
    const kind = isObject(data) ? textIn(data, 'kind') : undefined
    const raw = text ?? textOf(data)
    const own = looks === 'newer' && raw !== undefined ? stampOf.safeParse(data).data : undefined
    // What has no stamp was written by nobody. Of something damaged nothing is believed that is known from elsewhere.
    const why = own ? 'newer' : 'damaged'
    const says = raw === undefined ? 'It is nested too deeply to be kept.' : wrong
    const said = isObject(data) ? data : {}
    const { received, latest, tablet, seq } = place
    const at = own?.at ?? place.at ?? received ?? NO_TIME
    return {
      id: place.id ?? own?.id ?? textIn(said, 'id') ?? `unread-${seq ?? (raw ?? '').slice(0, 40)}`,
      setup: place.setup ?? own?.setup ?? textIn(said, 'setup') ?? '',
      at,
      by: own?.by ?? textIn(said, 'by')?.slice(0, 8) ?? '',
      kind: 'unread',
      why,
      says,
      raw: raw ?? '',
      ...(kind === undefined ? {} : { said: kind.slice(0, 40) }),
      ...(seq === undefined ? {} : { seq }),
      ...(received === undefined ? {} : { received }),
      ...(latest === undefined ? {} : { latest }),
      ...(tablet === undefined ? {} : { tablet }),
      ...(own?.clock ? { clock: own.clock } : {}),
    }
  }

  /** Reads data as an entry; `text` is what stands there, where that is known. */
  const read = (data: unknown, place: Place, trust: Trust, text: string | undefined): Entry | UnreadEntry => {
    const not = (why: UnreadEntry['why'], says: string) => unread(why, says, data, place, text)
    if (!isObject(data)) return not('damaged', 'This is no entry. (entry)')
    const kind = textIn(data, 'kind')
    if (kind === undefined) return not('damaged', 'It does not say what it is. (kind)')
    const known = byName.get(kind)
    if (!known) return not('newer', `There is no kind of entry "${kind.slice(0, 40)}" here. (kind)`)
    const today = raised(data, `a "${kind}"`, known)
    if (!today.ok) return not(today.why, today.says)
    if (trust === 'read-before') return today.data as Entry
    const found = known.schema.safeParse(today.data, { error: plainly })
    if (!found.success) return not('damaged', issueIn(found.error))
    if (place.setup !== undefined && (found.data as LogEntry).setup !== place.setup)
      return not('damaged', 'It says that it belongs to another setup.')
    return found.data as Entry
  }

  /** Reads data as an entry. */
  const readEntry = (data: unknown, place: Place = {}, trust: Trust = 'not-read-before') =>
    read(data, place, trust, undefined)

  /** Reads the text of an entry, as it was stored; what cannot be read of it is kept word for word. */
  const readEntryText = (text: string, place: Place = {}, trust: Trust = 'not-read-before') => {
    let data: unknown
    try {
      data = JSON.parse(text)
    } catch {
      return unread('damaged', 'What stands in its place is no entry.', undefined, place, text)
    }
    return read(data, place, trust, text)
  }

  /** What there is against an entry of today's shape that is about to be recorded, field by field. */
  const entryIssues = (entry: object): { field: string; says: string }[] => {
    const found: z.ZodSafeParseResult<unknown> | undefined = byName
      .get('kind' in entry ? String(entry.kind) : '')
      ?.schema.safeParse(entry, { error: plainly })
    if (!found) return [{ field: 'kind', says: 'There is no such kind of entry.' }]
    return (found.error?.issues ?? []).map(({ path, message }) => ({ field: String(path[0]), says: message }))
  }

  /** The shape that an entry of a kind is made in today, as it stands in it: the first is not said. */
  const shapeNow = (kind: string): { shape?: number } => {
    const shape = byName.get(kind)?.shape ?? 1
    return shape > 1 ? { shape } : {}
  }

  return { readEntry, readEntryText, entryIssues, shapeNow }
}
