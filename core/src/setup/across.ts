import { angled, costAt, measureAngle } from '../angle/index.ts'
import { coded } from '../code/index.ts'
import { gauging } from '../gauge/index.ts'
import { type AcrossRule, across, type LogEntry } from '../log/index.ts'
import { palleted } from '../pallet/index.ts'
import { pickup, SHIFT_TAKEN, shifted } from '../pickup/index.ts'
import { laidOut, proved } from '../prove/index.ts'
import { convertLength, type TypedLength } from '../quantity/index.ts'
import { saved } from '../saving/index.ts'

// What an entry of one room makes stale of another room, where neither is built on the other.

const inMm = (length: TypedLength) => convertLength(length.value, length.unit, 'mm')

/** Whether a program was made with what was measured before: then it depends on that, and goes stale by it. */
const madeWith = ({ rests }: { rests: readonly string[] }, before: { entry: LogEntry } | undefined) =>
  before !== undefined && rests.includes(before.entry.id)

const movedZero = ({ reading: { axis } }: { reading: { axis: string } }) =>
  `${axis}0 was put elsewhere on the drawing`

/**
 * What has places of the drawing in it counts from part zero: taking a zero again leaves them as they are, putting it elsewhere on
 * the drawing does not.
 */
const countsFromZero = ({ moved, offset }: { moved?: TypedLength | undefined; offset: string }) =>
  moved && ((fact: { offset: string }) => fact.offset === offset)

export const ACROSS: readonly AcrossRule[] = [
  across(pickup, laidOut, movedZero, ({ moved }) => moved && (() => true)),
  across(pickup, coded, movedZero, countsFromZero),
  across(pickup, gauging, movedZero, countsFromZero),
  // Built to be turned by the angle, which is another now.
  across(
    angled,
    coded,
    'the angle was measured',
    ({ offset }, before) =>
      (fact) =>
        !madeWith(fact, before) && fact.sheet.turned && fact.offset === offset,
  ),
  // Proved without the angle, though ignoring it costs more than is allowed.
  across(
    angled,
    proved,
    'the angle was measured',
    ({ offset, reading, reach, allowed }, before) =>
      (fact) => {
        if (madeWith(fact, before) || fact.frame !== offset) return false
        const { value } = measureAngle(reading, { unit: 'mm', leastStep: 0 })
        return costAt(inMm(reach), value) > inMm(allowed)
      },
  ),
  // A proof has machine positions in it.
  across(shifted, proved, SHIFT_TAKEN, () => () => true),
  // A program that a saving changed runs on a pallet as it was before.
  across(
    saved,
    palleted,
    ({ title }) => `time was saved in ${title}`,
    ({ title, text }) =>
      ({ plan }) =>
        plan.pallets.some(({ program }) => program.title === title && program.text !== text),
  ),
]
