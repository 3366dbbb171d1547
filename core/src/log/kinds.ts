import type { LogEntry } from './entry.ts'
import type { Act, AnyKind, EntriesOf, Given, Link } from './kind.ts'

/** What one kind makes stale of another that knows nothing of it, nor it of the other. */
export interface AcrossRule {
  by: string
  acts: (entry: LogEntry, before: Link | undefined) => Act[]
}

/**
 * `past` follows 'before'. `reaches` says which facts an entry reaches, told what stood before it about its own subject; undefined
 * where it reaches none.
 */
export const across = <By extends AnyKind, Of extends AnyKind>(
  by: By,
  of: Of,
  past: string | ((entry: EntriesOf<By>) => string),
  reaches: (entry: EntriesOf<By>, before: Link | undefined) => ((fact: EntriesOf<Of>) => boolean) | undefined,
): AcrossRule => ({
  by: by.kind,
  acts: (made, before) => {
    const entry = made as EntriesOf<By>
    const reached = reaches(entry, before)
    if (!reached) return NOTHING
    return [
      {
        past: typeof past === 'string' ? past : past(entry),
        whom: ({ entry: fact }) => of.is(fact) && reached(fact as EntriesOf<Of>),
      },
    ]
  },
})

const NOTHING: Act[] = []
const NO_RULES: readonly AcrossRule[] = []

/** All the kinds of entry that there are, and what they make stale. */
export interface Kinds {
  of: (kind: string) => AnyKind | undefined
  /** What an entry makes stale, its fact's implications apart. */
  makesStale: (entry: LogEntry, before: Link | undefined, given: Given) => Act[]
  /** Whether entries of a kind can make anything stale, or take anything's place. */
  isHarmless: (kind: string) => boolean
}

export function kindsOf(list: readonly AnyKind[], rules: readonly AcrossRule[]): Kinds {
  const byName = new Map<string, AnyKind>(list.map((each) => [each.kind, each]))
  if (byName.size < list.length) throw new Error('Two kinds of entry have one name.')
  const rulesBy = new Map<string, AcrossRule[]>()
  for (const rule of rules) rulesBy.set(rule.by, [...(rulesBy.get(rule.by) ?? []), rule])
  return {
    of: (kind) => byName.get(kind),
    makesStale: (entry, before, given) => {
      const own = byName.get(entry.kind)?.makesStale
      let acts = own === 'nothing' || own === undefined ? NOTHING : own(entry, before, given)
      for (const rule of rulesBy.get(entry.kind) ?? NO_RULES) {
        const more = rule.acts(entry, before)
        if (more.length > 0) acts = acts.length > 0 ? [...acts, ...more] : more
      }
      return acts
    },
    isHarmless: (kind) => {
      const known = byName.get(kind)
      return (
        known !== undefined &&
        known.fact === undefined &&
        known.makesStale === 'nothing' &&
        kind !== 'struck' &&
        !rulesBy.has(kind)
      )
    },
  }
}
