import type { Macros, Profile } from '../control/index.ts'
import type { Freshness } from '../fact/index.ts'
import {
  type Characteristic,
  characteristicsIn,
  type Drift,
  driftOf,
  type Feature,
  isOut,
  keyOf,
  labelAfter,
  nextValue,
  type ReportedPart,
  SETTLED_NAMES,
  targetOf,
} from '../gauge/index.ts'
import type { Machine } from '../machine/index.ts'
import { convertLength, type LengthUnit } from '../quantity/index.ts'
import type { TakenFact } from './code-facts.ts'
import type { Chain, EntryOf, Logged } from './kinds.ts'
import { freshnessWith, machineEdited, profileEdited, programFreshness } from './program-freshness.ts'

/** A plan for gauging that was recorded, and whether what it rests on still holds. */
export interface GaugingFact {
  entry: EntryOf<'gauging'>
  freshness: Freshness
}

/** One measured part, in the setup's unit. */
export interface GaugedPart {
  entry: EntryOf<'gauged'>
  /** Its place in the entry. */
  part: number
  label: string
  values: Readonly<Record<string, number>>
  /** What the control's log said of the variables that it corrects, after this part. */
  corrected: Readonly<Record<string, number>>
  /** Keys that are out of tolerance, by the revision of the plan that it was measured by. */
  out: readonly string[]
  settled?: EntryOf<'settled'>
  /** It is out of tolerance, and nobody has said what was done. */
  open: boolean
  /** It counts for charts and limits. */
  counts: boolean
}

/** Everything that was measured by the revisions of one plan. */
export interface GaugeSeries {
  title: string
  /** The features of its newest revision. */
  features: readonly Feature[]
  characteristics: readonly Characteristic[]
  /** In the order in which they came. */
  parts: GaugedPart[]
  corrections: EntryOf<'corrected'>[]
}

export interface GaugeState {
  plans: GaugingFact[]
  /** What was taken to the control, by title. */
  taken: ReadonlyMap<string, TakenFact>
  series: GaugeSeries[]
}

interface Context {
  chain: Chain
  machine: Machine
  profile: Profile
  unit: LengthUnit
}

const gaugingFreshness = (entry: EntryOf<'gauging'>, context: Context): Freshness =>
  freshnessWith(
    entry,
    context,
    () => machineEdited(entry, context, 'composed for') ?? profileEdited(entry, context, 'composed for'),
  )

/** Keys of a part's values that lie beyond the limits. */
export const outOf = (
  values: Readonly<Record<string, number>>,
  characteristics: readonly Characteristic[],
): string[] =>
  characteristics.flatMap((of) => {
    const value = values[of.key]
    return value !== undefined && isOut(value, of) ? [of.key] : []
  })

function partsOf(
  entry: EntryOf<'gauged'>,
  plan: EntryOf<'gauging'> | undefined,
  settled: ReadonlyMap<string, EntryOf<'settled'>>,
  unit: LengthUnit,
): GaugedPart[] {
  const characteristics = plan ? characteristicsIn(plan.plan, unit) : []
  const angles = new Set(characteristics.filter((of) => of.unit === 'deg').map(({ key }) => key))
  const inUnit = (of: Readonly<Record<string, number>>) =>
    entry.unit === unit
      ? of
      : Object.fromEntries(
          Object.entries(of).map(([key, value]) => [
            key,
            angles.has(key) ? value : convertLength(value, entry.unit, unit),
          ]),
        )
  return entry.parts.map(({ label, values, corrected }, part): GaugedPart => {
    const own = inUnit(values)
    const out = outOf(own, characteristics)
    const about = settled.get(`${entry.id}/${part}`)
    return {
      entry,
      part,
      label,
      values: own,
      corrected: inUnit(corrected ?? {}),
      out,
      ...(about ? { settled: about } : {}),
      open: out.length > 0 && !about,
      counts: about?.did !== 'not-counted',
    }
  })
}

/** What was composed, measured and done about it; stale if a plan is, open while a part waits for a word. */
export function deriveGauging(counting: readonly Logged[], context: Context): GaugeState {
  const { chain, unit } = context
  const plans: GaugingFact[] = []
  const taken = new Map<string, TakenFact>()
  for (const { entry } of chain.standing.values()) {
    if (entry.kind === 'gauging') plans.push({ entry, freshness: gaugingFreshness(entry, context) })
    if (entry.kind === 'program' && entry.what === 'gauge')
      taken.set(entry.title ?? '', { entry, freshness: programFreshness(entry, context) })
  }
  const revisions = new Map<string, EntryOf<'gauging'>>()
  const settled = new Map<string, EntryOf<'settled'>>()
  const found = new Map<string, GaugeSeries>()
  for (const entry of counting) {
    if (entry.kind === 'gauging') revisions.set(entry.id, entry)
    if (entry.kind === 'settled') settled.set(`${entry.gauged}/${entry.part}`, entry)
  }
  const seriesOf = (title: string, plan: EntryOf<'gauging'> | undefined) => {
    const known = found.get(title)
    const characteristics = plan ? characteristicsIn(plan.plan, unit) : []
    if (known) {
      if (plan) {
        known.characteristics = characteristics
        known.features = plan.plan.features
      }
      return known
    }
    const series: GaugeSeries = {
      title,
      features: plan?.plan.features ?? [],
      characteristics,
      parts: [],
      corrections: [],
    }
    found.set(title, series)
    return series
  }
  for (const entry of counting) {
    if (entry.kind === 'gauging') seriesOf(entry.plan.head.title, entry)
    else if (entry.kind === 'gauged')
      seriesOf(entry.plan, undefined).parts.push(
        ...partsOf(entry, revisions.get(entry.rests[0] ?? ''), settled, unit),
      )
    else if (entry.kind === 'corrected') seriesOf(entry.plan, undefined).corrections.push(entry)
  }
  const series = [...found.values()]
  return { plans, taken, series }
}

