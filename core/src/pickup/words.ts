import { type Answer, type DoubtPart, doubtOfMean, resolutionDoubt, type WorkingLine } from '../fact/index.ts'
import { type LinearAxis, leastStepIn, type Machine } from '../machine/index.ts'
import { formatLength, type LengthUnit } from '../quantity/index.ts'
import { meanOf, type PositionReading, spreadOf, valuesOf } from './position.ts'

export interface PickupSettings {
  /** The setup's unit: readings, value and doubt are in it. */
  unit: LengthUnit
  /** Least step of the position display, in the same unit. */
  leastStep: number
}

/** The settings for pickups on a machine, in a setup of this unit. */
export const pickupSettings = (machine: Machine, unit: LengthUnit): PickupSettings => ({
  unit,
  leastStep: leastStepIn(machine, unit),
})

/** A pickup's answer: the work offset's machine position on one axis, and what else the readings tell. */
export interface Pickup extends Answer<number> {
  axis: LinearAxis
  /** The machine position that it rests on; the middle where there are two. */
  position: number
  /** Half the distance between the indicator's two zero positions: its own radius, the same on X and Y. */
  swing?: number
  /** What the readings say of the feature's size, to be known again by the drawing. */
  size?: {
    what: 'width' | 'diameter' | 'corner angle'
    value: number
    doubt: number
    nominal: number | undefined
  }
  /** How far each point is off the fitted circle or edge; a name each. */
  residuals?: { name: string; value: number }[]
  /** The points' own scatter about the fit, where they leave one. */
  scatter?: number
  /** Greatest and least reading apart, where a position was read several times; and how many times. */
  repeated?: { spread: number; times: number }
}

/** `a - b` as it is written on paper: a negative number that is taken away gets parentheses. */
export const inParentheses = (text: string) => (text.startsWith('-') ? `(${text})` : text)

export const difference = (a: string, ...taken: string[]) => [a, ...taken.map(inParentheses)].join(' - ')

export interface Step {
  value: number
  line: WorkingLine
}

/** The feature's place minus where the drawing has it: part zero. */
export function toPartZero(feature: number, drawingPosition: number, name: string, unit: LengthUnit): Step {
  const value = feature - drawingPosition
  return {
    value,
    line: {
      finds: 'part zero',
      arithmetic: difference(formatLength(feature, unit), formatLength(drawingPosition, unit)),
      means: `${name} less its place on the drawing`,
      gives: formatLength(value, unit),
    },
  }
}

/** A position as it goes into the arithmetic: one reading, or the mean of several. */
export interface Mean {
  value: number
  text: string
  /** What its repeatability leaves in it. */
  random: number
  lines: WorkingLine[]
  repeated?: { spread: number; times: number }
}

/**
 * The mean of a position's readings, and what their repeatability leaves in it: the method's, pooled with what they show.
 */
export function meanReading(
  position: PositionReading,
  repeatability: number,
  unit: LengthUnit,
  name = 'mean',
): Mean {
  const values = valuesOf(position)
  const value = meanOf(position)
  const text = formatLength(value, unit)
  const times = values.length
  const random = doubtOfMean(values, repeatability)
  if (times === 1) return { value, text, random, lines: [] }
  const spread = spreadOf(position)
  return {
    value,
    text,
    random,
    repeated: { spread, times },
    lines: [
      {
        finds: name,
        arithmetic: `(${values.map((each) => inParentheses(formatLength(each, unit))).join(' + ')}) / ${times}`,
        means: `${times} readings, ${formatLength(spread, unit)} apart`,
        gives: text,
      },
    ],
  }
}

/** An answer that rests on one position of the axis. */
export const fromOne = (
  axis: LinearAxis,
  { value: position, lines, repeated }: Mean,
  { value, unit, working, doubt }: Answer<number>,
): Pickup => ({
  axis,
  position,
  value,
  unit,
  working: [...lines, ...working],
  doubt,
  ...(repeated ? { repeated } : {}),
})

export const part = (from: string, value: number): DoubtPart => ({ from, value })

/** The share of the display's least step in a result. */
export const display = ({ unit, leastStep }: PickupSettings, multiplied = 1): DoubtPart => ({
  from: `display reads in steps of ${formatLength(leastStep, unit)}`,
  value: resolutionDoubt(leastStep) * multiplied,
})

export const repeatsTo = (name: string, times = 1) =>
  times === 1 ? `${name} repeats to` : `mean of ${times}, ${name}`
