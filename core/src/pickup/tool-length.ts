import { z } from 'zod'
import { type Answer, combineDoubt, type Finding, finding } from '../fact/index.ts'
import { type Machine, travelIn, withinTravel } from '../machine/index.ts'
import {
  computedLength,
  convertLength,
  type FieldProblems,
  formatLength,
  formatWithUnit,
  type LengthUnit,
  typedLength,
} from '../quantity/index.ts'
import { readToolNumber } from './draft.ts'
import { readingIn } from './pick-up.ts'
import { type PositionReading, positionReading, readPosition } from './position.ts'
import { REPEATABILITY } from './repeatability.ts'
import { difference, display, inParentheses, meanReading, type PickupSettings, part } from './words.ts'

/**
 * A tool's length by touching the same block or setter as a tool whose length is known: the master. Against a master
 * tool the master's length is 0 and the others are differences from it; from the gauge line it is what the master
 * measures there.
 */
export const toolLengthReading = z.object({
  tool: z.int().min(0).max(9999),
  machinePosition: positionReading.describe('machine Z with this tool on the block'),
  masterPosition: positionReading.describe('machine Z with the master on the same block'),
  masterLength: typedLength.describe('0 where lengths are differences from the master'),
  setter: z
    .object({
      entry: z.ulid().describe('the calibration that it was measured with'),
      within: typedLength.describe('how well the height of the setter was known'),
    })
    .optional()
    .describe('measured on a tool setter: what stands for the master is its height, of no length'),
  macro: z
    .literal(true)
    .optional()
    .describe('the control measured it itself: what stands for its position is the length on its tool page'),
})
export type ToolLengthReading = z.infer<typeof toolLengthReading>

/** What stands in the form. */
export const toolLengthDraft = z.object({
  tool: z.string(),
  machinePosition: z.string(),
  masterPosition: z.string(),
  masterLength: z.string(),
  on: z.enum(['block', 'setter', 'shown']).default('block'),
})
export type ToolLengthDraft = z.infer<typeof toolLengthDraft>
export type ToolLengthField = Exclude<keyof ToolLengthDraft, 'on'>

export type ToolLengthRead = { ok: true; reading: ToolLengthReading } | { ok: false; problems: FieldProblems }

/** A setter as it is calibrated, in the unit of the form. */
export interface SetterInUse {
  entry: string
  height: number
  doubt: number
}

/** What stands for the master where the control shows the length itself. */
function fromNothing(unit: LengthUnit) {
  const nothing = computedLength(0, unit)
  return { masterPosition: nothing, masterLength: nothing }
}

/** What stands for the master where a setter was touched; without one that is calibrated it says so. */
function onSetter(setter: SetterInUse | undefined, unit: LengthUnit, problems: FieldProblems) {
  if (!setter) {
    problems.setter = { says: 'Calibrate the setter first.', empty: true }
    return {}
  }
  return {
    masterPosition: computedLength(setter.height, unit),
    masterLength: computedLength(0, unit),
    setter: { entry: setter.entry, within: computedLength(setter.doubt, unit) },
  }
}

/** Turns the form into a reading, or says what each field still needs. Lengths are read in `unit`. */
export function readToolLengthDraft(
  draft: ToolLengthDraft,
  unit: LengthUnit,
  setter?: SetterInUse,
): ToolLengthRead {
  const problems: FieldProblems = {}
  const tool = readToolNumber(draft.tool)
  if (!tool.ok) problems.tool = tool
  const position = (field: Exclude<ToolLengthField, 'tool'>): PositionReading | undefined => {
    const entry = readPosition(draft[field], unit)
    if (entry.ok) return entry.value
    problems[field] = { says: entry.says, empty: entry.empty }
    return undefined
  }
  const read = toolLengthReading.safeParse({
    tool: tool.ok ? tool.value : undefined,
    machinePosition: position('machinePosition'),
    ...(draft.on === 'setter'
      ? onSetter(setter, unit, problems)
      : draft.on === 'shown'
        ? { ...fromNothing(unit), macro: true }
        : { masterPosition: position('masterPosition'), masterLength: position('masterLength') }),
  })
  return read.success && Object.keys(problems).length === 0
    ? { ok: true, reading: read.data }
    : { ok: false, problems }
}

