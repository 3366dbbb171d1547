import {
  type Answer,
  combineDoubt,
  type DoubtPart,
  middleDoubt,
  resolutionDoubt,
  type WorkingLine,
} from '../fact/index.ts'
import { leastStepIn, type Machine } from '../machine/index.ts'
import { convertLength, formatLength, type LengthUnit } from '../quantity/index.ts'
import type { EdgeFinderReading, IndicatorReading, Reading, ToolOnBlockReading } from './reading.ts'

/** Repeatability to assume for a method, in the unit asked for. Common practice. */
export interface Repeatability {
  inch: number
  mm: number
}

export const REPEATABILITY: Record<Reading['method'], Repeatability> = {
  'edge-finder': { inch: 0.001, mm: 0.025 },
  indicator: { inch: 0.0001, mm: 0.003 },
  'tool-on-block': { inch: 0.0005, mm: 0.012 },
}

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

/** A pickup's answer: the work offset's machine position on one axis, and the indicator's swing where there is one. */
export interface Pickup extends Answer<number> {
  axis: 'X' | 'Y' | 'Z'
  /** The machine position that it rests on; the middle where there are two. */
  position: number
  /** Half the distance between the indicator's two zero positions: its own radius, the same on X and Y. */
  swing?: number
}

/** `a - b` as it is written on paper: a negative number that is taken away gets parentheses. */
function difference(a: string, ...taken: string[]): string {
  return [a, ...taken.map((b) => (b.startsWith('-') ? `(${b})` : b))].join(' - ')
}

interface Step {
  value: number
  line: WorkingLine
}

/** The feature's place minus where the drawing has it: part zero. */
function toPartZero(feature: number, drawingPosition: number, name: string, unit: LengthUnit): Step {
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

/** edge = machine position + s D/2, with s = +1 moving + into the face and -1 moving -. Common practice. */
function fromEdgeFinder(from: EdgeFinderReading, settings: PickupSettings): Pickup {
  const { unit } = settings
  const s = from.direction === '+' ? 1 : -1
  const edge = from.machinePosition.value + (s * from.diameter.value) / 2
  const zero = toPartZero(edge, from.drawingPosition.value, 'face', unit)
  return {
    axis: from.axis,
    position: from.machinePosition.value,
    value: zero.value,
    unit,
    working: [
      {
        finds: 'face',
        arithmetic: `${formatLength(from.machinePosition.value, unit)} ${from.direction} ${formatLength(from.diameter.value, unit)} / 2`,
        gives: formatLength(edge, unit),
      },
      zero.line,
    ],
    doubt: combineDoubt([
      repeats('edge finder repeats to', REPEATABILITY['edge-finder'][unit]),
      display(settings, resolutionDoubt(settings.leastStep)),
    ]),
  }
}

/** plane = (M1 + M2) / 2, swing = |M1 - M2| / 2. Common practice. */
function fromIndicator(from: IndicatorReading, settings: PickupSettings): Pickup {
  const { unit } = settings
  const [minus, plus] = [from.minusSide.value, from.plusSide.value]
  const plane = (minus + plus) / 2
  const swing = Math.abs(plus - minus) / 2
  const zero = toPartZero(plane, from.drawingPosition.value, 'plane', unit)
  const [minusText, plusText] = [formatLength(minus, unit), formatLength(plus, unit)]
  return {
    axis: from.axis,
    position: plane,
    value: zero.value,
    unit,
    swing,
    working: [
      {
        finds: 'plane',
        arithmetic: `(${minusText} + ${plusText.startsWith('-') ? `(${plusText})` : plusText}) / 2`,
        gives: formatLength(plane, unit),
      },
      {
        finds: 'swing',
        arithmetic: `|${difference(plusText, minusText)}| / 2`,
        gives: formatLength(swing, unit),
      },
      zero.line,
    ],
    doubt: combineDoubt([
      repeats('middle of two indicator readings', middleDoubt(REPEATABILITY.indicator[unit])),
      display(settings, middleDoubt(resolutionDoubt(settings.leastStep))),
    ]),
  }
}

/** Z = machine position - tool length - block height, in the shop's own convention for lengths. Common practice. */
function fromToolOnBlock(from: ToolOnBlockReading, settings: PickupSettings): Pickup {
  const { unit } = settings
  const face = from.machinePosition.value - from.toolLength.value - from.blockHeight.value
  const zero = toPartZero(face, from.drawingPosition.value, 'face', unit)
  const [position, length, height] = [from.machinePosition, from.toolLength, from.blockHeight].map(
    ({ value }) => formatLength(value, unit),
  ) as [string, string, string]
  return {
    axis: 'Z',
    position: from.machinePosition.value,
    value: zero.value,
    unit,
    working: [
      {
        finds: 'face',
        arithmetic: difference(position, length, height),
        means: `machine position less T${from.tool} less block`,
        gives: formatLength(face, unit),
      },
      zero.line,
    ],
    doubt: combineDoubt([
      repeats('tool on block repeats to', REPEATABILITY['tool-on-block'][unit]),
      display(settings, resolutionDoubt(settings.leastStep)),
    ]),
  }
}

const repeats = (from: string, value: number): DoubtPart => ({ from, value })

const display = ({ unit, leastStep }: PickupSettings, value: number): DoubtPart => ({
  from: `display reads in steps of ${formatLength(leastStep, unit)}`,
  value,
})

/** A reading with all of its lengths brought into one unit (exactly, rounded once each). */
export function readingIn(from: Reading, unit: LengthUnit): Reading {
  const entries = Object.entries(from).map(([name, part]) => [
    name,
    typeof part === 'object' && part.unit !== unit
      ? { ...part, value: convertLength(part.value, part.unit, unit), unit }
      : part,
  ])
  return Object.fromEntries(entries) as Reading
}

/**
 * Finds where the spindle stands over part zero on one axis, as a machine position in the setup's unit,
 * with the working and the doubt.
 */
export function pickUp(from: Reading, settings: PickupSettings): Pickup {
  const inUnit = readingIn(from, settings.unit)
  if (inUnit.method === 'edge-finder') return fromEdgeFinder(inUnit, settings)
  return inUnit.method === 'indicator' ? fromIndicator(inUnit, settings) : fromToolOnBlock(inUnit, settings)
}
