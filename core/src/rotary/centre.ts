import { type Answer, combineDoubt, type WorkingLine } from '../fact/index.ts'
import {
  difference,
  display,
  inParentheses,
  type Mean,
  meanReading,
  type PickupSettings,
  part,
  REPEATABILITY,
  readingIn,
} from '../pickup/index.ts'
import { formatLength, type LengthUnit } from '../quantity/index.ts'
import type { CentreReading, Sides } from './reading.ts'

/** One axis of the centre line, as a machine position in the setup's unit. */
export interface CentreAxis extends Answer<number> {
  axis: 'Y' | 'Z'
  /** How far the part's middle stands from it as it was touched first, signed; undefined where it was not turned by half. */
  runsOut?: number
}

/** The centre line of a rotary, and what else the touches tell. */
export interface Centre {
  Y?: CentreAxis
  Z?: CentreAxis
  /** How far the part's middle stands off the axis: in both directions, or at least that much where only one was looked at. */
  runsOut?: { value: number; atLeast: boolean; doubt: number }
  /** What the part measures from front to back, each time that both were touched; nothing where an indicator touched. */
  widths: number[]
  unit: LengthUnit
}

interface Place {
  /** Of the part's middle. */
  value: number
  text: string
  random: number
  lines: WorkingLine[]
}

const meanText = (a: string, b: string) => `(${a} + ${inParentheses(b)}) / 2`

/** The axis from the part's middle as touched, and once more after half a turn where it was (trade.md 4). */
function axisFrom(
  axis: 'Y' | 'Z',
  places: readonly [Place, Place | undefined],
  rest: Answer<number>['doubt']['parts'],
  { unit }: PickupSettings,
): CentreAxis {
  const [first, half] = places
  const text = (value: number) => formatLength(value, unit)
  if (!half)
    return {
      axis,
      value: first.value,
      unit,
      working: first.lines,
      doubt: combineDoubt([part('the touches repeat to', first.random), ...rest]),
    }
  const value = (first.value + half.value) / 2
  const runsOut = (first.value - half.value) / 2
  return {
    axis,
    value,
    unit,
    runsOut,
    working: [
      ...first.lines,
      ...half.lines,
      {
        finds: `centre line, ${axis}`,
        arithmetic: meanText(first.text, half.text),
        means: 'the middle of the two: the part went round the axis',
        gives: text(value),
      },
      {
        finds: 'it runs out',
        arithmetic: `(${difference(first.text, half.text)}) / 2`,
        means: "half their difference: how far the part's middle stands off the axis",
        gives: text(runsOut),
      },
    ],
    doubt: combineDoubt([part('the touches repeat to', Math.hypot(first.random, half.random) / 2), ...rest]),
  }
}

const WHEN = { first: '', half: ', by half a turn' } as const

/**
 * The centre line from a part that turns on it: Y = the middle of front and back, Z = top - tool - block - half of what the part
 * measures; by half a turn the mean of the two, and half their difference is how far the part runs out (trade.md 4).
 */
export function measureCentre(from: CentreReading, settings: PickupSettings): Centre {
  const { unit } = settings
  const reading = readingIn(from, unit)
  const text = (value: number) => formatLength(value, unit)
  const each = REPEATABILITY[reading.device][unit]
  const down =
    REPEATABILITY[
      reading.device === 'probe' || reading.device === 'sensor' ? reading.device : 'tool-on-block'
    ][unit]
  const tip = reading.diameter.value
  const half = (reading.across?.value ?? 0) / 2
  const mean = (of: Sides, side: 'front' | 'back' | 'top', when: string, random: number): Mean | undefined =>
    of[side] && meanReading(of[side], random, unit, `${side}${when}`)
  const widths: number[] = []

  const middle = (of: Sides | undefined, when: string): Place | undefined => {
    const [front, back] = [of && mean(of, 'front', when, each), of && mean(of, 'back', when, each)]
    if (!front || !back) return undefined
    const value = (front.value + back.value) / 2
    if (reading.device !== 'indicator') widths.push(back.value - front.value - tip)
    return {
      value,
      text: text(value),
      random: Math.hypot(front.random, back.random) / 2,
      lines: [
        ...front.lines,
        ...back.lines,
        {
          finds: `part's middle, Y${when}`,
          arithmetic: meanText(front.text, back.text),
          means: 'between front and back',
          gives: text(value),
        },
      ],
    }
  }
  const under = (of: Sides | undefined, when: string): Place | undefined => {
    const top = of && mean(of, 'top', when, down)
    if (!top || !reading.height) return undefined
    const { tool, toolLength, block } = reading.height
    const value = top.value - toolLength.value - block.value - half
    return {
      value,
      text: text(value),
      random: top.random,
      lines: [
        ...top.lines,
        {
          finds: `part's middle, Z${when}`,
          arithmetic: `${difference(top.text, text(toolLength.value), text(block.value))} - ${text(2 * half)} / 2`,
          means: `the top less T${tool}, the block, and half of the part`,
          gives: text(value),
        },
      ],
    }
  }
  const [y1, y2] = [middle(reading.first, WHEN.first), middle(reading.half, WHEN.half)]
  const [z1, z2] = [under(reading.first, WHEN.first), under(reading.half, WHEN.half)]
  // Two or four positions, or one or two, each read to the display's step.
  const read = (positions: number) => display(settings, 1 / Math.sqrt(positions))
  const Y = y1 && axisFrom('Y', [y1, y2], [read(y2 ? 4 : 2)], settings)
  const Z =
    z1 &&
    axisFrom(
      'Z',
      [z1, z2],
      [part('half of what the part is known to', (reading.acrossWithin?.value ?? 0) / 2), read(z2 ? 2 : 1)],
      settings,
    )
  const off = [Y?.runsOut, Z?.runsOut].filter((value) => value !== undefined)
  return {
    unit,
    widths,
    ...(Y ? { Y } : {}),
    ...(Z ? { Z } : {}),
    ...(off.length > 0
      ? {
          runsOut: {
            value: Math.hypot(...off),
            atLeast: off.length < 2,
            doubt: Math.hypot(each / 2, Z?.runsOut === undefined ? 0 : down / Math.SQRT2),
          },
        }
      : {}),
  }
}
