import { TERMS, type Term } from './terms.ts'

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')

/** Every form of every term, the longest first: 'tap drill' is more than 'tap'. */
const FORMS = TERMS.flatMap((term) => [term.term, ...(term.also ?? [])].map((form) => ({ form, term }))).sort(
  (a, b) => b.form.length - a.form.length,
)
const ANY = new RegExp(
  `(?<![\\p{L}\\d-])(?:${FORMS.map(({ form }) => escaped(form)).join('|')})(?![\\p{L}\\d])`,
  'giu',
)
const BY_FORM = new Map(FORMS.map(({ form, term }) => [form.toLowerCase(), term]))

/** The words of the trade that stand in a text, each once, in the order in which they stand there. */
export function termsIn(text: string): Term[] {
  const found = new Set<Term>()
  for (const [form] of text.matchAll(ANY)) {
    const term = BY_FORM.get(form.toLowerCase())
    if (term) found.add(term)
  }
  return [...found]
}

/** The words that begin with what is typed, then those that have it anywhere, then those whose meaning has it. */
export function searchTerms(typed: string): Term[] {
  const wanted = typed.trim().toLowerCase()
  if (wanted === '') return [...TERMS]
  const forms = ({ term, also = [] }: Term) => [term, ...also].map((form) => form.toLowerCase())
  const rank = (term: Term) =>
    forms(term).some((form) => form.startsWith(wanted))
      ? 0
      : forms(term).some((form) => form.includes(wanted))
        ? 1
        : term.says.toLowerCase().includes(wanted)
          ? 2
          : 3
  return TERMS.map((term) => ({ term, place: rank(term) }))
    .filter(({ place }) => place < 3)
    .sort((a, b) => a.place - b.place)
    .map(({ term }) => term)
}