/** The parts of a series as they are given out in files. */
export const reportedParts = ({ parts }: GaugeSeries): ReportedPart[] =>
  parts.map(({ entry, label, values, out, settled }) => ({
    label,
    at: entry.at,
    by: entry.by,
    values,
    out,
    ...(settled ? { done: SETTLED_NAMES[settled.did], ...(settled.note ? { note: settled.note } : {}) } : {}),
  }))

/** One value over the parts: what a chart shows. */
export interface ValueSeries {
  of: Characteristic
  parts: readonly GaugedPart[]
  values: readonly number[]
  /** Index of the first part after the last correction of what moves it. */
  since: number
  /** Indices of the first parts after each correction. */
  corrections: readonly number[]
  /** What the parts would be had the program corrected nothing; where its log says what it corrected. */
  uncorrected?: readonly number[]
}

/** The feature that a value is of, where the program corrects it. */
const correctedFeature = ({ features }: GaugeSeries, { feature }: Characteristic): Feature | undefined => {
  const of = features.find(({ id }) => id === feature)
  return of && (of.params.react === 'wear' || of.params.react === 'offset') ? of : undefined
}

/** What each part would be without what the program had corrected by then: its wear table as it stood while the part was cut. */
function uncorrected(
  feature: Feature,
  of: Characteristic,
  parts: readonly GaugedPart[],
  name: string,
  { wearAs }: Macros,
): number[] | undefined {
  if (!parts.some(({ corrected }) => corrected[name] !== undefined)) return undefined
  let wear = 0
  return parts.map(({ values, corrected }) => {
    const value = nextValue(feature.params, of.quantity, values[of.key] as number, -wear, wearAs)
    wear = corrected[name] ?? wear
    return value
  })
}

/**
 * The values of one characteristic, without parts that do not count, and where they were corrected: by hand, or by the program
 * as its log has it.
 */
export function valueSeries(
  series: GaugeSeries,
  key: string,
  offset: string,
  { profile }: { profile: Profile },
): ValueSeries | undefined {
  const of = series.characteristics.find((each) => each.key === keyOf(key))
  if (!of) return undefined
  const parts = series.parts.filter((part) => part.counts && part.values[of.key] !== undefined)
  const places = new Set<number>()
  for (const { gauged, part, key: about } of series.corrections) {
    if (about !== of.key) continue
    const at = parts.findIndex((each) => each.entry.id === gauged && each.part === part)
    if (at >= 0) places.add(at + 1)
  }
  const feature = correctedFeature(series, of)
  const target = feature && targetOf(feature, of, { profile, offset })
  if (target)
    for (let at = 1; at < parts.length; at++) {
      const [before, after] = [parts[at - 1]?.corrected[target.printed], parts[at]?.corrected[target.printed]]
      // What the program wrote after this part holds for the next.
      if (before !== undefined && after !== undefined && before !== after) places.add(at + 1)
    }
  const found = [...places].filter((at) => at < parts.length).sort((a, b) => a - b)
  const raw =
    feature && target && profile.macros
      ? uncorrected(feature, of, parts, target.printed, profile.macros)
      : undefined
  return {
    of,
    parts,
    values: parts.map(({ values }) => values[of.key] as number),
    since: found.at(-1) ?? 0,
    corrections: found,
    ...(raw ? { uncorrected: raw } : {}),
  }
}

/**
 * The drift of a value: since the last correction; or, where the program corrects by itself, the tool's own, in what the parts
 * would have been.
 */
export const seriesDrift = ({ of, values, since, uncorrected: raw }: ValueSeries): Drift | undefined =>
  raw ? driftOf(raw, 0, of) : driftOf(values, since, of)

/** The name of the part at a place of a series, also of one that is still to come. */
export const partLabel = ({ parts }: ValueSeries, index: number): string =>
  parts[index]?.label ?? labelAfter(parts.at(-1)?.label ?? '', index - parts.length + 1)

/** How much the last part would have to move to the middle of its tolerance, signed. */
export const toMiddle = ({ of, values }: ValueSeries): number => of.middle - (values.at(-1) ?? of.middle)
