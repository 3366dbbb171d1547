import { z } from 'zod'
import type { LengthUnit } from '../quantity/index.ts'
import { type Closing, type Collet, closingRatio } from './collet.ts'

export const stopKind = z.enum([
  'chuck-face',
  'chuck-built-in',
  'jaw-shoulder',
  'collet',
  'draw-tube',
  'turret',
  'bar-feeder',
  'callipers',
  'actuator',
])
export type StopKind = z.infer<typeof stopKind>

/** A way of stopping the bar or the part, and what it moves with. Common practice throughout. */
export interface Stop {
  name: string
  /** 'nothing': stays where it is. 'drawn-back': stays, but the bar is drawn away from it as the collet closes. */
  movesWith: 'nothing' | 'collet' | 'draw-tube' | 'drawn-back'
  /** What it can be used with. */
  fits: readonly Closing[]
  /** How far the length wanders from stop to stop by itself. */
  repeats: Record<LengthUnit, number>
  says: string
  /** Why it must never be used. */
  never?: string
  /** Why it is the last thing to think of. */
  lastResort?: string
}

const ALL = ['pull', 'dead-length', 'jaws'] as const
const COLLETS = ['pull', 'dead-length'] as const

export const STOPS: Record<StopKind, Stop> = {
  'chuck-face': {
    name: 'On the face of the chuck',
    movesWith: 'nothing',
    fits: ALL,
    repeats: { inch: 0.0005, mm: 0.012 },
    says: 'Stays where it is.',
  },
  'chuck-built-in': {
    name: 'Built into the chuck',
    movesWith: 'nothing',
    fits: ALL,
    repeats: { inch: 0.0005, mm: 0.012 },
    says: 'Stays where it is.',
  },
  'jaw-shoulder': {
    name: 'Shoulder turned into soft jaws',
    movesWith: 'nothing',
    fits: ['jaws'],
    repeats: { inch: 0.0005, mm: 0.012 },
    says: 'Stays where it is: jaws move across, not along.',
  },
  collet: {
    name: 'Threaded into the collet',
    movesWith: 'collet',
    fits: COLLETS,
    repeats: { inch: 0.0005, mm: 0.012 },
    says: 'Goes where the collet goes.',
  },
  'draw-tube': {
    name: 'Clamped in the draw tube',
    movesWith: 'draw-tube',
    fits: ALL,
    repeats: { inch: 0.001, mm: 0.025 },
    says: 'Goes where the draw tube goes.',
  },
  turret: {
    name: 'In the turret, bar pulled against it',
    movesWith: 'drawn-back',
    fits: ALL,
    repeats: { inch: 0.001, mm: 0.025 },
    says: 'The bar is drawn back from it as the collet closes.',
  },
  'bar-feeder': {
    name: 'Push rod of the bar feeder, held in place',
    movesWith: 'nothing',
    fits: ALL,
    repeats: { inch: 0.002, mm: 0.05 },
    says: 'Stands outside and stays: good with any chuck.',
  },
  callipers: {
    name: 'Callipers, by hand',
    movesWith: 'drawn-back',
    fits: ALL,
    repeats: { inch: 0.005, mm: 0.12 },
    says: 'The bar is drawn back from it as the collet closes.',
    lastResort: 'It damages the callipers and is as good as the hand that holds them.',
  },
  actuator: {
    name: 'On the back of the actuator',
    movesWith: 'nothing',
    fits: ALL,
    repeats: { inch: 0.001, mm: 0.025 },
    says: 'Stands behind the actuator.',
    never: 'It traps coolant and loads the rotary union.',
  },
}

/** What the stopped end moves by for each unit of diameter. */
export interface Moving {
  /** Without sign; 0 where nothing moves. */
  value: number
  doubt: number
  /** +1 where a larger bar stands further out; -1 where a sleeve is pushed forward to close, and takes the stop with it. */
  way: 1 | -1
}

/** What the length moves by for each unit of diameter, with this collet and this stop. */
export function movingRatio(collet: Pick<Collet, 'closing' | 'ratio'>, stop: StopKind): Moving {
  const { movesWith } = STOPS[stop]
  const none: Moving = { value: 0, doubt: 0, way: 1 }
  if (movesWith === 'nothing') return none
  const closes = closingRatio(collet)
  // A draw tube moves to close whatever it closes. Jaws move across; a collet at dead length does not move at all.
  if (movesWith === 'draw-tube') return { ...closes, way: collet.closing === 'dead-length' ? -1 : 1 }
  return collet.closing === 'pull' ? { ...closes, way: 1 } : none
}
