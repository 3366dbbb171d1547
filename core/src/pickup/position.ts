import { z } from 'zod'
import {
  formatAsMeant,
  formatLength,
  type LengthUnit,
  readLength,
  type TypedLength,
  typedLength,
  unitSymbol,
} from '../quantity/index.ts'

const MOST_REPEATS = 20

/** A position that was read once, or several times in a row without anything being changed between. */
export const positionReading = typedLength.safeExtend({
  repeats: z
    .array(typedLength)
    .min(1)
    .max(MOST_REPEATS - 1)
    .optional()
    .describe('the further readings'),
})
export type PositionReading = z.infer<typeof positionReading>

/** Every reading of a position, in its unit. */
export const valuesOf = ({ value, repeats = [] }: PositionReading) => [
  value,
  ...repeats.map((each) => each.value),
]

export const meanOf = (position: PositionReading) => {
  const values = valuesOf(position)
  return values.reduce((sum, value) => sum + value, 0) / values.length
}

/** The greatest reading less the least; 0 for one. */
export const spreadOf = (position: PositionReading) => {
  const values = valuesOf(position)
  return Math.max(...values) - Math.min(...values)
}

export type PositionEntry = { ok: true; value: PositionReading } | { ok: false; empty: boolean; says: string }

/** Reads one position, or several with semicolons between them: `-9.2205; -9.2201`. */
export function readPosition(typed: string, unit: LengthUnit): PositionEntry {
  const parts = typed
    .split(';')
    .filter((part, index, all) => part.trim() !== '' || all.length === 1 || index === 0)
  if (parts.length > MOST_REPEATS)
    return {
      ok: false,
      empty: false,
      says: `That is ${parts.length} readings; at most ${MOST_REPEATS} are taken.`,
    }
  const read: TypedLength[] = []
  for (const part of parts) {
    const entry = readLength(part, unit)
    if (!entry.ok) return { ok: false, empty: entry.empty, says: entry.says }
    read.push({ text: entry.text, value: entry.value, unit })
  }
  const [first, ...repeats] = read as [TypedLength, ...TypedLength[]]
  return { ok: true, value: repeats.length > 0 ? { ...first, repeats } : first }
}

/** What a position as typed comes to, in words; of several readings their mean. Nothing where it is not understood. */
export function understoodPosition(text: string, unit: LengthUnit): string | undefined {
  const entry = readPosition(text, unit)
  if (!entry.ok) return undefined
  const times = valuesOf(entry.value).length
  return times === 1
    ? formatAsMeant(entry.value.value, unit)
    : `${formatLength(meanOf(entry.value), unit)} ${unitSymbol(unit)}, mean of ${times}`
}
