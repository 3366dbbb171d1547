import { convertLength, type LengthUnit } from '../../quantity/index.ts'
import { nearestDrill } from '../drilling/index.ts'

export type ThreadSeries = 'UNC' | 'UNF' | 'M coarse' | 'M fine' | 'pipe'

/** A thread of the library. Lengths in `unit`. */
export interface Thread {
  /** '1/4-20 UNC', 'M6x1'. */
  id: string
  series: ThreadSeries
  unit: LengthUnit
  /** Basic major diameter; of a pipe thread its outside diameter. */
  major: number
  /** Length a turn. */
  pitch: number
  /** The drill that tables name for a cut tap. */
  drill: number
  /** A taper thread: how deep it goes decides its size. */
  taper?: boolean
  /** Flank to flank: 60 degrees, or 55 of the pipe threads of ISO 228. */
  angle: 60 | 55
}

/** Number sizes are 0.060 in and 0.013 in more for each number (ASME B1.1). */
const numberSize = (number: number) => (600 + 130 * number) / 10_000

type InchRow = readonly [size: string, major: number, perInch: number, drill: number]

/** UN coarse (ASME B1.1) with the tap drills that handbooks name for it; from memory. */
const UNC: readonly InchRow[] = [
  ['1', numberSize(1), 64, 0.0595],
  ['2', numberSize(2), 56, 0.07],
  ['3', numberSize(3), 48, 0.0785],
  ['4', numberSize(4), 40, 0.089],
  ['5', numberSize(5), 40, 0.1015],
  ['6', numberSize(6), 32, 0.1065],
  ['8', numberSize(8), 32, 0.136],
  ['10', numberSize(10), 24, 0.1495],
  ['12', numberSize(12), 24, 0.177],
  ['1/4', 0.25, 20, 0.201],
  ['5/16', 0.3125, 18, 0.257],
  ['3/8', 0.375, 16, 0.3125],
  ['7/16', 0.4375, 14, 0.368],
  ['1/2', 0.5, 13, 0.421875],
  ['9/16', 0.5625, 12, 0.484375],
  ['5/8', 0.625, 11, 0.53125],
  ['3/4', 0.75, 10, 0.65625],
  ['7/8', 0.875, 9, 0.765625],
  ['1', 1, 8, 0.875],
]

/** UN fine (ASME B1.1) with the tap drills that handbooks name for it; from memory. */
const UNF: readonly InchRow[] = [
  ['0', numberSize(0), 80, 0.046875],
  ['1', numberSize(1), 72, 0.0595],
  ['2', numberSize(2), 64, 0.07],
  ['3', numberSize(3), 56, 0.082],
  ['4', numberSize(4), 48, 0.0935],
  ['5', numberSize(5), 44, 0.104],
  ['6', numberSize(6), 40, 0.113],
  ['8', numberSize(8), 36, 0.136],
  ['10', numberSize(10), 32, 0.159],
  ['12', numberSize(12), 28, 0.182],
  ['1/4', 0.25, 28, 0.213],
  ['5/16', 0.3125, 24, 0.272],
  ['3/8', 0.375, 24, 0.332],
  ['7/16', 0.4375, 20, 0.390625],
  ['1/2', 0.5, 20, 0.453125],
  ['9/16', 0.5625, 18, 0.515625],
  ['5/8', 0.625, 18, 0.578125],
  ['3/4', 0.75, 16, 0.6875],
  ['7/8', 0.875, 14, 0.8125],
  ['1', 1, 12, 0.921875],
]

type MetricRow = readonly [major: number, pitch: number, drill: number]

/** M coarse (ISO 261) with its tap drills (ISO 2306); from memory. */
const M_COARSE: readonly MetricRow[] = [
  [1.6, 0.35, 1.25],
  [2, 0.4, 1.6],
  [2.5, 0.45, 2.05],
  [3, 0.5, 2.5],
  [3.5, 0.6, 2.9],
  [4, 0.7, 3.3],
  [5, 0.8, 4.2],
  [6, 1, 5],
  [8, 1.25, 6.8],
  [10, 1.5, 8.5],
  [12, 1.75, 10.2],
  [14, 2, 12],
  [16, 2, 14],
  [18, 2.5, 15.5],
  [20, 2.5, 17.5],
  [22, 2.5, 19.5],
  [24, 3, 21],
  [27, 3, 24],
  [30, 3.5, 26.5],
]

/** M fine (ISO 261) with its tap drills (ISO 2306); from memory. */
const M_FINE: readonly MetricRow[] = [
  [3, 0.35, 2.65],
  [4, 0.5, 3.5],
  [5, 0.5, 4.5],
  [6, 0.75, 5.2],
  [8, 1, 7],
  [10, 1, 9],
  [10, 1.25, 8.8],
  [12, 1.25, 10.8],
  [12, 1.5, 10.5],
  [14, 1.5, 12.5],
  [16, 1.5, 14.5],
  [18, 1.5, 16.5],
  [20, 1.5, 18.5],
  [22, 1.5, 20.5],
  [24, 2, 22],
  [27, 2, 25],
  [30, 2, 28],
]

