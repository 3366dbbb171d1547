import type { Answer } from '@dogleg/core/api'
import { FOUND_BY, type FoundBy } from '@dogleg/core/prepare'
import { NOUNS, type Reference } from '@dogleg/core/setup'
import type { EntryStore } from '../entries/store.ts'
import { type KeptFile, prepared } from './open.ts'

/** Setups that are found at a time. */
const A_PAGE = 20
/** Words that are looked for, of those that were typed. */
const MOST_TERMS = 8
/** Rows of reference data that a word may mean. */
const MOST_MEANT = 50

/** Round what was found in a text: two characters that nobody types. */
const [OPEN, CLOSE] = ['\u0001', '\u0002']

/** The id of a row as one word that no part of another is: 'mill-1' is not found in 'mill-12'. */
export const rowWord = (id: string) =>
  `row${[...id.toLowerCase()].map((each) => (/[a-z0-9]/.test(each) ? each : `x${each.codePointAt(0)}x`)).join('')}end`

type Found = Answer<'search'>['found'][number]
type Why = Found['why'][number]

/** A name for a word of those that were typed: rows of reference data that are called so. */
interface Meant {
  id: string
  name: string
}

/** What was typed, as words: what stands in quotes is one. */
export const termsOf = (typed: string): string[] =>
  [...typed.matchAll(/"([^"]*)"|[^\s"]+/g)]
    .map(([all, inQuotes]) => (inQuotes ?? all).trim())
    .filter((term) => term !== '')
    .slice(0, MOST_TERMS)

const quoted = (term: string) => `"${term.replaceAll('"', '""')}"`
const hasWord = (term: string) => /[\p{L}\p{N}]/u.test(term)

/** Rows whose names begin with a word, or have one that does. */
function meantBy(term: string, reference: Reference): Meant[] {
  const wanted = term.toLowerCase()
  const saysSo = (name: string) => ` ${name.toLowerCase()}`.includes(` ${wanted}`)
  const found: Meant[] = []
  for (const noun of NOUNS)
    for (const { id, name } of reference[noun]) if (saysSo(name)) found.push({ id, name })
  for (const { id, name } of reference.retired ?? [])
    if (!found.some((each) => each.id === id) && saysSo(name)) found.push({ id, name })
  return found.slice(0, MOST_MEANT)
}

/** A few words round the first place where something was found, in parts. */
function excerpt(marked: string): Why['says'] | undefined {
  const at = marked.indexOf(OPEN)
  if (at < 0) return undefined
  // Of many titles or notes, the one in which it stands.
  const begins = marked.lastIndexOf(' \u00b7 ', at)
  const ends = marked.indexOf(' \u00b7 ', at)
  const own = marked.slice(begins < 0 ? 0 : begins + 3, ends < 0 ? undefined : ends)
  const shown = own.indexOf(OPEN)
  const from = shown > 60 ? own.indexOf(' ', shown - 50) + 1 : 0
  const text = `${from > 0 ? '… ' : ''}${own.slice(from, from + 160)}${own.length > from + 160 ? ' …' : ''}`
  return text
    .split(OPEN)
    .flatMap((part, n) => {
      if (n === 0) return [{ text: part }]
      const [hit = '', ...rest] = part.split(CLOSE)
      return [{ text: hit, hit: true as const }, { text: rest.join('') }]
    })
    .filter((part) => part.text !== '')
}

/**
 * Searches the whole shop: setups in whose logs all words that were typed stand, the one that was worked on last first. A word may be the
 * beginning of one, or the name of a machine, tool or other row that the setup names. Nothing typed finds every setup.
 */
export async function search(
  db: KeptFile,
  store: EntryStore,
  reference: Reference,
  { typed, before }: { typed: string; before: number },
): Promise<Pick<Answer<'search'>, 'found' | 'next'>> {
  const terms = termsOf(typed).filter(hasWord)
  const meant = terms.map((term) => meantBy(term, reference))
  const columns = FOUND_BY.map((by, n) => `highlight(words, ${n}, '${OPEN}', '${CLOSE}') as ${by}`).join(', ')
  const rows = (
    terms.length === 0
      ? prepared(
          db,
          'select setup, machine, opened, last, at from setups where last < ? order by last desc limit ?',
        ).all(before, A_PAGE + 1)
      : prepared(
          db,
          `select setups.setup, setups.machine, setups.opened, setups.last, setups.at, ${columns}, words.named
            from words join setups on setups.last = words.rowid
            where words match ? and words.rowid < ? order by words.rowid desc limit ?`,
        ).all(
          terms
            .map((term, n) => {
              const named = (meant[n] ?? []).map(({ id }) => rowWord(id)).join(' OR ')
              const said = `{${FOUND_BY.join(' ')}} : ${quoted(term)} *`
              return named === '' ? `(${said})` : `(${said} OR named : (${named}))`
            })
            .join(' AND '),
          before,
          A_PAGE + 1,
        )
  ) as ({ setup: string; machine: string | null; opened: number | null; last: number; at: number } & Partial<
    Record<FoundBy | 'named', string>
  >)[]
  const page = rows.slice(0, A_PAGE)
  const openings = new Map(
    (await store.placedAt(page.flatMap(({ opened }) => opened ?? []))).map(({ entry }) => [
      entry.setup,
      entry,
    ]),
  )
  const found = page.map((row): Found => {
    const opening = openings.get(row.setup)
    const why = FOUND_BY.flatMap((by): Why[] => {
      const says = excerpt(row[by] ?? '')
      return says ? [{ by, says }] : []
    })
    const words = new Set(row.named?.split(' '))
    const names = meant.flat().filter(({ id }, n, all) => {
      const isFirst = all.findIndex((each) => each.id === id) === n
      return isFirst && words.has(rowWord(id))
    })
    const machine = reference.machines.find(({ id }) => id === row.machine)
    return {
      id: row.setup,
      title: opening?.kind === 'opened' ? opening.title : row.setup,
      ...(machine ? { machine: machine.name } : {}),
      ...(opening ? { openedAt: opening.at, by: opening.by } : {}),
      lastAt: new Date(row.at).toISOString(),
      why: [...why, ...names.map(({ name }): Why => ({ by: 'named', says: [{ text: name, hit: true }] }))],
    }
  })
  const next = rows.length > A_PAGE ? page.at(-1)?.last : undefined
  return { found, ...(next === undefined ? {} : { next }) }
}
