import { createHash } from 'node:crypto'
import { withoutTexts } from '@dogleg/core/log'
import { inArray } from 'drizzle-orm'
import type { Reader, Writer } from '../database/connect.ts'
import { isDamage } from '../database/errors.ts'
import { texts as table } from '../database/schema.ts'

/** Values that go with one question. */
const AT_ONCE = 500

/** The name of a text: SHA-256 of its UTF-8, in hexadecimal. */
export const textName = (text: string) => createHash('sha256').update(text, 'utf8').digest('hex')

/** The body of an entry as it is stored, and the long texts that stand apart from it, by their hash. */
export function takenApart(entry: object): { body: string; texts: Map<string, string> } {
  const texts = new Map<string, string>()
  const body = withoutTexts(entry, (text) => {
    const hash = textName(text)
    texts.set(hash, text)
    return hash
  })
  return { body, texts }
}

/** Keeps texts that are not kept yet. */
export async function keepTexts(tx: Writer, texts: ReadonlyMap<string, string>) {
  const rows = [...texts].map(([hash, text]) => ({ hash, text }))
  for (let from = 0; from < rows.length; from += AT_ONCE)
    await tx
      .insert(table)
      .values(rows.slice(from, from + AT_ONCE))
      .onConflictDoNothing()
}

/**
 * Texts by their hash. One that cannot be read, or is not what its name says, is left out; `inDoubt` where the file is known to be
 * damaged, else damage is thrown.
 */
export async function readTexts(
  db: Reader,
  hashes: readonly string[],
  { inDoubt }: { inDoubt: boolean },
): Promise<Map<string, string>> {
  const found = new Map<string, string>()
  const ask = async (some: readonly string[]) => {
    for (const { hash, text } of await db.select().from(table).where(inArray(table.hash, some)))
      if (textName(text) === hash) found.set(hash, text)
  }
  for (let from = 0; from < hashes.length; from += AT_ONCE) {
    const some = hashes.slice(from, from + AT_ONCE)
    try {
      await ask(some)
    } catch (error) {
      if (!inDoubt || !isDamage(error)) throw error
      for (const one of some)
        await ask([one]).catch((wrong: unknown) => {
          if (!isDamage(wrong)) throw wrong
        })
    }
  }
  return found
}

/** An answer as JSON in which the texts that were read from where they stand apart are named, by their hash. */
export function textsNamed(answer: unknown, texts: ReadonlyMap<string, string>): string {
  const hashes = new Map([...texts].map(([hash, text]) => [text, hash]))
  return withoutTexts(answer, (text) => hashes.get(text))
}
