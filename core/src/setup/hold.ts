import type { Profile } from '../control/index.ts'
import { type Finding, type Freshness, finding, type Verdict, verdictOf } from '../fact/index.ts'
import {
  barRange,
  CLEARANCE,
  type Clearance,
  type Collet,
  type Convergence,
  clearance,
  convergence,
  fitRatio,
  GRIP,
  type LengthSpread,
  lengthSpread,
  lengthsSubject,
  movingRatio,
  offTheJaw,
  type RatioFit,
  type Squared,
  squareness,
  UPRIGHT,
  type Uprightness,
  uprightness,
  type Vise,
} from '../hold/index.ts'
import type { Machine } from '../machine/index.ts'
import { convertLength, type LengthUnit, type TypedLength } from '../quantity/index.ts'
import { holdCheckSubject, STOP_CHECK } from '../ready/index.ts'
import type { Chain, EntryOf, Link, Logged } from './kinds.ts'
import { freshnessWith } from './program-freshness.ts'

/** A fact of the Hold step with the entry that states it. */
interface HoldFact<Kind extends 'swept' | 'upright' | 'cleared' | 'gripped' | 'lengths'> {
  entry: EntryOf<Kind>
  freshness: Freshness
  findings: Finding[]
  verdict: Verdict
}

export interface SweepFact extends HoldFact<'swept'> {
  squared: Squared
  /** What became of the tap after the sweep before. */
  convergence?: Convergence
}

export interface UprightFact extends HoldFact<'upright'> {
  read: Uprightness
}

export interface ClearanceFact extends HoldFact<'cleared'> {
  vise: Vise
  clearance: Clearance
}

export interface GripFact extends HoldFact<'gripped'> {
  collet: Collet
  spread: LengthSpread
}

export interface LengthsFact extends HoldFact<'lengths'> {
  collet: Collet
  fit: RatioFit
}

/** One line of what is to be looked at before the spindle turns. */
export interface HoldCheck {
  id: string
  says: string
  tick?: { entry: EntryOf<'ticked'>; freshness: Freshness }
}

export interface HoldState {
  /** The sweeps since the vise was last moved, oldest first; the last one stands. */
  sweeps: SweepFact[]
  /** Whether the fixed jaw stands upright and does not lift: asked once a day at most, nothing rests on it. */
  upright?: UprightFact
  clearance?: ClearanceFact
  grip?: GripFact
  /** Ratios measured in this setup, by collet. */
  lengths: Map<string, LengthsFact>
  checks: HoldCheck[]
  /** What is wrong with the step as a whole: a row that is no longer in the library. */
  findings: Finding[]
}

/** What is checked by hand on a lathe before the spindle turns. Common practice. */
const LATHE_CHECKS: readonly { id: string; says: string }[] = [
  { id: 'anti-rotation', says: "Anti-rotation screw in the collet's keyway" },
  { id: 'clamping-direction', says: "The control's clamping direction (outside or inside grip) suits it" },
  { id: STOP_CHECK, says: 'The stop is locked, and nothing stands behind the actuator' },
]

interface Library {
  vises: readonly Vise[]
  collets: readonly Collet[]
}

interface Context {
  chain: Chain
  machine: Machine
  profile: Profile
  unit: LengthUnit
  library: Library
}

const standingEntry = <Kind extends Link['entry']['kind']>(chain: Chain, subject: string, kind: Kind) => {
  const entry = chain.standing.get(subject)?.entry
  return entry?.kind === kind ? (entry as EntryOf<Kind>) : undefined
}

const inUnit = (of: TypedLength, unit: LengthUnit) => convertLength(of.value, of.unit, unit)

