import { addressOf, ROUTES } from '@dogleg/core/api'
import { isObject, type LogEntry, textsNamedIn, withTexts } from '@dogleg/core/log'

const PATIENCE_MS = 30_000

/** A long text by its name. It never changes: the browser keeps it, and asks for it once. */
async function askText(hash: string): Promise<string> {
  const response = await fetch(addressOf(ROUTES.longText[1], { hash }), {
    signal: AbortSignal.timeout(PATIENCE_MS),
  })
  const data: unknown = await response.json()
  if (isObject(data) && typeof data.text === 'string') return data.text
  throw new Error('A program of this setup could not be fetched. It is asked for again.')
}

/** Entries with their long texts in their places, each text fetched once. */
export async function fetchTexts(entries: readonly LogEntry[]): Promise<LogEntry[]> {
  const named = [...textsNamedIn(entries)]
  if (named.length === 0) return [...entries]
  const texts = new Map(await Promise.all(named.map(async (hash) => [hash, await askText(hash)] as const)))
  return withTexts(entries, (hash) => texts.get(hash)) as LogEntry[]
}
