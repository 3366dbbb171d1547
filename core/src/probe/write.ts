import {
  type Block,
  clearUpBlocks,
  ownNumber,
  type Profile,
  writeNumber,
  writeProgram,
} from '../control/index.ts'
import { type Finding, finding, worstFirst } from '../fact/index.ts'
import { topOf } from '../pickup/index.ts'
import { readsAs } from '../program/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import { checkProbe, type ProbeSituation } from './check.ts'
import { type ProbeCall, planProbe } from './plan.ts'
import { FEATURES, type ProbeTask } from './task.ts'

export type WrittenProbe =
  /** `measures`: the block that calls the measuring macro. */
  | { ok: true; text: string; measures: string; findings: Finding[]; results: string[] }
  | { ok: false; findings: Finding[] }

/** Words of a call whose letter is not a length: printed as the number that it is. */
const PLAIN_WORDS = new Set(['S'])

function callWords(step: ProbeCall['step'], unit: LengthUnit, profile: Profile): string {
  const words = Object.entries(step.words).map(([letter, value]) =>
    PLAIN_WORDS.has(letter) ? `${letter}${value}` : `${letter}${writeNumber(value, unit, profile)}`,
  )
  return ['G65', `P${step.program}`, ...words].join(' ')
}

/** Where the macros leave what they find, for the profile. */
function resultsOf(task: ProbeTask, profile: Profile): string[] {
  const { probing } = profile
  if (!probing) return []
  const { results } = probing
  const variable = (of: number) => `#${of}`
  if (task.feature === 'edge') return [`angle in ${variable(results.angle)}`]
  const axes =
    task.feature === 'surface' || task.feature === 'web' || task.feature === 'pocket'
      ? [task.axis]
      : (['X', 'Y'] as const)
  const sized = FEATURES[task.feature].fields.includes('size')
  return [
    ...axes.map((axis) => `${axis} in ${variable(results[axis])}`),
    ...(sized ? [`size in ${variable(results.size)}`] : []),
  ]
}

/**
 * Writes the program that probes a feature and sets the offset, for the profile; nothing when a check says stop. What is
 * written is read back first.
 */
export function writeProbe(
  task: ProbeTask,
  situation: ProbeSituation,
  profile: Profile,
  about: string[],
): WrittenProbe {
  const { machine, shape, unit, offset } = situation
  const { probing } = profile
  if (!probing)
    return {
      ok: false,
      findings: [
        finding(
          'stop',
          'no-probe-macros',
          'profile',
          `The profile ${profile.name} has no probe macros.`,
          'A probe call is a call of the macros that are loaded in the control.',
          'Enter their numbers in the profile, from the manual of the probe.',
        ),
      ],
    }
  const findings = checkProbe(task, situation)
  if (findings.some(({ severity }) => severity === 'stop')) return { ok: false, findings }
  const plan = planProbe(
    task,
    { offset, unit, stylus: shape.stylus, tool: shape.tool },
    profile,
    probing,
    machine,
  )
  const top = clearUpBlocks(topOf(profile, machine, unit), unit, profile)
  const blocks: Block[] = [
    ...top,
    { words: `T${shape.tool} M6`, does: 'the probe' },
    { words: `G90 ${offset}` },
    { words: `G43 H${shape.tool}`, does: "the probe's own length" },
    ...plan.calls.map(({ step, does }) => ({ words: callWords(step, unit, profile), does })),
    ...top,
    {
      words: 'M0',
      does:
        task.feature === 'edge'
          ? `read the angle: variable ${probing.results.angle}`
          : `read ${offset} on the offset page and type it into Dogleg`,
    },
    { words: 'M30' },
  ]
  const results = resultsOf(task, profile)
  const text = writeProgram(
    {
      title: `probe ${FEATURES[task.feature].name}${task.feature === 'edge' ? '' : `, set ${offset}`}`,
      about: [
        ...about,
        `Probe in T${shape.tool}. Results: ${results.join(', ')}.`,
        `${offset} must be roughly right before this runs. Macro numbers and words are defaults: check them against the manual of the probe.`,
      ],
      unit,
      blocks,
      number: ownNumber(profile, 'probe'),
    },
    profile,
  )
  if (!readsAs(text, { profile, machine, unit }, plan.steps))
    return {
      ok: false,
      findings: [
        finding(
          'stop',
          'not-read-back',
          'profile',
          'What would be written cannot be read back as it is meant.',
          `The reader knows G65 calls and the usual codes. The profile ${profile.name} writes something else.`,
          'Check the codes of the profile.',
        ),
      ],
    }
  return {
    ok: true,
    text,
    measures: callWords(plan.measures.step, unit, profile),
    results,
    findings: worstFirst(findings),
  }
}