/** Rows that the standing entries used and that are not in the library. */
function missingRows({ chain, library }: Context): Finding[] {
  const vise = standingEntry(chain, CLEARANCE, 'cleared')?.vise.id
  const collet = standingEntry(chain, GRIP, 'gripped')?.collet.id
  const missing = [
    vise !== undefined && !library.vises.some(({ id }) => id === vise) ? ['vise', vise] : [],
    collet !== undefined && !library.collets.some(({ id }) => id === collet) ? ['collet', collet] : [],
  ]
  return missing.flatMap(([what, id]) =>
    what === undefined
      ? []
      : [
          finding(
            'stop',
            'not-in-library',
            what,
            `The ${what} "${id}" is not in the library.`,
            'Its dimensions are kept there.',
            `Enter the ${what}, or choose another.`,
          ),
        ],
  )
}

/** Places beyond the ends of the jaw that was swept, where it is known which one that was. */
function offItsJaw({ vise }: EntryOf<'swept'>, squared: Squared, { library, unit }: Context): Finding[] {
  const of = library.vises.find(({ id }) => id === vise?.id)
  return of && squared.ok ? offTheJaw(squared.sweep, convertLength(of.jawLength, of.unit, unit)) : []
}

function sweepsOf(context: Context): SweepFact[] {
  const { chain, unit } = context
  const links = [...chain.links.values()].filter(
    (link): link is Link & { entry: EntryOf<'swept'> } => link.entry.kind === 'swept',
  )
  const after = links.findLastIndex((link) => link.reached !== undefined && link.supersededBy !== undefined)
  const facts: SweepFact[] = []
  for (const { entry } of links.slice(after + 1)) {
    const squared = squareness(entry.sweep, unit)
    const before = facts.at(-1)?.squared
    const turned = before?.ok && squared.ok ? convergence(before, squared) : undefined
    const findings = [...offItsJaw(entry, squared, context), ...(turned?.findings ?? []), ...squared.findings]
    facts.push({
      entry,
      freshness: chain.freshnessOf(entry.id),
      squared,
      findings,
      verdict: verdictOf(findings),
      ...(turned ? { convergence: turned } : {}),
    })
  }
  return facts
}

function uprightOf({ chain, unit }: Context): UprightFact | undefined {
  const entry = standingEntry(chain, UPRIGHT, 'upright')
  if (!entry) return undefined
  const read = uprightness(entry, unit)
  return {
    entry,
    freshness: chain.freshnessOf(entry.id),
    read,
    findings: read.findings,
    verdict: verdictOf(read.findings),
  }
}

/** Says that a row was edited since a fact was made with it; undefined where it was not. `made`: the word for it. */
const rowEdit = (made: string, edited: { name: string } | undefined) =>
  edited && `${made} with ${edited.name} as it was before an edit`

function clearanceOf({ chain, machine, unit, library }: Context): ClearanceFact | undefined {
  const entry = standingEntry(chain, CLEARANCE, 'cleared')
  const vise = library.vises.find(({ id }) => id === entry?.vise.id)
  if (!entry || !vise) return undefined
  const found = clearance({
    machine,
    vise,
    unit,
    jawAt: inUnit(entry.jawAt, unit),
    wanted: inUnit(entry.wanted, unit),
    lowestZ: inUnit(entry.lowestZ, unit),
  })
  const edited =
    entry.machine.version !== machine.version
      ? machine
      : entry.vise.version !== vise.version
        ? vise
        : undefined
  return {
    entry,
    freshness: freshnessWith(entry, { chain }, () => rowEdit('measured', edited)),
    vise,
    clearance: found,
    findings: found.findings,
    verdict: verdictOf(found.findings),
  }
}

function lengthsOf({ chain, unit, library }: Context): Map<string, LengthsFact> {
  const facts = new Map<string, LengthsFact>()
  for (const collet of library.collets) {
    const entry = standingEntry(chain, lengthsSubject(collet.id), 'lengths')
    const fit = entry && fitRatio(entry.pairs, entry.what, movingRatio(collet, entry.stop), unit)
    if (entry && fit)
      facts.set(collet.id, {
        entry,
        collet,
        freshness: chain.freshnessOf(entry.id),
        fit,
        findings: fit.findings,
        verdict: verdictOf(fit.findings),
      })
  }
  return facts
}

