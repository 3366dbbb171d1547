import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { z } from 'zod'

/** What is known of a logbook outside of its file, so that a file that is missing or another is not taken for a new shop. */
const known = z.object({
  logbook: z.string().min(1),
  /** Place of its last entry then. */
  seq: z.int().min(0),
  /** When this was written (ISO 8601). */
  at: z.iso.datetime({ precision: 3 }),
})
export type Known = z.infer<typeof known>

/** The note beside a logbook. */
export const noteOf = (file: string) => `${file}-known.json`

/** Reads the note; undefined where there is none, or none that can be read. */
export function readKnown(file: string): Known | undefined {
  if (!existsSync(noteOf(file))) return undefined
  try {
    return known.safeParse(JSON.parse(readFileSync(noteOf(file), 'utf8'))).data
  } catch {
    return undefined
  }
}

/** Whether a logbook is at a place, or was: a note or a rest of it says so. */
export const wasHere = (file: string): boolean =>
  existsSync(file) || existsSync(noteOf(file)) || existsSync(`${file}-wal`)

/** Writes the note; where it cannot be written there is none, and the logbook is used all the same. */
export function writeKnown(file: string, { logbook, seq }: Pick<Known, 'logbook' | 'seq'>, now: number) {
  try {
    writeFileSync(noteOf(file), JSON.stringify({ logbook, seq, at: new Date(now).toISOString() }))
  } catch {
    // A folder that cannot be written.
  }
}
