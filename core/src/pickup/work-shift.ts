import { z } from 'zod'
import { type Answer, combineDoubt, type Finding, finding, worstFirst } from '../fact/index.ts'
import type { Machine } from '../machine/index.ts'
import {
  computedLength,
  type DraftRead,
  draftRead,
  type FieldProblems,
  formatLength,
  formatWithUnit,
  type LengthUnit,
  lengthFields,
  MM_PER_INCH,
  typedLength,
} from '../quantity/index.ts'
import { outsideTravel } from './outside.ts'
import { readingIn } from './pick-up.ts'
import { positionReading, readPosition, valuesOf } from './position.ts'
import { REPEATABILITY } from './repeatability.ts'
import { difference, display, meanReading, type PickupSettings, part } from './words.ts'

/**
 * The work shift of a lathe: how far part zero lies along Z from where the tools have it by their geometry, plus away from the chuck. One
 * tool whose geometry holds is brought to the face of the part as it lies now (common practice).
 */
export const workShiftReading = z.object({
  machinePosition: positionReading.describe('machine Z with the tool on the face'),
  drawingPosition: typedLength.describe('Z of the face, from part zero'),
  geometry: typedLength.describe('Z of the tool’s geometry as it stood'),
  geometryWithin: typedLength.refine(({ value }) => value >= 0, {
    error: 'How well the geometry is known cannot be negative.',
  }),
})
export type WorkShiftReading = z.infer<typeof workShiftReading>

/** What stands in the form; `tool` is the one whose geometry is used: 'T4'. */
export const workShiftDraft = z.object({
  tool: z.string(),
  machinePosition: z.string(),
  drawingPosition: z.string(),
})
export type WorkShiftDraft = z.infer<typeof workShiftDraft>

/** The Z of a tool's geometry that a shift counts from, in the unit of the form. */
export interface ShiftFrom {
  value: number
  doubt: number
}

/** Turns the form into a reading, or says what each field still needs. Lengths are read in `unit`. */
export function readWorkShift(
  draft: WorkShiftDraft,
  from: ShiftFrom | undefined,
  unit: LengthUnit,
): DraftRead<WorkShiftReading> {
  const problems: FieldProblems = {}
  const length = lengthFields(unit, problems)
  const position = readPosition(draft.machinePosition, unit)
  if (!position.ok) problems.machinePosition = { says: position.says, empty: position.empty }
  if (!from) problems.tool = { says: 'Choose a tool whose Z held before the part was moved.', empty: true }
  const read = workShiftReading.safeParse({
    machinePosition: position.ok ? position.value : undefined,
    drawingPosition: length('drawingPosition', draft.drawingPosition),
    geometry: from && computedLength(from.value, unit),
    geometryWithin: from && computedLength(from.doubt, unit),
  })
  return draftRead<WorkShiftReading>(read, problems)
}

/** shift = machine Z at the face - the face's Z - Z of the tool's geometry. Common practice. */
export function workShift(from: WorkShiftReading, settings: PickupSettings): Answer<number> {
  const { unit } = settings
  const own = readingIn(from, unit)
  const at = meanReading(own.machinePosition, REPEATABILITY.faced[unit], unit)
  const [face, geometry] = [own.drawingPosition.value, own.geometry.value]
  const value = at.value - face - geometry
  return {
    value,
    unit,
    working: [
      ...at.lines,
      {
        finds: 'work shift',
        arithmetic: difference(at.text, formatLength(face, unit), formatLength(geometry, unit)),
        means: "machine Z at the face, less the face's own Z, less the tool's geometry",
        gives: formatLength(value, unit),
      },
    ],
    doubt: combineDoubt([
      part('touching the face repeats to', at.random),
      part("the tool's geometry is known to", own.geometryWithin.value),
      display(settings),
    ]),
  }
}

interface ShiftCase {
  machine: Machine
  unit: LengthUnit
  /** What stands at the control now, where one was taken before. */
  last: { value: number; fresh: boolean } | undefined
}

/** Shifts further than this are another part, or a slip. [inch, mm] By judgement. */
const FAR = { inch: 4, mm: 100 }

/** What can be wrong with a work shift: a place that cannot be, the other unit or sign, one that is far. */
export function judgeWorkShift(from: WorkShiftReading, answer: Answer<number>, of: ShiftCase): Finding[] {
  const { machine, unit, last } = of
  const own = readingIn(from, unit)
  const findings = outsideTravel('Z', 'machinePosition', valuesOf(own.machinePosition), machine, unit)
  const text = (value: number) => formatLength(value, unit)
  const rest = own.drawingPosition.value + own.geometry.value
  const [position] = valuesOf(own.machinePosition)
  const slip = [MM_PER_INCH, 1 / MM_PER_INCH].find(
    (factor) => Math.abs((position ?? 0) * factor - rest) < FAR[unit] / 4,
  )
  if (Math.abs(answer.value) > FAR[unit])
    findings.push(
      finding(
        'look',
        slip === undefined ? 'far-shift' : 'unit-mixed',
        'machinePosition',
        slip === undefined
          ? `The part lies ${formatWithUnit(Math.abs(answer.value), unit)} from where the tools have it.`
          : 'The machine position looks like the other unit.',
        slip === undefined
          ? 'So far away it is another part or another chuck, or the tool is not the one that was chosen.'
          : `Read in the other unit it would be ${text((position ?? 0) * slip)}, near where the tool had the face before.`,
        'Read the position again, and look which tool is at the face.',
      ),
    )
  if (last && !last.fresh && answer.value !== 0 && Math.abs(answer.value - last.value) < 1e-9)
    findings.push(
      finding(
        'note',
        'unchanged',
        'machinePosition',
        'It is what it was before, to the last digit.',
        'That no longer held. Rightly so only where the part lies where it lay.',
      ),
    )
  return worstFirst(findings)
}
