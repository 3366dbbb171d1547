import {
  type Block,
  clearUpBlocks,
  findOffset,
  isFinding,
  type Profile,
  printedDigits,
  writeNumber,
  writeProgram,
} from '../control/index.ts'
import { type Finding, finding } from '../fact/index.ts'
import {
  LINEAR_AXES,
  type LinearAxis,
  type Machine,
  type RotaryAxis,
  withinTravel,
} from '../machine/index.ts'
import { notReadBack, type PlannedStep, type ReadOptions, readsAs } from '../program/index.ts'
import { fixedDigits, formatLength, type LengthUnit, roundTo } from '../quantity/index.ts'
import { plannedTop, type Top, topOf } from './top.ts'

/** One axis of the offset to load: the machine position over part zero, in `LoadOffset.unit`. */
export interface AxisToLoad {
  value: number
  /** How it was found and how far off it may be, for the program's heading. */
  about: string
}

export interface LoadOffset {
  /** 'G54', 'G154 P3'. */
  offset: string
  unit: LengthUnit
  axes: Partial<Record<LinearAxis, AxisToLoad>>
  /** The rotary's own angle, in degrees, and its word. */
  rotary?: AxisToLoad & { word: RotaryAxis['word'] }
  /** What the program is for: the setup and its log. */
  about: string[]
}

/** What is meant to happen: the load, then a rapid over part zero with the spindle at the top. Values as the control will print them. */
export interface LoadPlan {
  axes: Partial<Record<LinearAxis | RotaryAxis['word'], number>>
  /** Where the loading block puts them; null where they are keyed in by hand. */
  load: { l: number; p: number } | null
  /** Where the check move goes in the work offset; null when X or Y is not known. */
  over: { X: 0; Y: 0 } | null
  /** The rotary's word, where it is turned to its 0 to be looked at. */
  turn: RotaryAxis['word'] | null
  /** The top of Z, in machine positions, or 'home' by a home return. */
  top: Top
}

export type WrittenOffset =
  | { ok: true; text: string; plan: LoadPlan; findings: Finding[] }
  | { ok: false; findings: Finding[] }

/** Checks before anything is written. A stop means that nothing is. */
export function checkLoad(load: LoadOffset, profile: Profile, machine: Machine): Finding[] {
  const findings: Finding[] = []
  const address = findOffset(profile, load.offset)
  if (isFinding(address)) findings.push(address)
  const known = LINEAR_AXES.filter((axis) => load.axes[axis])
  if (known.length === 0 && !load.rotary)
    findings.push(
      finding(
        'stop',
        'nothing-to-load',
        'offset',
        `No axis of ${load.offset} has been taken.`,
        'There is nothing to load.',
        'Take X, Y or Z first.',
      ),
    )
  for (const axis of ['X', 'Y'] as const) {
    const value = load.axes[axis]?.value
    if (value !== undefined && !withinTravel(machine, axis, value, load.unit))
      findings.push(
        finding(
          'stop',
          'check-move-outside-travel',
          axis,
          `The check move to ${axis}0 would leave the travel of ${machine.name}.`,
          `Part zero is at machine ${axis} ${formatLength(value, load.unit)}.`,
          `Take ${axis} again, or check the place of the feature on the drawing.`,
        ),
      )
  }
  const missing = LINEAR_AXES.filter((axis) => !load.axes[axis])
  if (known.length > 0 && missing.length > 0)
    findings.push({
      severity: 'look',
      code: 'axes-missing',
      where: missing.join(''),
      says: `${missing.join(' and ')} of ${load.offset} ${missing.length > 1 ? 'are' : 'is'} not taken and will not be loaded.`,
      why: 'The control keeps whatever stands there now.',
    })
  return findings
}

/** The motion and the loads that are meant, with values rounded to the digits that the profile prints. */
export function planLoad(load: LoadOffset, profile: Profile, machine: Machine): LoadPlan {
  const address = findOffset(profile, load.offset)
  if (isFinding(address))
    throw new Error('planLoad needs an offset that the control has; run checkLoad first')
  const digits = printedDigits(profile, load.unit)
  const axes = Object.fromEntries(
    LINEAR_AXES.flatMap((axis) => {
      const value = load.axes[axis]?.value
      return value === undefined ? [] : [[axis, roundTo(value, digits)]]
    }),
  )
  const { loadOffset } = profile
  const { rotary } = load
  return {
    axes: rotary ? { ...axes, [rotary.word]: roundTo(rotary.value, DEGREE_DIGITS) } : axes,
    load: loadOffset && { l: address.extended ? loadOffset.extendedL : loadOffset.standardL, p: address.p },
    over: load.axes.X && load.axes.Y ? { X: 0, Y: 0 } : null,
    turn: rotary?.word ?? null,
    top: topOf(profile, machine, load.unit),
  }
}

