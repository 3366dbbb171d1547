import { formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import type { Collet } from './collet.ts'
import { type BarRange, lengthSpread, type Operation } from './grip.ts'
import { STOPS, type StopKind, stopKind } from './stop.ts'

export type Place = 'good' | 'close' | 'too-wide' | 'last-resort' | 'never'
const ORDER: Record<Place, number> = { good: 0, close: 1, 'too-wide': 2, 'last-resort': 3, never: 4 }

/** A collet with a stop, and why it stands where it stands in the list. */
export interface Ranked {
  collet: Collet
  stop: StopKind
  /** Length spread in the unit asked for. */
  spread: number
  place: Place
  reason: string
}

export interface RankingCase {
  collets: readonly Collet[]
  operation: Operation
  unit: LengthUnit
  range: BarRange
  allowed: number
  /** Ratios that were measured in this setup, by collet. */
  measured: ReadonlyMap<string, { value: number; doubt: number }>
}

function place(pair: Pick<Ranked, 'collet' | 'stop'>, of: RankingCase): Ranked {
  const { collet, stop } = pair
  const { name: _, never, lastResort, says, movesWith } = STOPS[stop]
  const { unit, allowed, operation } = of
  const measuredRatio = of.measured.get(collet.id)
  const {
    value: spread,
    needs,
    needsDoubt,
    ratio,
    findings,
  } = lengthSpread({ ...of, ...pair, ...(measuredRatio ? { measuredRatio } : {}) })
  const ranked = (place: Place, reason: string): Ranked => ({ ...pair, spread, place, reason })
  if (never) return ranked('never', never)
  const size = findings.find(({ severity, where }) => severity === 'stop' && where === 'collet')
  if (size) return ranked('never', `${size.says} ${size.why}`)
  if (lastResort) return ranked('last-resort', lastResort)
  const moves =
    movesWith !== 'nothing' && ratio === 0
      ? collet.closing === 'jaws'
        ? 'Jaws do not move along the bar.'
        : 'The collet stays while the sleeve closes.'
      : says
  if (needs > allowed)
    return ranked(
      'too-wide',
      operation === 'first'
        ? `${moves} ${formatWithUnit(needs - allowed, unit)} more than is left to face.`
        : `${moves} ${formatWithUnit((needs - allowed) / 2, unit)} more than half of what the part allows.`,
    )
  if (needs + needsDoubt > allowed) return ranked('close', `${moves} Close: measure the ratio first.`)
  return ranked('good', moves)
}

/** Every collet of the library with every stop that goes with it, the best for this part first, the forbidden last. */
export function rankPairs(of: RankingCase): Ranked[] {
  const pairs = of.collets.flatMap((collet) =>
    stopKind.options
      .filter((stop) => STOPS[stop].fits.includes(collet.closing))
      .map((stop) => place({ collet, stop }, of)),
  )
  const forbidden = ({ stop }: Ranked) => (STOPS[stop].never ? 1 : 0)
  return pairs.sort(
    (a, b) => ORDER[a.place] - ORDER[b.place] || forbidden(a) - forbidden(b) || a.spread - b.spread,
  )
}

/** A stop with every collet that stands equal with it. */
export interface RankedStop extends Omit<Ranked, 'collet'> {
  collets: Collet[]
}

/** Pairs that differ in nothing but the collet, taken together; in the order of the best of each. */
export function byStop(ranked: readonly Ranked[]): RankedStop[] {
  const groups = new Map<string, RankedStop>()
  for (const { collet, ...of } of ranked) {
    const key = JSON.stringify(of)
    const group = groups.get(key)
    if (group) group.collets.push(collet)
    else groups.set(key, { ...of, collets: [collet] })
  }
  return [...groups.values()]
}