type PipeRow = readonly [id: string, outside: number, perInch: number, drill: number, taper: boolean]

/** Number and letter drills of the taper pipe threads, in inches. */
const [D, R] = [0.246, 0.339]

/**
 * Taper pipe (ASME B1.20.1) with the drills for tapping without a reamer (common practice, trade.md 7), and parallel pipe
 * (ISO 228-1, in inches); from memory.
 */
const PIPE: readonly PipeRow[] = [
  ['1/16-27 NPT', 0.3125, 27, D, true],
  ['1/8-27 NPT', 0.405, 27, R, true],
  ['1/4-18 NPT', 0.54, 18, 0.4375, true],
  ['3/8-18 NPT', 0.675, 18, 37 / 64, true],
  ['1/2-14 NPT', 0.84, 14, 23 / 32, true],
  ['3/4-14 NPT', 1.05, 14, 59 / 64, true],
  ['1-11.5 NPT', 1.315, 11.5, 1 + 5 / 32, true],
  ['G 1/8', 9.728 / 25.4, 28, 8.8 / 25.4, false],
  ['G 1/4', 13.157 / 25.4, 19, 11.8 / 25.4, false],
  ['G 3/8', 16.662 / 25.4, 19, 15.25 / 25.4, false],
  ['G 1/2', 20.955 / 25.4, 14, 19 / 25.4, false],
  ['G 3/4', 26.441 / 25.4, 14, 24.5 / 25.4, false],
  ['G 1', 33.249 / 25.4, 11, 30.75 / 25.4, false],
]

const inches =
  (series: 'UNC' | 'UNF') =>
  ([size, major, perInch, drill]: InchRow): Thread => ({
    id: `${size}-${perInch} ${series}`,
    series,
    unit: 'inch',
    major,
    pitch: 1 / perInch,
    drill,
    angle: 60,
  })

const metric =
  (series: 'M coarse' | 'M fine') =>
  ([major, pitch, drill]: MetricRow): Thread => ({
    id: `M${major}x${pitch}`,
    series,
    unit: 'mm',
    major,
    pitch,
    drill,
    angle: 60,
  })

/** The library, by series. */
export const THREADS: readonly Thread[] = [
  ...UNC.map(inches('UNC')),
  ...UNF.map(inches('UNF')),
  ...M_COARSE.map(metric('M coarse')),
  ...M_FINE.map(metric('M fine')),
  ...PIPE.map(
    ([id, major, perInch, drill, taper]): Thread => ({
      id,
      series: 'pipe',
      unit: 'inch',
      major,
      pitch: 1 / perInch,
      drill,
      taper,
      angle: taper ? 60 : 55,
    }),
  ),
]

export const findThread = (id: string) => THREADS.find((each) => each.id === id)

/** A thread in another unit. */
export function threadIn(thread: Thread, unit: LengthUnit): Thread {
  const own = (value: number) => convertLength(value, thread.unit, unit)
  return { ...thread, unit, major: own(thread.major), pitch: own(thread.pitch), drill: own(thread.drill) }
}

/**
 * How much of the full thread a hole leaves, in percent, for a cut thread of 60 degrees: 100 (D - d) / (1.29904 P)
 * (trade.md 7; 1.29904 P is twice 3/4 of the height of the sharp V). Lengths in one unit.
 */
export const percentOfThread = (major: number, pitch: number, drill: number) =>
  (100 * (major - drill)) / (((3 * Math.sqrt(3)) / 4) * pitch)

/**
 * The hole for a form tap that leaves a percentage of thread: D - 0.0068 % P (trade.md 7): the metal that is pushed out
 * of the grooves fills the crests, so the hole is larger than for a cut tap.
 */
export const formHole = (major: number, pitch: number, percent: number) => major - 0.0068 * percent * pitch

/** How much of the full thread a hole leaves for a form tap: the same formula turned round. */
export const percentFormed = (major: number, pitch: number, hole: number) => (major - hole) / (0.0068 * pitch)

/** What is usual for a form tap, in percent. */
const USUAL_FORMED = 65

/**
 * The drill for a thread: the one that tables name for a cut tap; for a form tap the nearest of the number, letter, inch and
 * metric drills together. In the thread's unit.
 */
export function tapDrill(thread: Thread, tap: 'cut' | 'form'): number {
  if (tap === 'cut' || thread.taper) return thread.drill
  const drill = nearestDrill(formHole(thread.major, thread.pitch, USUAL_FORMED), thread.unit)
  return convertLength(drill.diameter, drill.unit, thread.unit)
}

/** Threads that the part of a tap at its tip leaves unfinished: taper, plug and bottoming taps (trade.md 7). */
export const TAP_LEADS = { taper: 8, plug: 4, bottoming: 1.5 } as const