/** Degrees are written to the thousandth, as rotaries show them. Common practice. */
const DEGREE_DIGITS = 3
const writeDegrees = (value: number) => {
  const text = fixedDigits(value, DEGREE_DIGITS).replace(/0+$/, '')
  return text === '-0.' ? '0.' : text
}

function blocksFor(load: LoadOffset, plan: LoadPlan, profile: Profile): Block[] {
  const number = (value: number) => writeNumber(value, load.unit, profile)
  const turned = plan.turn === null ? undefined : plan.axes[plan.turn]
  const words = [
    ...LINEAR_AXES.flatMap((axis) => {
      const value = plan.axes[axis]
      return value === undefined ? [] : [`${axis}${number(value)}`]
    }),
    ...(turned === undefined ? [] : [`${plan.turn}${writeDegrees(turned)}`]),
  ].join(' ')
  const top = clearUpBlocks(plan.top, load.unit, profile)
  const loading: Block[] =
    plan.load && profile.loadOffset
      ? [
          {
            words: `G90 ${profile.loadOffset.code} L${plan.load.l} P${plan.load.p} ${words}`,
            does: `load ${load.offset}`,
          },
        ]
      : [{ words: 'M0', does: `key in ${load.offset} by hand: ${words}` }]
  const over: Block[] = plan.over
    ? [
        {
          words: `G90 ${load.offset} G0 X${number(0)} Y${number(0)}`,
          does: 'over part zero, spindle still at the top',
        },
        { words: 'M0', does: 'jog down by hand and look: the point must stand over part zero' },
      ]
    : []
  return [
    ...top,
    ...loading,
    { words: 'M0', does: `compare ${load.offset} on the offset page, low rapid override, hand on feed hold` },
    ...(plan.turn === null
      ? []
      : [
          {
            words: `G90 ${load.offset} G0 ${plan.turn}${writeDegrees(0)}`,
            does: 'the part turns to its zero: brake off, nothing in its way',
          },
          { words: 'M0', does: 'look: the part must lie as the program wants it' },
        ]),
    ...over,
    ...top,
    { words: 'M30' },
  ]
}

/** The steps that the reader must find in the written program, given the plan. */
function plannedSteps(plan: LoadPlan, offset: string): PlannedStep[] {
  const up = plannedTop(plan.top)
  const stopHere = { does: 'stop' } as const
  return [
    up,
    plan.load ? { does: 'load-offset', ...plan.load, axes: plan.axes } : stopHere,
    stopHere,
    ...(plan.turn === null
      ? []
      : ([{ does: 'rapid', frame: offset, axes: { [plan.turn]: 0 } }, stopHere] as const)),
    ...(plan.over ? ([{ does: 'rapid', frame: offset, axes: plan.over }, stopHere] as const) : []),
    up,
    { does: 'end' },
  ]
}

/** Whether the text, read back by the program reader, does what was planned and nothing else. */
export const readsBack = (text: string, plan: LoadPlan, offset: string, on: ReadOptions): boolean =>
  readsAs(text, on, plannedSteps(plan, offset))

/** The profile can hold codes that the reader does not know; what cannot be read back is not given out. */
const loadNotReadBack = ({ offset }: LoadOffset, { name }: Profile): Finding =>
  notReadBack(
    `The reader knows G54 to G59, and further ones by G54.1 or G154, loaded by G10. The profile ${name} writes something else.`,
    'Check the codes of the profile, or key the offset in by hand.',
    `What would be written for ${offset}`,
  )

/**
 * Writes the program that loads a work offset (G10) and moves over part zero to be looked at.
 * The spindle goes to the top first; no tool length is called (G49), so Z never comes down by itself.
 * Nothing is written when a check says stop. What is written is read back before it is given out.
 */
export function writeLoad(load: LoadOffset, profile: Profile, machine: Machine): WrittenOffset {
  const findings = checkLoad(load, profile, machine)
  if (findings.some(({ severity }) => severity === 'stop')) return { ok: false, findings }
  const plan = planLoad(load, profile, machine)
  const text = writeProgram(
    {
      title: `load and check ${load.offset}`,
      about: [
        ...load.about,
        ...LINEAR_AXES.flatMap((axis) => {
          const at = load.axes[axis]
          return at ? [`${load.offset} ${axis}: ${at.about}`] : []
        }),
        ...(load.rotary ? [`${load.offset} ${load.rotary.word}: ${load.rotary.about}`] : []),
        'Tool: pointed tool or finder in the spindle. No length offset.',
      ],
      unit: load.unit,
      blocks: blocksFor(load, plan, profile),
    },
    profile,
  )
  if (!readsBack(text, plan, load.offset, { profile, machine, unit: load.unit }))
    return { ok: false, findings: [loadNotReadBack(load, profile)] }
  return { ok: true, text, plan, findings }
}
