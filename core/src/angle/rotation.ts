import {
  type Block,
  clearUpBlocks,
  ownNumber,
  type Profile,
  printedDigits,
  writeNumber,
  writeProgram,
} from '../control/index.ts'
import { type Finding, finding } from '../fact/index.ts'
import { type PlanePoint, turned } from '../geometry/index.ts'
import { type Machine, withinTravel } from '../machine/index.ts'
import { plannedTop, topOf } from '../pickup/index.ts'
import { notReadBack, type PlannedStep, readsAs } from '../program/index.ts'
import { fixedDigits, formatLength, type LengthUnit, roundTo } from '../quantity/index.ts'
import { ANGLE_DIGITS } from './measure.ts'

/** A turning to be written: about a point of the work offset, by a value or by the probe's variable. Lengths in `unit`. */
export interface Rotation {
  offset: string
  unit: LengthUnit
  /** Degrees, counter-clockwise seen from +Z, or the number of the macro variable that holds them. */
  by: number | { variable: number }
  about: PlanePoint
  /** A place of the drawing to look at, turned: the far corner. */
  look: PlanePoint
  /** Machine positions over part zero where they are known, to keep the look within the travel. */
  zero?: PlanePoint | undefined
  /** Lines for the heading. */
  aboutIt: string[]
}

export type WrittenRotation =
  | { ok: true; text: string; on: string; off: string; findings: Finding[] }
  | { ok: false; findings: Finding[] }

const asPrinted = (value: number, of: Rotation, profile: Profile) =>
  roundTo(value, printedDigits(profile, of.unit))

/** What is meant: on, over the point that is turned about, over the far corner, off; the spindle at the top all the time. */
function plannedRotation(of: Rotation, profile: Profile, machine: Machine): PlannedStep[] {
  const up = plannedTop(topOf(profile, machine, of.unit))
  const at = ({ x, y }: PlanePoint) => ({ X: asPrinted(x, of, profile), Y: asPrinted(y, of, profile) })
  const over = (point: PlanePoint): PlannedStep[] => [
    { does: 'rapid', frame: of.offset, axes: at(point) },
    { does: 'stop' },
  ]
  const by = typeof of.by === 'number' ? roundTo(of.by, ANGLE_DIGITS) : of.by
  return [
    up,
    { does: 'rotate', about: at(of.about), by },
    ...over(of.about),
    ...over(of.look),
    { does: 'rotate-off' },
    up,
    { does: 'end' },
  ]
}

/** An angle as a word: always with a point, no more digits than are meant. */
const angleWord = (by: Rotation['by']) =>
  typeof by === 'number' ? `R${fixedDigits(by, ANGLE_DIGITS).replace(/0+$/, '')}` : `R#${by.variable}`

/** What is against writing it. */
function checkRotation(of: Rotation, profile: Profile, machine: Machine): Finding[] {
  if (!profile.rotation)
    return [
      finding(
        'stop',
        'no-rotation',
        'profile',
        'This control has no code that turns a program.',
        `The profile ${profile.name} says so.`,
        'Turn the moves of the program itself, or square the part up.',
      ),
    ]
  const findings: Finding[] = []
  if (typeof of.by !== 'number' && !profile.probing)
    findings.push(
      finding(
        'stop',
        'no-variable',
        'profile',
        'There is no variable of a probe to turn by.',
        `The profile ${profile.name} has no probe macros.`,
        'Turn by the value, or enter the macros in the profile.',
      ),
    )
  if (of.zero && typeof of.by === 'number') {
    const { zero, by, unit } = of
    for (const [name, point] of [
      ['the point that is turned about', of.about],
      ['the far corner', turned(of.look, by, of.about)],
    ] as const)
      for (const axis of ['X', 'Y'] as const) {
        const at = (axis === 'X' ? zero.x + point.x : zero.y + point.y) || 0
        if (!withinTravel(machine, axis, at, unit))
          findings.push(
            finding(
              'stop',
              'turned-outside-travel',
              axis,
              `Turned, ${name} lies outside the travel of ${machine.name}: machine ${axis} ${formatLength(at, unit)}.`,
              'The spindle cannot stand over it.',
              'Check the place on the drawing, or square the part up.',
            ),
          )
      }
  }
  return findings
}

const turnNotReadBack = ({ name }: Profile): Finding =>
  notReadBack(
    `The profile ${name} turns with codes that mean something else to the reader.`,
    'Check the codes of the profile, or square the part up.',
  )

/**
 * Writes a turning on and off for the profile (`G68 X Y R`, `G69`), as a program that looks at it: the spindle stays at
 * the top and goes over the point that is turned about and over the far corner. Nothing is written when a check says
 * stop, and what is written is read back first.
 */
export function writeRotation(of: Rotation, profile: Profile, machine: Machine): WrittenRotation {
  const findings = checkRotation(of, profile, machine)
  const { rotation } = profile
  if (!rotation || findings.some(({ severity }) => severity === 'stop')) return { ok: false, findings }
  const number = (value: number) => writeNumber(value, of.unit, profile)
  const place = ({ x, y }: PlanePoint) => `X${number(x)} Y${number(y)}`
  const on = `${rotation.on} ${place(of.about)} ${angleWord(of.by)}`
  const top = clearUpBlocks(topOf(profile, machine, of.unit), of.unit, profile)
  const blocks: Block[] = [
    ...top,
    { words: `G90 ${of.offset}`, does: 'the offset that the turning is about' },
    { words: on, does: `turn the program about ${place(of.about)}` },
    { words: `G0 ${place(of.about)}`, does: 'over the point that is turned about, spindle at the top' },
    { words: 'M0', does: 'jog down by hand and look' },
    { words: `G0 ${place(of.look)}`, does: 'over the far corner as it is turned' },
    { words: 'M0', does: 'jog down by hand and look: the point must stand over the corner of the part' },
    { words: rotation.off, does: 'turning off' },
    ...top,
    { words: 'M30' },
  ]
  const text = writeProgram(
    {
      title: `turn ${of.offset} and look`,
      about: [...of.aboutIt, 'Tool: pointed tool or finder in the spindle. No length offset.'],
      unit: of.unit,
      blocks,
      number: ownNumber(profile, 'angle'),
    },
    profile,
  )
  if (!readsAs(text, { profile, machine, unit: of.unit }, plannedRotation(of, profile, machine)))
    return { ok: false, findings: [turnNotReadBack(profile)] }
  return { ok: true, text, on, off: rotation.off, findings }
}
