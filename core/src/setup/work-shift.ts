import {
  type Answer,
  type Finding,
  type Freshness,
  type Verdict,
  verdictOf,
  worstFirst,
} from '../fact/index.ts'
import type { Machine } from '../machine/index.ts'
import { judgeWorkShift, pickupSettings, type Reading, WORK_SHIFT, workShift } from '../pickup/index.ts'
import { computedLength, type LengthUnit } from '../quantity/index.ts'
import { editedNote } from './edited.ts'
import type { Chain, EntryOf } from './kinds.ts'

/** The work shift of a lathe as it was taken last, in the setup's unit. */
export interface ShiftFact {
  entry: EntryOf<'work-shift'>
  freshness: Freshness
  shift: Answer<number>
  findings: Finding[]
  verdict: Verdict
}

/** The work shift that stands in a setup; nothing where none was taken, or where the machine is no lathe. */
export function shiftFact({
  chain,
  machine,
  unit,
}: {
  chain: Chain
  machine: Machine
  unit: LengthUnit
}): ShiftFact | undefined {
  const entry = chain.standing.get(WORK_SHIFT)?.entry
  if (entry?.kind !== 'work-shift' || machine.kind !== 'lathe') return undefined
  const shift = workShift(entry.reading, pickupSettings(machine, unit))
  const findings = worstFirst([
    ...judgeWorkShift(entry.reading, shift, { machine, unit, last: undefined }),
    ...editedNote(entry.machine, 'work shift', machine),
  ])
  return { entry, shift, findings, verdict: verdictOf(findings), freshness: chain.freshnessOf(entry.id) }
}

/** A reading as it counts while the control has a work shift: the geometry of a tool is less by it. */
export const inWorkShift = (reading: Reading, shift: ShiftFact | undefined): Reading =>
  reading.method === 'faced' && shift && shift.shift.value !== 0
    ? { ...reading, shift: computedLength(shift.shift.value, shift.shift.unit) }
    : reading

/** Whether a tool's Z holds, or would if the part lay where it lay: nothing has reached it but a part that was moved. */
const onlyMoved = (freshness: Freshness) =>
  freshness.state === 'fresh' || freshness.cause.all === 'part-moved'

/** The tools that a work shift can be taken with: their Z holds, or would if the part lay where it lay. */
export const shiftTools = <
  Offset extends { name: string; axes: { Z?: { verdict: Verdict; freshness: Freshness } } },
>(
  offsets: readonly Offset[],
): Offset[] =>
  offsets.filter(
    ({ name, axes: { Z } }) => /^T\d/.test(name) && Z && Z.verdict !== 'stop' && onlyMoved(Z.freshness),
  )
