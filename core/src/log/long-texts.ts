import { isObject } from './shapes.ts'

// The text of a program is long, and the same text stands in many entries. Where an entry is stored or sent, a text of this length or
// more may stand apart from it, and in its place what names it.

/** Texts from this length on stand apart, in characters: what names one is shorter by far. */
export const LONG_TEXT = 1000

const MARK = 'text-sha256'
const HASH = /^[0-9a-f]{64}$/

/** Stands in the place of a text: the SHA-256 of its UTF-8, in hexadecimal. */
export const inPlaceOf = (hash: string) => ({ [MARK]: hash })

/** Whether a text can stand apart and come back as it was: UTF-8 has no halves of a character, and a database may end at a zero. */
export const standsApart = (text: string): boolean =>
  text.length >= LONG_TEXT && text.isWellFormed() && !text.includes('\0')

/** Whether something is named in JSON at all: most entries have no long text, and are not looked through. */
export const mayName = (json: string): boolean => json.includes(MARK)

/** The hash of the text that stands apart from here; undefined where this is anything else. */
function namedHere(value: object): string | undefined {
  const hash = (value as Record<string, unknown>)[MARK]
  return typeof hash === 'string' && HASH.test(hash) && Object.keys(value).length === 1 ? hash : undefined
}

/** The hashes of the texts that stand apart from some data. */
export function textsNamedIn(data: unknown, into = new Set<string>()): Set<string> {
  if (Array.isArray(data)) for (const each of data) textsNamedIn(each, into)
  else if (isObject(data)) {
    const hash = namedHere(data)
    if (hash !== undefined) into.add(hash)
    else for (const each of Object.values(data)) textsNamedIn(each, into)
  }
  return into
}

/** Data with its texts in their places again; where `textOf` knows none, what names it stays. */
export function withTexts(data: unknown, textOf: (hash: string) => string | undefined): unknown {
  if (Array.isArray(data)) return data.map((each) => withTexts(each, textOf))
  if (!isObject(data)) return data
  const hash = namedHere(data)
  if (hash !== undefined) return textOf(hash) ?? data
  // Built so that a part by any name is a part of its own.
  return Object.fromEntries(Object.entries(data).map(([name, each]) => [name, withTexts(each, textOf)]))
}

/** Data as JSON, without the texts that `hashOf` knows: what names them stands in their places. */
export const withoutTexts = (data: unknown, hashOf: (text: string) => string | undefined): string =>
  JSON.stringify(data, (_name, value: unknown) => {
    const hash = typeof value === 'string' && standsApart(value) ? hashOf(value) : undefined
    return hash === undefined ? value : inPlaceOf(hash)
  })
