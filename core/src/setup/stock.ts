import { type Freshness, type Verdict, verdictOf } from '../fact/index.ts'
import { LINEAR_AXES, type LinearAxis } from '../machine/index.ts'
import {
  measureStock,
  type Pickup,
  readingIn,
  type Stock,
  type StockAsked,
  stockHeight,
  type TouchedStock,
  touchedAt,
} from '../pickup/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import type { HoldState } from './hold.ts'
import { jawsIn } from './jaws.ts'
import type { EntryOf } from './kinds.ts'

/** One axis of the offset that a block was taken with. */
type TakenAxis = Pick<Pickup, 'value' | 'position' | 'doubt' | 'size'> & { entry: EntryOf<'pickup'> }
/** The zeros that a block was taken with. */
interface Taken {
  axes: Partial<Record<LinearAxis, TakenAxis>>
}
/** What a block is held against besides: the unit of the setup, and the vise. */
interface Held {
  unit: LengthUnit
  hold: HoldState
}

/** A block of stock as it was held against the part that is asked for. */
export interface StockFact extends Stock {
  entry: EntryOf<'stock'>
  freshness: Freshness
  verdict: Verdict
}

/** What is known of the block along an axis, by how its zero was taken; undefined where that does not tell. */
function touchedStock(fact: TakenAxis | undefined, unit: LengthUnit): TouchedStock | undefined {
  const touched = fact && touchedAt(fact.entry.reading, unit)
  if (!touched) return undefined
  const { size } = fact
  return { ...touched, ...(size?.what === 'width' ? { size: { value: size.value, doubt: size.doubt } } : {}) }
}

/** What is known of the block by how the zeros of an offset were taken, by axis. */
export function touchedBlock({ axes }: Taken, unit: LengthUnit): Partial<Record<LinearAxis, TouchedStock>> {
  const known: Partial<Record<LinearAxis, TouchedStock>> = {}
  for (const axis of LINEAR_AXES) {
    const touched = touchedStock(axes[axis], unit)
    if (touched) known[axis] = touched
  }
  return known
}

/** The block's height along Z, where its seat was touched as its top was. */
function withHeight(
  touched: TouchedStock,
  { seat, seatLength }: StockAsked,
  { Z }: Taken['axes'],
): TouchedStock {
  if (!Z || !seat) return touched
  const { reading } = Z.entry
  const height = stockHeight(seat, seatLength?.value, {
    reading,
    value: Z.value,
    position: Z.position,
    at: touched.at,
  })
  return height === undefined
    ? touched
    : { ...touched, size: { value: height, doubt: Z.doubt.value * Math.SQRT2 } }
}

/** A block of stock against the part that is asked for, as the zeros of its offset were taken. */
export function stockOf(asked: StockAsked, { axes }: Taken, { unit, hold }: Held): Stock {
  const own = readingIn(asked, unit)
  const { Z, ...plan } = touchedBlock({ axes }, unit)
  const height = Z && withHeight(Z, own, axes)
  return measureStock(own, { ...plan, ...(height ? { Z: height } : {}) }, { unit, ...jawsIn(hold, unit) })
}

/** The fact that an entry states of a block. */
export function stockFact(
  entry: EntryOf<'stock'>,
  freshness: Freshness,
  offset: Taken,
  setup: Held,
): StockFact {
  const stock = stockOf(entry.asked, offset, setup)
  return { ...stock, entry, freshness, verdict: verdictOf(stock.findings) }
}
