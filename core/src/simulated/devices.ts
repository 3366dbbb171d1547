import { REPEATABILITY } from '../pickup/index.ts'
import { convertLength, type LengthUnit } from '../quantity/index.ts'
import type { FinderKind } from './state-schema.ts'

/** A piece of what is in the spindle: an upright cylinder, from one height above the tip to another. */
export interface Piece {
  name: string
  radius: number
  from: number
  to: number
  /** Its lower end is a ball of that radius, and nothing else of it counts beside what lies. */
  ball?: true
}

/** A device as it is made. Lengths in one unit. */
export interface Finder {
  kind: FinderKind
  name: string
  /** From the gauge line to the tip, as it stands in the tool table. */
  length: number
  /** Radius of what touches. */
  tip: number
  /** How high up from the tip that goes; above it is what must not touch. */
  tipHeight: number
  hard: readonly Piece[]
  /** How far the tip may be pushed before something is bent, bumped or broken. */
  gives: number
  /** How far off one touch is at most: what a device leaves of the doubt that is assumed of its method. */
  repeats: number
  /** Last digit of its dial; 0 where it has none. */
  dialStep: number
}

/**
 * Of the repeatability to assume (trade.md 4) this much is the device's own bound; the rest is for the step of display and
 * dial, and for the high spot. By judgement.
 */
const SHARE = 0.6

const INCH: Record<FinderKind, Omit<Finder, 'kind' | 'repeats'>> = {
  'edge-finder': {
    name: 'edge finder',
    length: 4.25,
    tip: 0.1,
    tipHeight: 0.4,
    hard: [
      { name: 'shank of the edge finder', radius: 0.1875, from: 0.4, to: 1.8 },
      { name: 'chuck of the edge finder', radius: 0.8, from: 1.8, to: 4.2 },
    ],
    gives: 0.06,
    dialStep: 0,
  },
  indicator: {
    name: 'test indicator',
    length: 6.1,
    tip: 0.04,
    tipHeight: 0.5,
    hard: [{ name: 'arm of the indicator', radius: 0.5, from: 1.2, to: 4.5 }],
    gives: 0.06,
    dialStep: 0.0001,
  },
  sensor: {
    name: '3D sensor',
    length: 5.2,
    tip: 0.0787,
    tipHeight: 1,
    hard: [{ name: 'body of the 3D sensor', radius: 1, from: 1.1, to: 4.5 }],
    gives: 0.08,
    dialStep: 0.0001,
  },
  probe: {
    name: 'probe',
    length: 6.25,
    tip: 0.1181,
    tipHeight: 1.97,
    hard: [{ name: 'body of the probe', radius: 0.63, from: 1.97, to: 5.5 }],
    gives: 0.2,
    dialStep: 0,
  },
}

const made = new Map<string, Finder>()

/** A device in the unit of the machine; sizes are usual ones, made up for practice. */
export function finderOf(kind: FinderKind, unit: LengthUnit): Finder {
  const name = `${kind} ${unit}`
  const known = made.get(name)
  if (known) return known
  const finder = makeFinder(kind, unit)
  made.set(name, finder)
  return finder
}

function makeFinder(kind: FinderKind, unit: LengthUnit): Finder {
  const own = (value: number) => {
    const exact = convertLength(value, 'inch', unit)
    return unit === 'inch' ? exact : Math.round(exact * 1000) / 1000
  }
  const { name, length, tip, tipHeight, hard, gives, dialStep } = INCH[kind]
  return {
    kind,
    name,
    length: own(length),
    tip: own(tip),
    tipHeight: own(tipHeight),
    hard: hard.map((piece) => ({
      ...piece,
      radius: own(piece.radius),
      from: own(piece.from),
      to: own(piece.to),
    })),
    gives: own(gives),
    repeats: SHARE * REPEATABILITY[kind][unit],
    dialStep: dialStep === 0 ? 0 : unit === 'inch' ? dialStep : 0.002,
  }
}

/** Speeds that an edge finder runs at: below it does not run true, above it flies apart. Common practice. */
export const FINDER_RPM = { least: 500, usual: 1000, most: 1600 }

/** Steps of the handwheel a click, in the unit of the machine. */
export const WHEEL_STEPS: Record<LengthUnit, readonly number[]> = {
  inch: [0.1, 0.01, 0.001, 0.0001],
  mm: [1, 0.1, 0.01, 0.001],
}
