import { z } from 'zod'
import type { LinearAxis } from '../machine/index.ts'
import { type DraftRead, type FieldProblems, type LengthUnit, lengthFields } from '../quantity/index.ts'
import { readPosition } from './position.ts'
import { type StockAsked, stockAsked, type TouchedStock, type ZeroAlong, zeroAlong, zeroUp } from './stock.ts'

/** The form of a block of stock: everything as typed. Empty is allowed where the form says so. */
export const stockDraft = z.object({
  X: z.string(),
  Y: z.string(),
  Z: z.string(),
  offTop: z.string(),
  offX: z.string(),
  offY: z.string(),
  zeroX: zeroAlong,
  zeroY: zeroAlong,
  zeroZ: zeroUp,
  seat: z.string(),
  seatLength: z.string(),
})
export type StockDraft = z.infer<typeof stockDraft>
export type StockField = Exclude<keyof StockDraft, 'zeroX' | 'zeroY' | 'zeroZ'>

/** Where zero stands along an axis now, by what was touched and where that lies on the drawing. */
const zeroNow = (touched: TouchedStock | undefined): ZeroAlong => {
  if (touched?.side === 'plus') return 'low'
  if (touched?.side === 'minus') return 'high'
  const at = touched?.at ?? 0
  return at > 0 ? 'low' : at < 0 ? 'high' : 'middle'
}

/** A form without numbers: zero where it stands now. */
export const startingStock = (touched: Partial<Record<LinearAxis, TouchedStock>>): StockDraft => ({
  X: '',
  Y: '',
  Z: '',
  offTop: '',
  offX: '',
  offY: '',
  zeroX: zeroNow(touched.X),
  zeroY: zeroNow(touched.Y),
  zeroZ: (touched.Z?.at ?? 0) > 0 ? 'finished-top' : 'stock-top',
  seat: '',
  seatLength: '',
})

/** What was asked of a block as a form in its own words. */
export const stockDraftOf = ({
  finished,
  offTop,
  offLow,
  zero,
  seat,
  seatLength,
}: StockAsked): StockDraft => ({
  X: finished.X.text,
  Y: finished.Y.text,
  Z: finished.Z?.text ?? '',
  offTop: offTop.text,
  offX: offLow.X?.text ?? '',
  offY: offLow.Y?.text ?? '',
  zeroX: zero.X,
  zeroY: zero.Y,
  zeroZ: zero.Z,
  seat: seat?.text ?? '',
  seatLength: seatLength?.text ?? '',
})

const AT: Record<string, StockField> = {
  'finished.X': 'X',
  'finished.Y': 'Y',
  'finished.Z': 'Z',
  'offLow.X': 'offX',
  'offLow.Y': 'offY',
}

/**
 * Turns the form into what is asked of a block, or says what each field still needs. Lengths are read in `unit`; `asksLength`: a seat
 * needs the length of the probe as well.
 */
export function readStockDraft(
  draft: StockDraft,
  unit: LengthUnit,
  asksLength: boolean,
): DraftRead<StockAsked> {
  const problems: FieldProblems = {}
  const length = lengthFields(unit, problems)
  const given = (field: StockField) => (draft[field].trim() === '' ? undefined : length(field, draft[field]))
  const seat = draft.seat.trim() === '' ? undefined : readPosition(draft.seat, unit)
  if (seat && !seat.ok) problems.seat = { says: seat.says, empty: false }
  const [offX, offY, z] = [given('offX'), given('offY'), given('Z')]
  const [x, y, offTop] = (['X', 'Y', 'offTop'] as const).map((field) => length(field, draft[field]))
  const seatLength = seat && asksLength ? length('seatLength', draft.seatLength) : undefined
  const read = stockAsked.safeParse({
    finished: { X: x, Y: y, ...(z ? { Z: z } : {}) },
    offTop,
    offLow: { ...(offX ? { X: offX } : {}), ...(offY ? { Y: offY } : {}) },
    zero: { X: draft.zeroX, Y: draft.zeroY, Z: draft.zeroZ },
    ...(seat?.ok ? { seat: seat.value } : {}),
    ...(seatLength ? { seatLength } : {}),
  })
  for (const { path, message } of read.error?.issues ?? []) {
    const field = AT[path.slice(0, 2).join('.')] ?? String(path[0])
    problems[field] ??= { says: message, empty: false }
  }
  return read.success && Object.keys(problems).length === 0
    ? { ok: true, value: read.data }
    : { ok: false, problems }
}
