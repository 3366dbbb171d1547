import { z } from 'zod'
import { type Answer, combineDoubt, type Finding, finding, worstFirst } from '../fact/index.ts'
import { type Machine, travelIn } from '../machine/index.ts'
import {
  type DraftRead,
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

const within = typedLength.refine(({ value }) => value > 0, {
  error: 'Nothing is known to better than nothing: type how well it is known.',
})

/**
 * The height of a tool setter: machine Z at which a tool of length 0 would trigger it, in the shop's own convention for lengths. Found
 * with a master whose length is known, or taken over from the control (common practice).
 */
export const setterReading = z.discriminatedUnion('how', [
  z.object({
    how: z.literal('master'),
    machinePosition: positionReading.describe('machine Z where the master triggered it'),
    masterLength: typedLength.describe('0 where lengths are differences from the master'),
    masterWithin: within.describe('how well that length is known'),
  }),
  z.object({
    how: z.literal('typed'),
    height: typedLength.describe('as the control or its page has it'),
    heightWithin: within,
  }),
])
export type SetterReading = z.infer<typeof setterReading>

/** What stands in the form. */
export const setterDraft = z.object({
  how: z.enum(['master', 'typed']),
  machinePosition: z.string(),
  masterLength: z.string(),
  masterWithin: z.string(),
  height: z.string(),
  heightWithin: z.string(),
})
export type SetterDraft = z.infer<typeof setterDraft>
export type SetterField = Exclude<keyof SetterDraft, 'how'>

/** The fields of each way, in the order of the work. */
export const SETTER_FIELDS: Record<SetterDraft['how'], readonly SetterField[]> = {
  master: ['machinePosition', 'masterLength', 'masterWithin'],
  typed: ['height', 'heightWithin'],
}

export const startingSetter = (unit: LengthUnit): SetterDraft => ({
  how: 'master',
  machinePosition: '',
  masterLength: '',
  masterWithin: unit === 'inch' ? '.0001' : '.002',
  height: '',
  heightWithin: unit === 'inch' ? '.001' : '.02',
})

/** Turns the form into a reading, or says what each field still needs. Lengths are read in `unit`. */
export function readSetterDraft(draft: SetterDraft, unit: LengthUnit): DraftRead<SetterReading> {
  const problems: FieldProblems = {}
  const length = lengthFields(unit, problems)
  const position = () => {
    const entry = readPosition(draft.machinePosition, unit)
    if (entry.ok) return entry.value
    problems.machinePosition = { says: entry.says, empty: entry.empty }
    return undefined
  }
  const typed =
    draft.how === 'master'
      ? {
          machinePosition: position(),
          masterLength: length('masterLength', draft.masterLength),
          masterWithin: length('masterWithin', draft.masterWithin),
        }
      : {
          height: length('height', draft.height),
          heightWithin: length('heightWithin', draft.heightWithin),
        }
  const read = setterReading.safeParse({ how: draft.how, ...typed })
  for (const { path, message } of read.error?.issues ?? [])
    problems[String(path[0])] ??= { says: message, empty: false }
  return read.success && Object.keys(problems).length === 0
    ? { ok: true, value: read.data }
    : { ok: false, problems }
}

/** height = machine Z at the trigger - the master's length. Common practice. */
export function setterHeight(from: SetterReading, settings: PickupSettings): Answer<number> {
  const { unit } = settings
  const own = readingIn(from, unit)
  if (own.how === 'typed') {
    const text = formatLength(own.height.value, unit)
    return {
      value: own.height.value,
      unit,
      working: [{ finds: 'height', arithmetic: text, means: 'as it was taken over', gives: text }],
      doubt: combineDoubt([part('it is known to', own.heightWithin.value)]),
    }
  }
  const at = meanReading(own.machinePosition, REPEATABILITY.setter[unit], unit, 'the master')
  const value = at.value - own.masterLength.value
  return {
    value,
    unit,
    working: [
      ...at.lines,
      {
        finds: 'height',
        arithmetic: difference(at.text, formatLength(own.masterLength.value, unit)),
        means: 'machine Z at the trigger less the master: where a tool of no length would trigger it',
        gives: formatLength(value, unit),
      },
    ],
    doubt: combineDoubt([
      part('the setter repeats to', at.random),
      part('the master is known to', own.masterWithin.value),
      display(settings),
    ]),
  }
}

interface SetterCase {
  machine: Machine
  unit: LengthUnit
  /** What it was before, where it was calibrated. */
  last: { value: number; doubt: number } | undefined
}

/** No tool is longer: a height further below the travel than this triggers none. [inch, mm] */
const LONGEST_TOOL = { inch: 24, mm: 600 }
/** Heights nearer than this are one place, typed differently. [inch, mm] */
const SAME_PLACE = { inch: 0.1, mm: 2.5 }

function ofMaster(from: SetterReading, { machine, unit }: SetterCase): Finding[] {
  if (from.how !== 'master') return []
  const { value } = from.masterLength
  return [
    ...outsideTravel('Z', 'machinePosition', valuesOf(from.machinePosition), machine, unit),
    ...(machine.toolLengths === 'gauge-line' && value <= 0
      ? [
          finding(
            'stop' as const,
            'master-length',
            'masterLength',
            'A master measured from the gauge line is longer than nothing.',
            `Lengths on ${machine.name} count from the gauge line of the spindle.`,
            'Type its length, or change the convention on the machine page.',
          ),
        ]
      : []),
    ...(machine.toolLengths === 'master-tool' && value !== 0
      ? [
          finding(
            'look' as const,
            'master-has-length',
            'masterLength',
            'Against a master tool the master itself is 0.',
            `${machine.name} takes its lengths as differences from the master.`,
            'Type 0, or change the convention on the machine page.',
          ),
        ]
      : []),
  ]
}

/** What can be wrong with the height of a setter, by the travel and by what it was before. `from` in the case's unit. */
export function judgeSetter(from: SetterReading, answer: Answer<number>, of: SetterCase): Finding[] {
  const { machine, unit, last } = of
  const own = readingIn(from, unit)
  const { value, doubt } = answer
  const findings = ofMaster(own, of)
  const { least, greatest } = travelIn(machine, 'Z', unit)
  const reached = (height: number) => height <= greatest && height >= least - LONGEST_TOOL[unit]
  const where = own.how === 'typed' ? 'height' : 'masterLength'
  const other = [value * MM_PER_INCH, value / MM_PER_INCH].find((each) =>
    last ? Math.abs(each - last.value) <= SAME_PLACE[unit] : !reached(value) && reached(each) && each < 0,
  )
  if (other !== undefined)
    findings.push(
      finding(
        'stop',
        'unit-mixed',
        where,
        'The height looks like the other unit.',
        `It is ${formatLength(value, unit)}; in the other unit it would be ${formatLength(other, unit)}${last ? ', as before' : ', where a tool can trigger it'}.`,
        'Write the unit behind the number.',
      ),
    )
  else if (!reached(value))
    findings.push(
      finding(
        'stop',
        'out-of-reach',
        where,
        `No tool triggers a setter at ${formatWithUnit(value, unit)}.`,
        `Z of ${machine.name} goes from ${formatLength(least, unit)} to ${formatLength(greatest, unit)}; a tool of no length would trigger it there, a real one higher by its length.`,
        'Check the sign: below home is minus.',
      ),
    )
  else if (last && Math.abs(value - last.value) > 3 * Math.hypot(doubt.value, last.doubt))
    findings.push(
      finding(
        'look',
        'setter-moved',
        where,
        `The setter lies ${formatWithUnit(Math.abs(value - last.value), unit)} ${value > last.value ? 'higher' : 'lower'} than it was.`,
        'It was knocked, the machine is warmer or colder, or the master is another. Lengths that were measured with it as it was go stale.',
        'Wipe it and touch it once more.',
      ),
    )
  return worstFirst(findings)
}

/** A calibration is looked at again after so many days: temperature and knocks that nobody saw. By judgement. */
const OLD_DAYS = 7
const DAY_MS = 86_400_000

/** What is said of the age of a calibration; nothing while it is young. Times in ms since 1970. */
export function setterAge(at: number, now: number): Finding[] {
  const days = Math.floor((now - at) / DAY_MS)
  return days > OLD_DAYS
    ? [
        finding(
          'look',
          'old-calibration',
          'setter',
          `The setter was calibrated ${days} days ago.`,
          'It shifts with the temperature of the machine, and with every knock.',
          'Touch the master on it again.',
        ),
      ]
    : []
}
