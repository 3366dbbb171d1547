import { HAPPENINGS, type Logged, numbersWritten } from '../setup/index.ts'
import { programsAtControl } from './program-numbers.ts'

/** What a setup is found by. */
export const FOUND_BY = [
  'part',
  'people',
  'tools',
  'offsets',
  'programs',
  'notes',
  'numbers',
  'days',
  'state',
] as const
export type FoundBy = (typeof FOUND_BY)[number]

/** The words of a setup's log, by what they are, each once; and the rows of reference data that it names, by id. */
export interface SearchWords {
  words: Record<FoundBy, string[]>
  rows: string[]
}

/** What is said in words of somebody's own: the keys under which it stands, whatever the kind of entry. */
const OWN_WORDS: ReadonlySet<string> = new Set(['note', 'reason'])

type Put = (by: FoundBy, word: string) => void

/** Takes in what stands under a key, whatever the kind of entry: a tool, an offset, a title, a row, somebody's own words. */
function takeIn(key: string, value: unknown, put: Put, rows: Set<string>) {
  if (typeof value === 'number') {
    if (key === 'tool' && value > 0) put('tools', `T${value}`)
    if (key === 'number' && value > 0) put('programs', `O${value}`)
  } else if (typeof value === 'string') {
    if (key === 'offset' || key === 'frame') put('offsets', value)
    else if (key === 'title') put('programs', value)
    else if (OWN_WORDS.has(key)) put('notes', value)
  } else if (Array.isArray(value)) {
    for (const each of value) takeIn('', each, put, rows)
  } else if (typeof value === 'object' && value !== null) {
    const { id, version } = value as { id?: unknown; version?: unknown }
    if (typeof id === 'string' && typeof version === 'number') rows.add(id)
    for (const [name, part] of Object.entries(value)) takeIn(name, part, put, rows)
  }
}

/** What of an entry is found by, beside what stands under keys that all kinds have. */
function ofKind(entry: Logged, put: Put) {
  switch (entry.kind) {
    case 'opened':
      put('part', entry.title)
      break
    case 'note':
      put('notes', entry.text)
      break
    case 'happened':
      put('notes', HAPPENINGS[entry.what].title)
      break
    case 'numbered':
      for (const number of numbersWritten(entry)) put('numbers', number)
      break
    case 'handed-over':
      put('state', 'handed over')
      break
    case 'proved':
      put('state', 'proved')
      break
    case 'gauged':
      put('state', 'gauged')
      break
    case 'unread':
      put('state', 'cannot be read')
      break
  }
}

/**
 * The words by which a setup is found in the whole shop, from its log. What was struck out does not count, and is left out by whoever asks.
 */
export function searchWords(log: readonly Logged[]): SearchWords {
  const found = new Map(FOUND_BY.map((by) => [by, new Set<string>()]))
  const rows = new Set<string>()
  const put: Put = (by, word) => {
    if (word.trim() !== '') found.get(by)?.add(word.trim())
  }
  for (const entry of log) {
    put('days', entry.at.slice(0, 10))
    if (entry.by !== '') put('people', entry.by)
    ofKind(entry, put)
    if (entry.kind === 'unread') continue
    for (const program of programsAtControl(entry)) put('programs', `O${program}`)
    const { id: _id, setup: _setup, at: _at, by: _by, kind, ...rest } = entry
    for (const [key, value] of Object.entries(rest)) {
      // The title of the setup is the part; what was read is named by an id.
      if ((kind === 'opened' && key === 'title') || (kind === 'acknowledged' && key === 'note')) continue
      // A program's text is no words of anybody.
      if (key === 'text') continue
      takeIn(key, value, put, rows)
    }
  }
  const words = Object.fromEntries(FOUND_BY.map((by) => [by, [...(found.get(by) ?? [])]]))
  return { words: words as SearchWords['words'], rows: [...rows] }
}
