import { z } from 'zod'
import { type Answer, combineDoubt, type Finding, finding } from '../fact/index.ts'
import { type Machine, travelIn, withinTravel } from '../machine/index.ts'
import {
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
})
export type ToolLengthReading = z.infer<typeof toolLengthReading>

/** What stands in the form. */
export const toolLengthDraft = z.object({
  tool: z.string(),
  machinePosition: z.string(),
  masterPosition: z.string(),
  masterLength: z.string(),
})
export type ToolLengthDraft = z.infer<typeof toolLengthDraft>
export type ToolLengthField = keyof ToolLengthDraft

export type ToolLengthRead = { ok: true; reading: ToolLengthReading } | { ok: false; problems: FieldProblems }

/** Turns the form into a reading, or says what each field still needs. Lengths are read in `unit`. */
export function readToolLengthDraft(draft: ToolLengthDraft, unit: LengthUnit): ToolLengthRead {
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
    masterPosition: position('masterPosition'),
    masterLength: position('masterLength'),
  })
  return read.success && Object.keys(problems).length === 0
    ? { ok: true, reading: read.data }
    : { ok: false, problems }
}

/** length = master's length + machine position - master's machine position, on the same block. Common practice. */
export function toolLength(from: ToolLengthReading, settings: PickupSettings): Answer<number> {
  const { unit } = settings
  const { machinePosition, masterPosition, masterLength } = readingIn(from, unit)
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

/** What can be wrong with a tool's length, and with the last one where there is one. */
export function judgeToolLength(
  from: ToolLengthReading,
  answer: Answer<number>,
  { machine, unit, last }: { machine: Machine; unit: LengthUnit; last: number | undefined },
): Finding[] {
  const findings: Finding[] = []
  const inUnit = (of: PositionReading) => convertLength(of.value, of.unit, unit)
  for (const field of ['machinePosition', 'masterPosition'] as const)
    if (!withinTravel(machine, 'Z', inUnit(from[field]), unit)) {
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
