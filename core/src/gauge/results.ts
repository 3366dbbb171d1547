import Papa from 'papaparse'
import { z } from 'zod'
import {
  type DraftRead,
  draftRead,
  type FieldProblems,
  type LengthUnit,
  lengthUnit,
  readDegrees,
  readLength,
} from '../quantity/index.ts'
import { type Characteristic, keyOf } from './characteristic.ts'

/** Most parts that one entry holds. */
export const MOST_PARTS = 2000
/** Values a part, and variables that a program corrected, at most. */
const MOST_VALUES = 60
/** Longer texts are not read. */
export const LONGEST_RESULTS = 2_000_000

const measured = z.number().min(-100_000).max(100_000)

/** One part: its values by key, and what the control's log said of the variables that it corrects (wear, offsets) after it. */
export const measuredPart = z.object({
  label: z.string().trim().min(1, 'Name the part.').max(30, 'Keep the name of a part under 30 characters.'),
  values: z
    .record(z.string().max(30), measured)
    .refine((of) => Object.keys(of).length > 0, { error: 'A part needs at least one value.' })
    .refine((of) => Object.keys(of).length <= MOST_VALUES, {
      error: `At most ${MOST_VALUES} values a part.`,
    }),
  corrected: z.record(z.string().max(30), measured).optional(),
})
export type MeasuredPart = z.infer<typeof measuredPart>

/** Measured parts as they came in together. Lengths in `unit`, angles in degrees. */
export const measuredParts = z.object({
  unit: lengthUnit,
  parts: z
    .array(measuredPart)
    .min(1, 'There is no part in it.')
    .max(MOST_PARTS, `At most ${MOST_PARTS} parts at once.`),
  came: z.enum(['typed', 'pasted', 'file']),
})
export type MeasuredParts = z.infer<typeof measuredParts>

export interface ResultsRead {
  parts: MeasuredPart[]
  /** What was not understood, with its line from 1. */
  problems: { line: number; says: string }[]
  /** How it was read, in a sentence. */
  says: string
}

const NUMBER = /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i
const LABELS = new Set(['PART', 'SERIAL', 'NO', 'NO.', 'NUMBER', 'PIECE'])
/** Columns of our own file that are not measured. */
const NOT_MEASURED = new Set(['AT', 'BY', 'OUT', 'DONE', 'NOTE'])

/** A line of a control's log file: a name, spaces, a number. */
const LOG_LINE = /^(.*?\S)\s+([+-]?(?:\d+\.?\d*|\.\d+))$/
const BEGINS = /^GAUGE\s/i
/** `T7 DIA WEAR`, `G54 X`: a variable that the program corrected. */
const CORRECTED = /^(T\d+ (DIA|LENGTH) WEAR|G\d+(\.\d)? [XYZ])$/

const asNumber = (text: string) => (NUMBER.test(text.trim()) ? Number(text) : undefined)

/** The log file of a control: every part begins with a line GAUGE, then a value to a line. */
function fromLog(lines: readonly string[], keys: ReadonlySet<string>, first: number): ResultsRead {
  const parts: MeasuredPart[] = []
  const problems: ResultsRead['problems'] = []
  let part: MeasuredPart | undefined
  lines.forEach((line, index) => {
    const text = line.trim()
    if (text === '' || text === '%') return
    if (BEGINS.test(text)) {
      part = { label: String(first + parts.length), values: {} }
      parts.push(part)
      return
    }
    const found = LOG_LINE.exec(text)
    const key = keyOf(found?.[1] ?? '')
    const value = asNumber(found?.[2] ?? '')
    if (!found || value === undefined || !(keys.has(key) || CORRECTED.test(key))) {
      problems.push({ line: index + 1, says: `"${text.slice(0, 40)}" is no value of this plan.` })
      return
    }
    if (!part) {
      part = { label: String(first), values: {} }
      parts.push(part)
    }
    if (keys.has(key)) part.values[key] = value
    else part.corrected = { ...part.corrected, [key]: value }
  })
  return done(parts, problems, 'the log file of a control')
}

const done = (parts: MeasuredPart[], problems: ResultsRead['problems'], as: string): ResultsRead => {
  const whole = parts.filter(({ values }) => Object.keys(values).length > 0)
  const values = whole.reduce((sum, part) => sum + Object.keys(part.values).length, 0)
  return {
    parts: whole,
    problems,
    says: `Read as ${as}: ${whole.length} ${whole.length === 1 ? 'part' : 'parts'}, ${values} ${values === 1 ? 'value' : 'values'}.`,
  }
}

