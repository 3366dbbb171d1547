import fc from 'fast-check'
import type { Profile } from '../control/index.ts'
import { BUILT_IN_PROFILES } from '../control/index.ts'
import { distance } from '../geometry/index.ts'
import type { Machine, ProbeShape } from '../machine/index.ts'
import { testMill } from '../program/testing.ts'
import { formatLength, type LengthUnit } from '../quantity/index.ts'
import type { GaugeCase } from './case.ts'
import { type FeatureDraft, type FeatureKind, reactionsOf, startingFeature } from './feature.ts'
import { type GaugePlan, type GaugePlanDraft, newPlan, readPlan } from './plan.ts'
import type { Stop } from './route.ts'
import { type WrittenGauge, writeGauge } from './write.ts'

/** Plans and a machine for tests of gauging. */

export const [compact, twoLine] = BUILT_IN_PROFILES as [Profile, Profile]

const shape: ProbeShape = { tool: 20, stylus: 0.2362, reach: 1.97, body: 1.26, overtravel: 0.24 }
const probeMill: Machine = { ...testMill, probe: shape }

const inUnit = (of: ProbeShape, unit: LengthUnit): ProbeShape =>
  unit === 'inch'
    ? of
    : {
        tool: of.tool,
        stylus: of.stylus * 25.4,
        reach: of.reach * 25.4,
        body: of.body * 25.4,
        overtravel: of.overtravel * 25.4,
      }

export const caseOf = (profile: Profile, unit: LengthUnit = 'inch'): GaugeCase => ({
  machine: probeMill,
  profile,
  unit,
  offset: 'G54',
  shape: inUnit(shape, unit),
  bodies: [],
  about: ['Setup: test.'],
})

export const featureOf = (
  what: FeatureKind,
  name: string,
  more: Partial<FeatureDraft>,
  unit: LengthUnit = 'inch',
) => ({
  id: name.toLowerCase().replaceAll(' ', '-'),
  draft: { ...startingFeature(what, name, unit), ...more },
})

export function planOf(features: GaugePlanDraft['features'], unit: LengthUnit = 'inch'): GaugePlan {
  const read = readPlan({ ...newPlan('Test', 5420), features }, unit)
  if (!read.plan || !read.complete) throw new Error(JSON.stringify([read.head, read.features]))
  return read.plan
}

/** The program of a plan, on a control that probes. */
export function written(plan: GaugePlan, where: GaugeCase): WrittenGauge {
  const { probing, macros } = where.profile
  if (!probing || !macros) throw new Error('no macros')
  return writeGauge(plan, where, probing, macros)
}

const PROBED: readonly FeatureKind[] = [
  'bore',
  'boss',
  'web',
  'pocket',
  'surface',
  'outside-corner',
  'inside-corner',
  'edge',
]

/** Length of the way that visits places in this order, from `start`. */
export const lengthOfWay = (start: Stop, stops: readonly Stop[]) =>
  stops.reduce((sum, stop, n) => sum + distance(n === 0 ? start : (stops[n - 1] as Stop), stop), 0)

/** A feature of any kind at its place in a row, with a tolerance, and something done with its result. */
const anyFeature = (index: number, unit: LengthUnit) =>
  fc
    .record({
      what: fc.constantFrom(...PROBED),
      axis: fc.constantFrom('X' as const, 'Y' as const, 'Z' as const),
      directionX: fc.constantFrom('+' as const, '-' as const),
      directionY: fc.constantFrom('+' as const, '-' as const),
      size: fc.integer({ min: 4, max: 12 }),
      up: fc.integer({ min: 8, max: 60 }),
      down: fc.integer({ min: -4, max: 60 }),
      react: fc.integer({ min: 0, max: 5 }),
      share: fc.integer({ min: 5, max: 100 }),
      band: fc.integer({ min: 0, max: 3 }),
    })
    .map(({ what, size, up, down, react, share, band, ...rest }) => {
      const per = unit === 'inch' ? 1 : 25.4
      const length = (value: number) => formatLength(value * per, unit)
      const reactions = reactionsOf(what)
      const step = unit === 'inch' ? 0.0001 : 0.001 / 25.4
      return featureOf(
        what,
        `F${index + 1}`,
        {
          ...rest,
          x: length(4 * index),
          y: length(index % 2 ? -3 : 0),
          nominal: length(0.5 + size / 16),
          // Now and then both limits lie on one side of the nominal size.
          tolerance:
            what === 'edge'
              ? `+${up / 1000} ${-down / 1000}`
              : `+${length(up * step)} ${length(-down * step)}`,
          base: length(1),
          react: reactions[react % reactions.length] ?? 'record',
          tool: String(index + 1),
          share: String(share / 100),
          deadBand: band === 0 ? '' : length(band * step),
        },
        unit,
      )
    })

/** Any plan that makes sense: up to four features, side by side. */
export const anyPlan = (unit: LengthUnit) =>
  fc
    .integer({ min: 1, max: 4 })
    .chain((count) => fc.tuple(...Array.from({ length: count }, (_, index) => anyFeature(index, unit))))
    .map((features) => planOf(features, unit))
