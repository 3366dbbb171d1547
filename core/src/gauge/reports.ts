import Papa from 'papaparse'
import { type LengthUnit, roundTo } from '../quantity/index.ts'
import { type Characteristic, digitsOf } from './characteristic.ts'

/** A measured part with what is known of it, for the files that are given out. */
export interface ReportedPart {
  label: string
  at: string
  by: string
  values: Readonly<Record<string, number>>
  /** Keys that are out of tolerance. */
  out: readonly string[]
  done?: string
  note?: string
}

/** One digit more than values are shown with: a file rounds nothing away that was read. */
const fileDigits = (unit: Characteristic['unit']) => digitsOf(unit) + 1

/** The parts as CSV (RFC 4180): a heading, a part to a line. */
export function resultsCsv(
  characteristics: readonly Characteristic[],
  parts: readonly ReportedPart[],
): string {
  const rows = parts.map(({ label, at, by, values, out, done: did, note }) => [
    label,
    at,
    by,
    ...characteristics.map(({ key, unit }) => {
      const value = values[key]
      return value === undefined ? '' : roundTo(value, fileDigits(unit))
    }),
    out.join(' + '),
    did ?? '',
    note ?? '',
  ])
  return Papa.unparse(
    {
      fields: ['part', 'at', 'by', ...characteristics.map(({ key }) => key), 'out', 'done', 'note'],
      data: rows,
    },
    { escapeFormulae: true },
  )
}

/** The parts as JSON: what was measured against what, and every part. */
export const resultsJson = (
  about: { setup: string; plan: string; unit: LengthUnit },
  characteristics: readonly Characteristic[],
  parts: readonly ReportedPart[],
): string =>
  JSON.stringify(
    {
      ...about,
      characteristics: characteristics.map(({ key, quantity, unit, nominal, lower, upper, tool }) => ({
        key,
        quantity,
        unit,
        nominal,
        lower,
        upper,
        tool,
      })),
      parts,
    },
    null,
    2,
  )

/** The name of the part that is so many after one: its number, where it has one. */
export const labelAfter = (label: string, count: number) =>
  /^\d{1,9}$/.test(label) ? String(Number(label) + count) : `${label} + ${count}`