/** length = master's length + machine position - master's machine position, on the same block. Common practice. */
export function toolLength(from: ToolLengthReading, settings: PickupSettings): Answer<number> {
  const { unit } = settings
  const { machinePosition, masterPosition, masterLength, setter } = readingIn(from, unit)
  if (from.macro) return asShown(from.tool, machinePosition.value, settings)
  if (setter) return bySetter(from.tool, machinePosition, masterPosition.value, setter.within.value, settings)
  const each = REPEATABILITY['tool-on-block'][unit]
  const own = meanReading(machinePosition, each, unit, 'this tool')
  const master = meanReading(masterPosition, each, unit, 'the master')
  const value = masterLength.value + own.value - master.value
  return {
    value,
    unit,
    working: [
      ...own.lines,
      ...master.lines,
      {
        finds: `length of T${from.tool}`,
        arithmetic: `${formatLength(masterLength.value, unit)} + ${difference(inParentheses(own.text), master.text)}`,
        means: 'master, plus how much higher the spindle stands with this tool on the same block',
        gives: formatLength(value, unit),
      },
    ],
    doubt: combineDoubt([
      part('this tool on the block', own.random),
      part('the master on the block', master.random),
      display(settings, Math.SQRT2),
    ]),
  }
}

/** The length as the control's own macro has set it; it and its calibration are touches of the setter. Common practice. */
function asShown(tool: number, value: number, settings: PickupSettings): Answer<number> {
  const { unit } = settings
  const text = formatLength(value, unit)
  const each = REPEATABILITY.setter[unit]
  return {
    value,
    unit,
    working: [
      { finds: `length of T${tool}`, arithmetic: text, means: 'as the tool page shows it', gives: text },
    ],
    doubt: combineDoubt([
      part('this tool on the setter', each),
      part('the calibration of the setter', each),
      display(settings),
    ]),
  }
}

/** length = machine Z at the trigger - the setter's height over what lengths count from. Common practice. */
function bySetter(
  tool: number,
  machinePosition: PositionReading,
  height: number,
  within: number,
  settings: PickupSettings,
): Answer<number> {
  const { unit } = settings
  const own = meanReading(machinePosition, REPEATABILITY.setter[unit], unit, 'this tool')
  const value = own.value - height
  return {
    value,
    unit,
    working: [
      ...own.lines,
      {
        finds: `length of T${tool}`,
        arithmetic: difference(own.text, formatLength(height, unit)),
        means: 'machine Z at the trigger less the height of the setter',
        gives: formatLength(value, unit),
      },
    ],
    doubt: combineDoubt([
      part('this tool on the setter', own.random),
      part('the height of the setter', within),
      display(settings),
    ]),
  }
}

/** What can be wrong with a tool's length, and with the last one where there is one. */
export function judgeToolLength(
  from: ToolLengthReading,
  answer: Answer<number>,
  { machine, unit, last }: { machine: Machine; unit: LengthUnit; last: number | undefined },
): Finding[] {
  const findings: Finding[] = []
  const inUnit = (of: PositionReading) => convertLength(of.value, of.unit, unit)
  // The height of a setter is where a tool of no length would trigger it, and a length that is shown is no position.
  for (const field of ['machinePosition', 'masterPosition'] as const)
    if (
      !from.macro &&
      !(field === 'masterPosition' && from.setter) &&
      !withinTravel(machine, 'Z', inUnit(from[field]), unit)
    ) {
      const { least, greatest } = travelIn(machine, 'Z', unit)
      findings.push(
        finding(
          'stop',
          'outside-travel',
          field,
          `The machine cannot have stood at Z ${formatLength(inUnit(from[field]), unit)}.`,
          `Z of ${machine.name} goes from ${formatLength(least, unit)} to ${formatWithUnit(greatest, unit)}.`,
          'Read the machine position again, with its sign.',
        ),
      )
    }
  const master = inUnit(from.masterLength)
  if (machine.toolLengths === 'gauge-line' && answer.value <= 0)
    findings.push(
      finding(
        'stop',
        'tool-length-sign',
        'machinePosition',
        'A tool length from the gauge line must be more than zero.',
        `This one comes out as ${formatWithUnit(answer.value, unit)}.`,
        'A longer tool leaves the spindle higher on the same block: check which position is which.',
      ),
    )
  if (machine.toolLengths === 'master-tool' && master !== 0)
    findings.push(
      finding(
        'look',
        'master-has-length',
        'masterLength',
        'Against a master tool the master itself is 0.',
        `${machine.name} takes its lengths as differences from the master; with ${formatLength(master, unit)} they come out as something else.`,
        'Type 0, or change the convention on the machine page.',
      ),
    )
  const bound = 3 * Math.SQRT2 * answer.doubt.value
  if (last !== undefined && Math.abs(answer.value - last) > bound)
    findings.push(
      finding(
        'look',
        'length-changed',
        'machinePosition',
        `T${from.tool} is ${formatWithUnit(Math.abs(answer.value - last), unit)} ${answer.value > last ? 'longer' : 'shorter'} than last time.`,
        `Two measurements of one tool agree within ${formatWithUnit(bound, unit)} (three times their doubt).`,
        'A new edge or another holder explains it; else touch again. A Z that was found with the old length goes stale.',
      ),
    )
  return findings
}
