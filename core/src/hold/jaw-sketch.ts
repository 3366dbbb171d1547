import { fitLine } from '../geometry/index.ts'
import { type LengthUnit, readLength } from '../quantity/index.ts'
import type { Tap } from './squaring.ts'
import type { SweepDraft } from './sweep-draft.ts'

/** A place of the plan view along X, and whether it was typed or stands in for what was not. */
interface JawPlace {
  at: number
  known: boolean
}

export type BoltSide = 'left' | 'right'

/** The picture of a sweep as it stands in the form, however much of it was typed. Lengths along the jaw in the setup's unit. */
export interface JawSketch {
  jawLength: number
  pivot: JawPlace
  /** Which of the two bolts stays, undefined while its place is not typed; and where the other is, as far off the other end of the jaw. */
  stays: BoltSide | undefined
  otherBolt: number
  points: (JawPlace & { reading: number; readingKnown: boolean })[]
  /** Slope of the readings, in the dial's sign; 0 while it is not known. */
  slope: number
  /** How many times the slope is drawn, a round number. */
  exaggeration: number
  least: number
  greatest: number
}

/** Share of the jaw's length that the drawn deflection should come to. */
const DRAWN_SHARE = 0.16
const LARGEST = 500

/** The largest of 1, 2, 5, 10, 20 … that is not above a value; at least 1. */
function roundDown(value: number): number {
  const power = 10 ** Math.floor(Math.log10(Math.max(1, value)))
  return [5, 2, 1].map((step) => step * power).find((step) => step <= value) ?? 1
}

/** A factor that makes a slope visible and that can be said: x20. */
const exaggerationFor = (slope: number) =>
  slope === 0 ? LARGEST : Math.min(LARGEST, roundDown(DRAWN_SHARE / Math.abs(slope)))

/** Works out the picture of a form as it stands. */
export function jawSketch(draft: SweepDraft, jawLength: number, unit: LengthUnit): JawSketch {
  const place = (typed: string, standIn: number): JawPlace => {
    const entry = readLength(typed, unit)
    return entry.ok ? { at: entry.value, known: true } : { at: standIn, known: false }
  }
  const last = draft.points.length - 1
  const points = draft.points.map(({ at, reading }, index) => {
    const read = place(reading, 0)
    return {
      ...place(at, jawLength * (0.05 + (0.9 * index) / last)),
      reading: read.at,
      readingKnown: read.known,
    }
  })
  const pivot = place(draft.pivot, -jawLength / 6)
  const fit = points.every(({ readingKnown }) => readingKnown)
    ? fitLine(points.map(({ at, reading }) => ({ x: at, y: reading })))
    : undefined
  const slope = fit?.slope ?? 0
  const otherBolt = jawLength - pivot.at
  const places = [0, jawLength, pivot.at, otherBolt, ...points.map(({ at }) => at)]
  return {
    jawLength,
    pivot,
    stays: pivot.known ? (pivot.at <= jawLength / 2 ? 'left' : 'right') : undefined,
    otherBolt,
    points,
    slope,
    exaggeration: exaggerationFor(slope),
    least: Math.min(...places),
    greatest: Math.max(...places),
  }
}

/** Half of what the drawn dial's face carries: a round number with room for the reading and the target. */
export function dialRange({ from, target }: Pick<Tap, 'from' | 'target'>): number {
  const most = 1.25 * Math.max(Math.abs(from), Math.abs(target), 1e-4)
  const power = 10 ** Math.floor(Math.log10(most))
  return power * ([1, 2, 4, 5, 10].find((step) => step * power >= most) ?? 10)
}
