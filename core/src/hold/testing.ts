import { asTyped, type LengthUnit } from '../quantity/index.ts'
import {
  type Bolts,
  type Collet,
  type Grip,
  SAMPLE_VISES,
  type Squareness,
  type Sweep,
  squareness,
  USUAL_COLLETS,
  type Vise,
} from './index.ts'

/** A sweep in few words: what is not said is as usual. */
export interface Case {
  pivot?: number
  points: [at: number, reading: number][]
  bolts?: Bolts
  stylusAngle?: number
  plusMeans?: Sweep['plusMeans']
  dialStep?: number
  partLength?: number
  allowed?: number
  unit?: LengthUnit
}

export function sweepOf({ unit = 'inch', ...of }: Case): Sweep {
  const typed = (value: number) => asTyped(value, unit)
  return {
    bolts: of.bolts ?? 'one',
    pivot: typed(of.pivot ?? -1),
    points: of.points.map(([at, reading]) => ({ at: typed(at), reading: typed(reading) })),
    plusMeans: of.plusMeans ?? 'towards',
    stylusAngle: of.stylusAngle ?? 0,
    dialStep: typed(of.dialStep ?? 0.0005),
    partLength: typed(of.partLength ?? 4),
    allowed: typed(of.allowed ?? 0.001),
  }
}

export function square(of: Case): Squareness {
  const squared = squareness(sweepOf(of), of.unit ?? 'inch')
  if (!squared.ok) throw new Error(squared.findings[0]?.says)
  return squared
}
export const codes = (of: Case) => squareness(sweepOf(of), of.unit ?? 'inch').findings.map(({ code }) => code)

/** The first sweep of the trade's worked example: the bolt an inch left of the jaw, the far end thirty thousandths away. */
export const FIRST: Case = {
  pivot: -1,
  points: [
    [0.25, 0],
    [5.75, -0.03],
  ],
}

/** A collet that is usual in a shop. */
export const usualCollet = (id: string) => USUAL_COLLETS.find((each) => each.id === id) as Collet

/** A bar of an inch, two thousandths from the smallest to the largest, in a collet of 3 to 1 by the rule. */
export const grip = (of: Partial<Grip>): Grip => ({
  collet: { ...usualCollet('unknown'), takes: { unit: 'inch', least: 0.1, greatest: 4 } },
  stop: 'collet',
  operation: 'first',
  unit: 'inch',
  range: { least: 0.999, greatest: 1.001 },
  allowed: 0.02,
  ...of,
})

/** The sample of a 6 in vise as a shop has measured it: the jaw is a little longer, which no gap depends on. */
export const measuredSix: Vise = { ...(SAMPLE_VISES[0] as Vise), jawLength: 6.01 }
