import diff from 'microdiff'
import type { AnyRow } from './row.ts'

/** What one part of a row was and is, in words: 'travels, X, least: -30, now -32'. */
export interface RowChange {
  /** The part, from the outside in. */
  of: string
  /** Empty where there was nothing. */
  was: string
  /** Empty where there is nothing now. */
  is: string
}

/** A text that is shown of a value, in characters at most. */
const LONGEST = 80
/** What every version has of its own. */
const NOT_SAID: ReadonlySet<string> = new Set(['id', 'version', 'shape'])

/** A name in code as words: 'jawLength' is 'jaw length'. */
const inWords = (name: string | number) =>
  typeof name === 'number'
    ? String(name + 1)
    : name.replaceAll(
        /([a-z0-9])([A-Z])/g,
        (_all, end: string, next: string) => `${end} ${next.toLowerCase()}`,
      )

function said(value: unknown): string {
  if (value === undefined || value === null || value === '') return ''
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  const text =
    typeof value === 'object' ? Object.values(value).map(said).filter(Boolean).join(', ') : String(value)
  return text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text
}

/** What of a row is another in a later version of it, part by part. */
export const rowChanges = (before: AnyRow, after: AnyRow): RowChange[] =>
  diff(before as object as Record<string, unknown>, after as object as Record<string, unknown>)
    .filter(({ path }) => !NOT_SAID.has(String(path[0])))
    .map((each) => ({
      of: each.path.map(inWords).join(', '),
      was: said('oldValue' in each ? each.oldValue : undefined),
      is: said('value' in each ? each.value : undefined),
    }))
