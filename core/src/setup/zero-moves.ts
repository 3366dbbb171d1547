import type { Finding } from '../fact/index.ts'
import { isHeight, judgePickup, pickUp, pickupSettings, type Stock, zeroMoved } from '../pickup/index.ts'
import { computedLength } from '../quantity/index.ts'
import { expectationOf, type OffsetState, type Setup } from './derive.ts'
import type { EntryOf } from './entries.ts'

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

/** What keeps zero from being put there: a place where the machine cannot stand, or that the method cannot give. */
export const moveHindrances = (moves: readonly MovedPickup[], setup: Setup): Finding[] =>
  moves.flatMap(({ offset, reading, moved }) => {
    const pickup = pickUp(reading, pickupSettings(setup.machine, setup.unit))
    const expected = expectationOf(setup, offset, reading.axis)
    const last = expected.last && { ...expected.last, value: expected.last.value + (moved?.value ?? 0) }
    // What a person finds beyond the travel is looked at; what a press would put there is not.
    return judgePickup(reading, pickup, { ...expected, last }).flatMap((each) =>
      each.severity === 'stop' || each.code === 'zero-outside-travel'
        ? [{ ...each, severity: 'stop' as const }]
        : [],
    )
  })

/** Whether the height of a block asks for the probe's length as well: its zero was set by the probe's own cycle. */
export const asksSeatLength = ({ axes: { Z } }: Pick<OffsetState, 'axes'>) =>
  Z !== undefined && !isHeight(Z.entry.reading)
