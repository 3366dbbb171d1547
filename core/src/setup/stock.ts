import { type Freshness, type Verdict, verdictOf } from '../fact/index.ts'
import { LINEAR_AXES, type LinearAxis } from '../machine/index.ts'
import {
  isHeight,
  measureStock,
  readingIn,
  type Stock,
  type StockAsked,
  stockHeight,
  type TouchedStock,
  touchedAt,
  zeroMoved,
} from '../pickup/index.ts'
import { computedLength, type LengthUnit } from '../quantity/index.ts'
import type { AxisFact, OffsetState, Setup } from './derive.ts'
import type { EntryOf } from './entries.ts'
import { jawsIn } from './probing.ts'

/** A block of stock as it was held against the part that is asked for. */
export interface StockFact extends Stock {
  entry: EntryOf<'stock'>
  freshness: Freshness
  verdict: Verdict
}

/** What is known of the block along an axis, by how its zero was taken; undefined where that does not tell. */
function touchedStock(fact: AxisFact | undefined, unit: LengthUnit): TouchedStock | undefined {
  const touched = fact && touchedAt(fact.entry.reading, unit)
  if (!touched) return undefined
  const { size } = fact
  return { ...touched, ...(size?.what === 'width' ? { size: { value: size.value, doubt: size.doubt } } : {}) }
}

/** What is known of the block by how the zeros of an offset were taken, by axis. */
export function touchedBlock(
  { axes }: Pick<OffsetState, 'axes'>,
  unit: LengthUnit,
): Partial<Record<LinearAxis, TouchedStock>> {
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
  { Z }: OffsetState['axes'],
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
export function stockOf(
  asked: StockAsked,
  { axes }: Pick<OffsetState, 'axes'>,
  { unit, hold }: Pick<Setup, 'unit' | 'hold'>,
): Stock {
  const own = readingIn(asked, unit)
  const { Z, ...plan } = touchedBlock({ axes }, unit)
  const height = Z && withHeight(Z, own, axes)
  return measureStock(own, { ...plan, ...(height ? { Z: height } : {}) }, { unit, ...jawsIn(hold, unit) })
}

/** The fact that an entry states of a block. */
export function stockFact(
  entry: EntryOf<'stock'>,
  freshness: Freshness,
  offset: Pick<OffsetState, 'axes'>,
  setup: Pick<Setup, 'unit' | 'hold'>,
): StockFact {
  const stock = stockOf(entry.asked, offset, setup)
  return { ...stock, entry, freshness, verdict: verdictOf(stock.findings) }
}

/** How far part zero must go for an axis to stand where it is wanted: what every place of the drawing is further along by. */
export function zeroShift({ X, Y, Z }: Stock, axis: 'X' | 'Y' | 'Z'): number {
  const { wanted, now } = { X, Y, Z }[axis]
  const by = wanted === undefined || now === undefined ? 0 : wanted - now
  return Math.abs(by) < 1e-9 ? 0 : by
}

/** A pickup that says again what stands, with part zero elsewhere on the drawing: what was read at the machine is as it was. */
type MovedPickup = Pick<EntryOf<'pickup'>, 'kind' | 'offset' | 'reading' | 'machine' | 'rests' | 'moved'>

/**
 * The entries that put part zero of an offset where a block asks for it, an axis each; none for an axis that stands there already or that
 * is stale: what no longer holds is taken again and not moved.
 */
export function zeroMoves(offset: OffsetState, stock: Stock, { machine, unit }: Setup): MovedPickup[] {
  return (['X', 'Y', 'Z'] as const).flatMap((axis): MovedPickup[] => {
    const fact = offset.axes[axis]
    const by = zeroShift(stock, axis)
    if (!fact || by === 0 || fact.freshness.state === 'stale') return []
    const { reading, rests } = fact.entry
    return [
      {
        kind: 'pickup',
        offset: offset.name,
        reading: zeroMoved(reading, by, unit),
        machine: { id: machine.id, version: machine.version },
        moved: computedLength(-by, unit),
        ...(rests ? { rests } : {}),
      },
    ]
  })
}

/** Whether the height of a block asks for the probe's length as well: its zero was set by the probe's own cycle. */
export const asksSeatLength = ({ axes: { Z } }: Pick<OffsetState, 'axes'>) =>
  Z !== undefined && !isHeight(Z.entry.reading)
