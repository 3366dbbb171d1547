import { type LengthUnit, readLength, readsTwoWays, type TypedLength } from '../quantity/index.ts'

export type MeasuredList<Row> = { ok: true; rows: Row[] } | { ok: false; empty: boolean; says: string }

const MOST_ROWS = 200
const refuse = (says: string) => ({ ok: false as const, empty: false, says })

/** Lengths of a list, row by row. Rows end with a line or a semicolon; cells with a space, a tab or a comma. */
function readMeasuredRows(text: string, unit: LengthUnit, needs: string): MeasuredList<TypedLength[]> {
  const rows = text
    .split(/[\n;]/)
    .map((row) => row.trim())
    .filter((row) => row !== '')
  if (rows.length === 0) return { ok: false, empty: true, says: needs }
  if (rows.length > MOST_ROWS) return refuse(`That is ${rows.length} lines; at most ${MOST_ROWS} are taken.`)
  const read: TypedLength[][] = []
  for (const [index, row] of rows.entries()) {
    const problem = readsTwoWays(row)
    if (problem) return refuse(`Line ${index + 1}, "${row.slice(0, 30)}": ${problem}`)
    const lengths: TypedLength[] = []
    for (const cell of row.split(/\s*[,\t]\s*|\s+(?=[.\d])/).filter((each) => each !== '')) {
      const entry = readLength(cell, unit)
      if (!entry.ok) return refuse(`Line ${index + 1}: ${entry.says}`)
      lengths.push({ text: entry.text, value: entry.value, unit })
    }
    read.push(lengths)
  }
  return { ok: true, rows: read }
}

/** Diameters as typed or pasted, in any arrangement of lines, spaces, commas and semicolons. Lengths are read in `unit`. */
export function readDiameters(text: string, unit: LengthUnit): MeasuredList<TypedLength> {
  const list = readMeasuredRows(text, unit, 'Type the diameters that were measured.')
  if (!list.ok) return list
  const rows = list.rows.flat()
  return rows.length > MOST_ROWS
    ? refuse(`That is ${rows.length} diameters; at most ${MOST_ROWS} are taken.`)
    : { ok: true, rows }
}

export interface MeasuredPair {
  diameter: TypedLength
  length: TypedLength
}

/** Pairs of a bar's diameter and the length that came out with it: two numbers to a line. */
export function readPairs(text: string, unit: LengthUnit): MeasuredList<MeasuredPair> {
  const list = readMeasuredRows(text, unit, 'Type a diameter, a space and the length, a pair to a line.')
  if (!list.ok) return list
  const rows: MeasuredPair[] = []
  for (const [index, [diameter, length, ...more]] of list.rows.entries()) {
    if (!diameter || !length || more.length > 0)
      return refuse(`Line ${index + 1}: write two numbers, the diameter, a space and the length.`)
    rows.push({ diameter, length })
  }
  return { ok: true, rows }
}
