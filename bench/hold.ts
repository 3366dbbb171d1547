import { demoReference } from '@dogleg/core/demo'
import {
  barRange,
  clearance,
  jawSketch,
  rankPairs,
  readSweepDraft,
  SAMPLE_VISES,
  type SweepDraft,
  squareness,
  type Vise,
} from '@dogleg/core/hold'
import type { Machine } from '@dogleg/core/machine'
import { asTyped } from '@dogleg/core/quantity'
import { deriveSetup, isUnreadable, wouldGoStale } from '@dogleg/core/setup'
import { busyLog } from './log.ts'
import { medianTime, report } from './report.ts'

/** One frame of a screen that is drawn sixty times a second. */
const FRAME_MS = 1000 / 60

/** What one keystroke costs in the Hold step, at its largest, against one frame of the screen. */
export function benchHold() {
  const places = Array.from({ length: 20 }, (_, index) => (index * 0.3).toFixed(2))
  const draft: SweepDraft = {
    bolts: 'one',
    plusMeans: 'towards',
    pivot: '-1',
    points: places.map((at, index) => ({ at, reading: (index * 0.0007).toFixed(4) })),
    stylusAngle: '10',
    dialStep: '.0005',
    partLength: '4',
    allowed: '.001',
  }
  const { entries, reference } = busyLog(500)
  const [machine] = reference.machines as [Machine]
  const [vise] = SAMPLE_VISES as [Vise]
  const last = entries.at(-1)
  const setup = deriveSetup(entries, reference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  const sweep = () => {
    const read = readSweepDraft(draft, 'inch')
    if (!read.ok || !last) throw new Error('the sweep is not understood')
    squareness(read.value, 'inch')
    jawSketch(draft, 6, 'inch')
    wouldGoStale(setup, entries, [{ ...last, kind: 'swept', sweep: read.value }], reference)
  }
  const clear = () => clearance({ machine, vise, unit: 'inch', jawAt: 10.9, wanted: 0.25, lowestZ: -12 })
  const rank = () =>
    rankPairs({
      collets: demoReference.collets,
      operation: 'second',
      unit: 'inch',
      range: barRange(
        { known: 'tolerance', diameter: asTyped(1.25, 'inch'), spread: asTyped(0.004, 'inch') },
        'inch',
      ),
      allowed: 0.005,
      measured: new Map(),
    })
  const times = medianTime([sweep, clear, rank], 60)
  const names = [
    ['a sweep of 20 readings in a setup of 500 entries', 0.5],
    ['a clearance', 0.025],
    ['all pairs ranked', 0.2],
  ] as const
  for (const [index, [name, limit]] of names.entries())
    report({
      name: `one keystroke: ${name}`,
      baseline: 'one frame of the screen',
      measured: `${(times[index] ?? Number.NaN).toFixed(2)} ms`,
      against: `${FRAME_MS.toFixed(1)} ms`,
      ratio: (times[index] ?? Number.NaN) / FRAME_MS,
      limit,
    })
}
