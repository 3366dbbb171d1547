import { type Entry, entry as schema } from '@dogleg/core/setup'
import type { entries as table } from '../database/schema.ts'

/** A row of the log that cannot be read as an entry: it was damaged, or written by something else. */
export interface DamagedRow {
  /** Its place in the log. */
  seq: number
  setup: string
  says: string
  /** What stands there, cut off where it is long. */
  raw: string
}

export type LogRow = Pick<typeof table.$inferSelect, 'seq' | 'setup' | 'body' | 'received' | 'latest'>

const LONGEST_RAW = 2000

const iso = (ms: number | null) => (ms === null ? undefined : new Date(ms).toISOString())

function readRow({ seq, setup, body, received, latest }: LogRow, known: boolean): Entry | DamagedRow {
  const damaged = (says: string): DamagedRow => ({ seq, setup, says, raw: body.slice(0, LONGEST_RAW) })
  let data: Entry
  try {
    data = JSON.parse(body) as Entry
  } catch {
    return damaged('This is no entry: what stands in its place cannot be read.')
  }
  if (!known) {
    const read = schema.safeParse(data)
    if (!read.success) {
      const [issue] = read.error.issues
      return damaged(`${issue?.message ?? 'Not understood.'} (${issue?.path.join('.') || 'kind'})`)
    }
    if (data.setup !== setup) return damaged('It says that it belongs to another setup.')
  }
  const [there, atLatest] = [iso(received), iso(latest)]
  return { ...data, ...(there ? { received: there } : {}), ...(atLatest ? { latest: atLatest } : {}) }
}

/** How long rows are read at a stretch before others have their turn, in ms. */
const STRETCH_MS = 10
const turn = () => new Promise((resolve) => setImmediate(resolve))

export interface ReadRows {
  entries: Entry[]
  damaged: DamagedRow[]
  /** Place of the last row; undefined where there was none. */
  last: number | undefined
}

/**
 * Reads rows of the log. Nothing changes a row once it is written, so that each is held against the schema once and then trusted; a
 * long log is read in stretches, between which the server answers others.
 */
export function rowReader() {
  const known = new Set<number>()
  return async (rows: readonly LogRow[]): Promise<ReadRows> => {
    const read: ReadRows = { entries: [], damaged: [], last: rows.at(-1)?.seq }
    let since = performance.now()
    for (const row of rows) {
      const one = readRow(row, known.has(row.seq))
      if ('raw' in one) read.damaged.push(one)
      else {
        known.add(row.seq)
        read.entries.push(one)
      }
      if (performance.now() - since > STRETCH_MS) {
        await turn()
        since = performance.now()
      }
    }
    return read
  }
}
export type RowReader = ReturnType<typeof rowReader>