/** A table with a heading: the part, then a column a value; other columns are passed over. */
function fromTable(rows: readonly string[][], keys: ReadonlySet<string>, first: number): ResultsRead {
  const [heading = [], ...body] = rows
  const columns = heading.map((name) => keyOf(name))
  const labelAt = columns.findIndex((name) => LABELS.has(name))
  const parts: MeasuredPart[] = []
  const problems: ResultsRead['problems'] = []
  for (const [index, name] of columns.entries())
    if (index !== labelAt && name !== '' && !keys.has(name) && !NOT_MEASURED.has(name))
      problems.push({
        line: 1,
        says: `The column "${(heading[index] ?? '').slice(0, 30)}" is no value of this plan; it is left out.`,
      })
  for (const [index, row] of body.entries()) {
    const surplus = row.slice(columns.length).some((cell) => cell.trim() !== '')
    if (surplus) {
      problems.push({
        line: index + 2,
        says: `It has ${row.length} cells under a heading of ${columns.length}; it is left out. Is a comma meant as a decimal point?`,
      })
      continue
    }
    const values: Record<string, number> = {}
    for (const [at, key] of columns.entries()) {
      const text = (row[at] ?? '').trim()
      if (!keys.has(key) || text === '') continue
      const value = asNumber(text)
      if (value === undefined)
        problems.push({ line: index + 2, says: `"${text.slice(0, 20)}" under ${key} is not a number.` })
      else values[key] = value
    }
    const label = (labelAt < 0 ? '' : (row[labelAt] ?? '').trim()) || String(first + parts.length)
    parts.push({ label: label.slice(0, 30), values })
  }
  return done(parts, problems, 'a table with a heading')
}

/** Numbers alone: a row a part, its values in the order of the plan, or all of the one value that is asked for. */
function fromNumbers(rows: readonly string[][], order: readonly string[], first: number): ResultsRead {
  const parts: MeasuredPart[] = []
  const problems: ResultsRead['problems'] = []
  for (const [index, row] of rows.entries()) {
    const values: Record<string, number> = {}
    for (const [at, cell] of row.entries()) {
      const [text, key] = [cell.trim(), order[at]]
      if (text === '') continue
      const value = asNumber(text)
      if (value === undefined)
        problems.push({ line: index + 1, says: `"${text.slice(0, 20)}" is not a number.` })
      else if (key === undefined)
        problems.push({
          line: index + 1,
          says: `A part has ${order.length} ${order.length === 1 ? 'value' : 'values'}; "${text.slice(0, 20)}" is one more.`,
        })
      else values[key] = value
    }
    parts.push({ label: String(first + parts.length), values })
  }
  return done(parts, problems, 'a row to a part')
}

/**
 * Reads measured parts from what was typed, pasted, or came as a file: a table with a heading (CSV with commas, semicolons or
 * tabs), numbers in the order of the values, or the log file that the program prints. Never throws; what is not understood is
 * said with its line. Values are in the unit of the plan.
 *
 * @param order keys of the values, in the order in which a row without a heading has them
 * @param first number of the first part that has no name of its own
 */
export function readResults(text: string, order: readonly string[], first: number): ResultsRead {
  if (text.length > LONGEST_RESULTS)
    return {
      parts: [],
      problems: [{ line: 1, says: 'This is more than two million characters. Take it in pieces.' }],
      says: '',
    }
  const clean = text.replace(/^\uFEFF/, '').replaceAll(String.fromCharCode(0), '')
  if (clean.trim() === '') return { parts: [], problems: [], says: '' }
  const keys = new Set(order)
  const lines = clean.split(/\r\n|\r|\n/)
  if (lines.some((line) => BEGINS.test(line.trim()))) return fromLog(lines, keys, first)
  // A blank between numbers parts them too, where nothing else does.
  const spaced =
    !/[,;\t]/.test(clean) &&
    lines.every((line) =>
      line
        .trim()
        .split(/\s+/)
        .every((cell) => cell === '' || NUMBER.test(cell)),
    )
  const { data } = Papa.parse<string[]>(spaced ? clean.trim().replace(/[^\S\r\n]+/g, '\t') : clean, {
    skipEmptyLines: 'greedy',
    ...(spaced ? { delimiter: '\t' } : {}),
  })
  const rows = data.map((row) => (row.length > MOST_VALUES ? row.slice(0, MOST_VALUES) : row))
  const heading = rows[0] ?? []
  if (heading.some((cell) => keys.has(keyOf(cell)))) return fromTable(rows, keys, first)
  const log = fromLog(lines, keys, first)
  if (log.parts.length > 0 && log.problems.length === 0) return log
  return fromNumbers(rows, order, first)
}

/** A part as it was typed, a field a value: what it comes to, or what each field still needs. Empty fields are not measured. */
export function readTypedPart(
  label: string,
  texts: Readonly<Record<string, string>>,
  characteristics: readonly Characteristic[],
  unit: LengthUnit,
): DraftRead<MeasuredPart> {
  const problems: FieldProblems = {}
  const values: Record<string, number> = {}
  for (const { key, unit: of } of characteristics) {
    const text = texts[key] ?? ''
    if (text.trim() === '') continue
    const read = of === 'deg' ? readDegrees(text) : readLength(text, unit)
    if (read.ok) values[key] = read.value
    else problems[key] = { says: read.says, empty: read.empty }
  }
  return draftRead<MeasuredPart>(measuredPart.safeParse({ label, values }), problems)
}
