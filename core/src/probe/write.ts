import {
  type Block,
  clearUpBlocks,
  ownNumber,
  type Profile,
  printedDigits,
  writeNumber,
  writeProgram,
} from '../control/index.ts'
import { type Finding, finding, worstFirst } from '../fact/index.ts'
import { topOf } from '../pickup/index.ts'
import { notReadBack, read, readsAs } from '../program/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import { cycleTime, speedsOf } from '../timing/index.ts'
import { asAsked, findsWhole } from './as-asked.ts'
import { checkProbe } from './check.ts'
import { type ProbeCall, type ProbeLine, type ProbePlan, planProbe } from './plan.ts'
import type { ProbeSituation } from './situation.ts'
import { FEATURES, isWhole, type ProbeTask } from './task.ts'

export type WrittenProbe =
  | {
      ok: true
      text: string
      /** The blocks that call the measuring macros. */
      measures: string[]
      findings: Finding[]
      results: string[]
      /** What it takes, as far as the macros are known: their own pauses are not. */
      seconds: number
    }
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
  const { probing, macros } = profile
  if (!probing) return []
  const { results } = probing
  const variable = (of: number) => `#${of}`
  if (task.feature === 'edge') return [`angle in ${variable(results.angle)}`]
  if (task.feature === 'corner-top') return []
  if (task.feature === 'block')
    return macros
      ? [`length in ${variable(macros.free.first)}`, `width in ${variable(macros.free.first + 1)}`]
      : []
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

/** The blocks of a line of the plan: a call, or keeping a size with the look-ahead held back until it is read. */
function blocksOf(line: ProbeLine, next: ProbeLine | undefined, profile: Profile, unit: LengthUnit): Block[] {
  const { lookAhead } = profile.reading
  const size = profile.probing?.results.size
  if (line.is === 'call') {
    const { step, does } = line.call
    const held = next?.is === 'keep' && next.variable !== undefined && lookAhead
    return [
      ...(held
        ? [{ words: `${lookAhead} P1`, does: 'look-ahead held back: the size is read when it is there' }]
        : []),
      { words: callWords(step, unit, profile), does },
    ]
  }
  if (line.variable === undefined) return [{ words: 'M0', does: `read the ${line.what}: variable ${size}` }]
  return [
    { words: `#${line.variable}= #${size}`, does: `the ${line.what} is kept in variable ${line.variable}` },
    ...(lookAhead ? [{ words: lookAhead, does: 'look-ahead as it was' }] : []),
  ]
}

/** The offset as it is written at the start, so that the program finds the part. */
function roughBlocks({ rough }: ProbePlan, offset: string, unit: LengthUnit, profile: Profile): Block[] {
  if (!rough) return []
  const words = Object.entries(rough.axes)
    .map(([axis, value]) => `${axis}${writeNumber(value, unit, profile)}`)
    .join(' ')
  return rough.load
    ? [
        {
          words: `G90 ${rough.load.code} L${rough.load.l} P${rough.load.p} ${words}`,
          does: `${offset} roughly, from where the probe was put`,
        },
      ]
    : [{ words: 'M0', does: `key in ${offset} by hand: ${words}` }]
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
  const whole = isWhole(task)
  const blocks: Block[] = [
    ...top,
    ...roughBlocks(plan, offset, unit, profile),
    { words: `T${shape.tool} M6`, does: 'the probe' },
    { words: `G90 ${offset}` },
    { words: `G43 H${shape.tool}`, does: "the probe's own length" },
    ...plan.lines.flatMap((line, index) => blocksOf(line, plan.lines[index + 1], profile, unit)),
    ...top,
    {
      words: 'M0',
      does:
        task.feature === 'edge'
          ? `read the angle: variable ${probing.results.angle}`
          : `read ${offset} on the offset page${task.feature === 'block' && profile.macros ? ', and both sizes,' : ''} and type it into Dogleg`,
    },
    { words: 'M30' },
  ]
  const results = resultsOf(task, profile)
  const text = writeProgram(
    {
      title: `probe ${FEATURES[task.feature].name}${task.feature === 'edge' ? '' : `, set ${offset}`}`,
      about: [
        ...about,
        `Probe in T${shape.tool}.${results.length > 0 ? ` Results: ${results.join(', ')}.` : ''}`,
        `${
          whole
            ? `${offset} is written from where the probe was put: the part must not have been moved since.`
            : `${offset} must be roughly right before this runs.`
        } Macro numbers and words are defaults: check them against the manual of the probe.`,
      ],
      unit,
      blocks,
      number: ownNumber(profile, 'probe'),
    },
    profile,
  )
  const start = plan.rough?.axes
  const program = read(text, {
    profile,
    machine,
    unit,
    frame: offset,
    offsets: new Map([[offset, start ?? situation.near]]),
    ...(whole ? { standIn: { ...asAsked(task), strict: true } } : {}),
  })
  const does =
    readsAs(text, { profile, machine, unit }, plan.steps) &&
    (!whole || findsWhole(program, task, plan, 2 * 10 ** -printedDigits(profile, unit)))
  if (!does)
    return {
      ok: false,
      findings: [
        notReadBack(
          `The reader knows G65 calls and the usual codes. The profile ${profile.name} writes something else.`,
        ),
      ],
    }
  return {
    ok: true,
    text,
    measures: plan.lines.flatMap((line) =>
      line.is === 'call' && line.call.measures ? [callWords(line.call.step, unit, profile)] : [],
    ),
    results,
    seconds: cycleTime(program.motion, speedsOf(machine, profile, unit)).total,
    findings: worstFirst(findings),
  }
}
