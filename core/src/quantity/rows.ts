import { readLength, type TypedLength } from './entry.ts'
import { plainText } from './plain.ts'
import type { LengthUnit } from './unit.ts'

/** One line of a list of lengths: its name where it has one, and a length a column. */
export interface Row {
  name?: string
  cells: TypedLength[]
}

export type RowsEntry = { ok: true; rows: Row[] } | { ok: false; empty: boolean; says: string }

export interface RowsWanted {
  /** The columns in order; a line of words ('X-1.5 Y2.') or a heading may bring them in another. */
  columns: readonly string[]
  /** Said where nothing was typed. */
  needs: string
  least: number
  /** Most lines that are taken; 500 where it is not said. */
  most?: number
}

const MOST_ROWS = 500
const LONGEST_NAME = 20

const refuse = (says: string) => ({ ok: false as const, empty: false, says })

/** A number, a fraction or a mixed number with a hyphen, with its unit if it has one. */
const CELL = /^[+\-\u2212]?(?:\d+-\d+\/\d+|\d+\/\d+|\d+\.?\d*|\.\d+)(?:mm|inches|inch|in|"|thou)?$/i
const NUMBERED_WORD = /([A-Za-z])\s*[=:]?\s*([+\-\u2212]?(?:\d+\.?\d*|\.\d+)(?:mm|inch|in|")?)/g

/** Tabs part columns in a list; all else is what it looks like. */
const plainLines = (text: string) => text.split('\t').map(plainText).join('\t')

/** What stands between commas, semicolons, tabs and spaces. */
const cellsOf = (line: string) => line.split(/\s*[,;\t]\s*|\s+/)

/** What stands in a line and could be read two ways. */
export function readsTwoWays(line: string): string | undefined {
  if (/\d +\d+\/\d/.test(line)) return 'In a list write 1-1/2 with a hyphen.'
  if (!/\d,\d/.test(line)) return undefined
  // A name before the numbers says nothing of what is between them.
  const [first = '', ...rest] = line.split(/[;\t ]+/)
  const numbers = CELL.test(first.split(',')[0] ?? '') ? line : rest.join(' ')
  const apart = /[\d.][;\t ]+[+\-\u2212]?[\d.]/.test(numbers)
  return !line.includes('.') || apart
    ? 'Is the comma a decimal point, or does it stand between two numbers? Write decimal points, and a space between numbers.'
    : undefined
}

/** The lengths of a line as text, by column: from words such as Y2., or from cells in order. */
function textsOf(line: string, columns: readonly string[]): { name?: string; texts: string[] } | string {
  const words = [...line.matchAll(NUMBERED_WORD)]
  const byLetter = columns.map((column) => words.find((word) => word[1]?.toUpperCase() === column)?.[2])
  if (byLetter.every((text) => text !== undefined)) return { texts: byLetter as string[] }
  const cells = cellsOf(line).filter((cell) => cell !== '')
  const named = cells.length === columns.length + 1 && !CELL.test(cells[0] ?? '')
  const texts = named ? cells.slice(1) : cells
  if (texts.length !== columns.length)
    return `write ${columns.length} numbers, ${columns.join(', ')}, with a space between them.`
  return named ? { name: (cells[0] ?? '').slice(0, LONGEST_NAME), texts } : { texts }
}

/** Where a heading has each column; undefined where the line is none. */
function headingOf(line: string, columns: readonly string[]): number[] | undefined {
  const cells = cellsOf(line).map((cell) => cell.toUpperCase())
  if (cells.some((cell) => CELL.test(cell))) return undefined
  const places = columns.map((column) => cells.indexOf(column))
  return places.every((place) => place >= 0) ? places : undefined
}

/**
 * Reads a list that is typed or pasted, a line at a time: numbers with spaces, tabs, semicolons or commas between them,
 * words such as `X-1.5 Y2.` as a control prints positions, or a table with a heading. Lengths are read in `unit`.
 * Never throws; says the line that is not clear.
 */
export function readRows(
  text: string,
  unit: LengthUnit,
  { columns, needs, least, most = MOST_ROWS }: RowsWanted,
): RowsEntry {
  const lines = plainLines(text)
    .split(/\r\n|\r|\n/)
    .map((line) => line.trim().replace(/(\d)\s+(mm|in|inch|")(?![a-z])/gi, '$1$2'))
  const filled = lines.flatMap((line, index) => (line === '' ? [] : [{ line, at: index + 1 }]))
  if (filled.length === 0) return { ok: false, empty: true, says: needs }
  if (filled.length > most) return refuse(`That is ${filled.length} lines; at most ${most} are taken.`)
  const heading = headingOf(filled[0]?.line ?? '', columns)
  const headed = cellsOf(filled[0]?.line ?? '').length
  const rows: Row[] = []
  for (const { line, at } of heading ? filled.slice(1) : filled) {
    const told = (says: string) => refuse(`Line ${at}, "${line.slice(0, 30)}": ${says}`)
    const problem = readsTwoWays(line)
    if (problem) return told(problem)
    const cells = cellsOf(line)
    if (heading && cells.length !== headed)
      return told(`it has ${cells.length} cells under a heading of ${headed}.`)
    const read = heading ? { texts: heading.map((place) => cells[place] ?? '') } : textsOf(line, columns)
    if (typeof read === 'string') return told(read)
    const lengths: TypedLength[] = []
    for (const cell of read.texts) {
      const entry = readLength(cell, unit)
      if (!entry.ok) return told(entry.says)
      lengths.push({ text: entry.text, value: entry.value, unit })
    }
    rows.push({ ...('name' in read && read.name ? { name: read.name } : {}), cells: lengths })
  }
  if (rows.length < least)
    return { ok: false, empty: true, says: `${rows.length} of at least ${least} lines. ${needs}` }
  return { ok: true, rows }
}
