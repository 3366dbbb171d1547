import { costAt, formatAngle } from '../angle/index.ts'
import { type Finding, finding } from '../fact/index.ts'
import type { LinearAxis } from '../machine/index.ts'
import { isHeight, judgePickup, pickUp, pickupSettings, type Stock, zeroMoved } from '../pickup/index.ts'
import { computedLength, formatWithUnit } from '../quantity/index.ts'
import { type EntryOf, expectationOf, type OffsetState, type Setup } from '../setup/index.ts'

/** How far part zero must go for an axis to stand where it is wanted: what every place of the drawing is further along by. */
function zeroShift({ X, Y, Z }: Stock, axis: 'X' | 'Y' | 'Z'): number {
  const { wanted, now } = { X, Y, Z }[axis]
  const by = wanted === undefined || now === undefined ? 0 : wanted - now
  return Math.abs(by) < 1e-9 ? 0 : by
}

/** Where an axis of an offset comes to stand, in the stock's unit; undefined where zero stays. */
export function zeroAfter(
  stock: Stock,
  { axis, value }: { axis: LinearAxis; value: number },
): number | undefined {
  const by = zeroShift(stock, axis)
  return by === 0 ? undefined : value - by
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

/**
 * A part that lies turned: a place of the drawing lies elsewhere on the machine than it does on the drawing, so that zero put along the
 * axes is off by the chord of the way that it goes. `allowed` is the setup's tolerance.
 */
function ofTurned(moves: readonly MovedPickup[], { angle, name }: OffsetState, setup: Setup): Finding[] {
  const { unit, tolerance } = setup
  const way = Math.hypot(
    ...moves.flatMap(({ reading: { axis }, moved }) => (axis === 'Z' || !moved ? [] : [moved.value])),
  )
  if (way === 0 || !angle) return []
  const off = costAt(way, angle.angle.value)
  if (off <= tolerance) return []
  return [
    finding(
      'stop',
      'part-lies-turned',
      'X',
      `The part of ${name} lies ${formatAngle(angle.angle.value)} deg turned: zero put ${formatWithUnit(way, unit)} along the axes would be ${formatWithUnit(off, unit)} off.`,
      `A place of its drawing does not lie there on the machine. ${formatWithUnit(tolerance, unit)} is allowed.`,
      'Square the part, or take zero at the place itself.',
    ),
  ]
}

/** What keeps zero from being put there: a part that lies turned, or a place where the machine cannot stand. */
export const moveHindrances = (moves: readonly MovedPickup[], of: OffsetState, setup: Setup): Finding[] => [
  ...ofTurned(moves, of, setup),
  ...moves.flatMap(({ offset, reading, moved }) => {
    const pickup = pickUp(reading, pickupSettings(setup.machine, setup.unit))
    const expected = expectationOf(setup, offset, reading.axis)
    const last = expected.last && { ...expected.last, value: expected.last.value + (moved?.value ?? 0) }
    // What a person finds beyond the travel is looked at; what a press would put there is not.
    return judgePickup(reading, pickup, { ...expected, last }).flatMap((each) =>
      each.severity === 'stop' || each.code === 'zero-outside-travel'
        ? [{ ...each, severity: 'stop' as const }]
        : [],
    )
  }),
]

/** Whether the height of a block asks for the probe's length as well: its zero was set by the probe's own cycle. */
export const asksSeatLength = ({ axes: { Z } }: Pick<OffsetState, 'axes'>) =>
  Z !== undefined && !isHeight(Z.entry.reading)