function gripOf({ chain, unit, library }: Context, measured: Map<string, LengthsFact>): GripFact | undefined {
  const entry = standingEntry(chain, GRIP, 'gripped')
  const collet = library.collets.find(({ id }) => id === entry?.collet.id)
  if (!entry || !collet) return undefined
  const lengths = measured.get(collet.id)
  const used = lengths && entry.rests.includes(lengths.entry.id) ? lengths.fit : undefined
  const spread = lengthSpread({
    collet,
    stop: entry.stop,
    operation: entry.operation,
    seated: entry.seated,
    unit,
    range: barRange(entry.bars, unit),
    allowed: inUnit(entry.allowed, unit),
    ...(used ? { measuredRatio: used } : {}),
  })
  const findings = [...spread.findings]
  if (lengths?.fit.ofCollet && lengths.freshness.state === 'fresh' && !used && spread.ratio > 0)
    findings.push(
      finding(
        'look',
        'ratio-measured-since',
        'collet',
        `The ratio of this chuck was measured: ${lengths.fit.value.toFixed(2)} to 1.`,
        'The grip was chosen with the ratio of the library.',
        'Choose it again with the measured one.',
      ),
    )
  return {
    entry,
    freshness: freshnessWith(entry, { chain }, () =>
      rowEdit('chosen', entry.collet.version === collet.version ? undefined : collet),
    ),
    collet,
    spread,
    findings,
    verdict: verdictOf(findings),
  }
}

function checksOf({ chain, machine }: Context): HoldCheck[] {
  if (machine.kind === 'mill') return []
  return LATHE_CHECKS.map((check) => {
    const entry = standingEntry(chain, holdCheckSubject(check.id), 'ticked')
    return entry ? { ...check, tick: { entry, freshness: chain.freshnessOf(entry.id) } } : check
  })
}

/** The ratios of collets that were measured in a setup and still hold, by collet, with the entry that they rest on. */
export const measuredRatios = ({ lengths }: HoldState) =>
  new Map(
    [...lengths].flatMap(([collet, { fit, freshness, entry }]) =>
      fit.ofCollet && freshness.state === 'fresh'
        ? [[collet, { value: fit.value, doubt: fit.doubt, entry: entry.id }] as const]
        : [],
    ),
  )

/** Square for this part: swept tight, within what it allows. */
export const isSquare = (fact: SweepFact | undefined) =>
  fact?.squared.ok === true &&
  fact.verdict !== 'stop' &&
  fact.entry.sweep.bolts === 'tight' &&
  fact.squared.within

/** The two readings on the fixed jaw are asked for again after so long: once a day, whatever the time of the shift. */
const A_DAY_MS = 20 * 3_600_000

/**
 * Whether to ask if the fixed jaw stands upright and does not lift: it was just found square with both bolts tight, and
 * nobody read it on this machine within a day. `now` in ms since 1970.
 */
export function asksUpright({ sweeps }: HoldState, machineEntries: readonly Logged[], now: number) {
  const last = sweeps.at(-1)
  if (!isSquare(last) || last?.freshness.state !== 'fresh') return false
  const struck = new Set(machineEntries.flatMap((each) => (each.kind === 'struck' ? [each.target] : [])))
  return !machineEntries.some(
    (each) =>
      each.kind === 'upright' && !struck.has(each.id) && Math.abs(now - Date.parse(each.at)) < A_DAY_MS,
  )
}

/** The Hold step of a setup: how the vise or the collet stands. */
export function deriveHold(context: Context): HoldState {
  const lengths = lengthsOf(context)
  const sweeps = sweepsOf(context)
  const cleared = clearanceOf(context)
  const upright = uprightOf(context)
  const grip = gripOf(context, lengths)
  const checks = checksOf(context)
  return {
    sweeps,
    lengths,
    checks,
    findings: missingRows(context),
    ...(upright ? { upright } : {}),
    ...(cleared ? { clearance: cleared } : {}),
    ...(grip ? { grip } : {}),
  }
}
