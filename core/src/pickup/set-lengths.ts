import { type Block, clearUpBlocks, ownNumber, type Profile, writeProgram } from '../control/index.ts'
import { type Finding, finding } from '../fact/index.ts'
import type { Machine } from '../machine/index.ts'
import { notReadBack, type PlannedStep, read, readsAs } from '../program/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import { plannedTop, topOf } from './top.ts'

export type WrittenLengths =
  | { ok: true; text: string; findings: Finding[]; tools: readonly number[] }
  | { ok: false; findings: Finding[] }

/**
 * Writes the program that measures tools on the setter by the control's own macro: each tool in, the macro, spindle up. The macro knows
 * where the setter stands; nothing else moves. Read back before it is given out.
 */
export function writeSetLengths(
  tools: readonly number[],
  { machine, unit, profile }: { machine: Machine; unit: LengthUnit; profile: Profile },
  about: string[],
): WrittenLengths {
  const { setting } = profile
  if (!setting)
    return {
      ok: false,
      findings: [
        finding(
          'stop',
          'no-setting-macro',
          'profile',
          `The profile ${profile.name} has no macro for a tool setter.`,
          'A length is measured by a macro that is loaded in the control.',
          'Enter its number in the profile, from the manual of the setter; or touch each tool by hand.',
        ),
      ],
    }
  if (tools.length === 0)
    return {
      ok: false,
      findings: [
        finding(
          'stop',
          'no-tools',
          'tools',
          'No tool is named.',
          'Nothing would be measured.',
          'Type their numbers, such as 3 5 7.',
        ),
      ],
    }
  const top = clearUpBlocks(topOf(profile, machine, unit), unit, profile)
  const up = plannedTop(topOf(profile, machine, unit))
  const blocks: Block[] = [
    ...top,
    { words: 'M5', does: 'a tool is set with the spindle standing' },
    ...tools.flatMap((tool): Block[] => [
      { words: `T${tool} M6` },
      { words: `G65 P${setting.length} ${setting.word}${tool}`, does: `length of T${tool} on the setter` },
      ...top,
    ]),
    { words: 'M0', does: 'read the lengths on the tool page and type them into Dogleg' },
    { words: 'M30' },
  ]
  const text = writeProgram(
    {
      title: 'tool lengths on the setter',
      about: [
        ...about,
        'The macro goes over the setter and down by itself. Its number and words are defaults: check them against the manual of the setter.',
      ],
      unit,
      blocks,
      number: ownNumber(profile, 'setting'),
    },
    profile,
  )
  const planned: PlannedStep[] = [
    up,
    { does: 'other' },
    ...tools.flatMap((tool): PlannedStep[] => [
      { does: 'tool', tool },
      {
        does: 'call',
        program: setting.length,
        words: { [setting.word]: tool },
        frame: profile.offsets.standard[0] ?? 'G54',
      },
      up,
    ]),
    { does: 'stop' },
    { does: 'end' },
  ]
  const options = { profile, machine, unit }
  const measured = read(text, options).lengths.map(({ tool }) => tool)
  if (!readsAs(text, options, planned) || measured.join() !== tools.join())
    return {
      ok: false,
      findings: [
        notReadBack(`The profile ${profile.name} writes something that the reader takes for something else.`),
      ],
    }
  return { ok: true, text, tools, findings: [] }
}

/** Tool numbers as they are typed, in order, each once: '3 5, T7'. A sentence where one is none. */
export function readToolList(
  typed: string,
): { ok: true; tools: number[] } | { ok: false; says: string; empty: boolean } {
  const words = typed
    .trim()
    .split(/[\s,;]+/)
    .filter(Boolean)
  if (words.length === 0) return { ok: false, says: 'Type the tool numbers, such as 3 5 7.', empty: true }
  if (words.length > MOST_TOOLS)
    return { ok: false, says: `No more than ${MOST_TOOLS} tools at once.`, empty: false }
  const tools: number[] = []
  for (const word of words) {
    const digits = /^[Tt]?(\d{1,4})$/.exec(word)?.[1]
    if (digits === undefined || Number(digits) < 1)
      return { ok: false, says: `"${word.slice(0, 20)}" is not a tool number.`, empty: false }
    if (!tools.includes(Number(digits))) tools.push(Number(digits))
  }
  return { ok: true, tools }
}

/** More tools than a magazine holds are a slip. */
const MOST_TOOLS = 60
