import {
  type Angle,
  type AngleJudgement,
  type AngleQuestion,
  angleSubject,
  fitsOffset,
  judgeAngle,
  measureAngle,
} from '../angle/index.ts'
import { COUNTS_SERIALS } from '../code/index.ts'
import type { Profile } from '../control/index.ts'
import type { Material } from '../cutting/index.ts'
import {
  type Fact,
  type Finding,
  type Freshness,
  type Verdict,
  verdictOf,
  worstFirst,
} from '../fact/index.ts'
import type { Collet, Vise } from '../hold/index.ts'
import {
  buildChain,
  effectiveStrikes,
  isUnread,
  orderOf,
  standingOf,
  type UnreadEntry,
} from '../log/index.ts'
import { axesOf, type LinearAxis, type Machine, type ToolShape } from '../machine/index.ts'
import {
  checkSubject,
  type EarlierValue,
  type Expectation,
  type Identified,
  identify,
  judgePickup,
  PART,
  type Pickup,
  pickUp,
  pickupSettings,
  pickupSubject,
  stockSubject,
} from '../pickup/index.ts'
import { convertLength, type LengthUnit } from '../quantity/index.ts'
import { addressNames, addressProblems } from './addresses.ts'
import { type CodeState, deriveCode } from './code-facts.ts'
import { machineEdited } from './edited.ts'
import { deriveGauging, type GaugeState } from './gauging.ts'
import { deriveHold, type HoldState } from './hold.ts'
import {
  type Chain,
  type Entry,
  type EntryOf,
  type FactEntry,
  kinds,
  type Link,
  type Logged,
  readEntry,
} from './kinds.ts'
import type { LogLine, Unreadable } from './log-lines.ts'
import { type ProgramKind, programSubject } from './own-kinds.ts'
import { programFreshness } from './program-freshness.ts'
import { deriveProve, type ProveState } from './proof.ts'
import { type CentreFact, centreFact, type FlatFact, flatFact, rotaryGone } from './rotary.ts'
import { deriveRun, type RunState } from './run.ts'
import { type StockFact, stockFact } from './stock.ts'
import { type ShiftFact, shiftFact } from './work-shift.ts'

/** Reference data that a setup is derived with: the newest version of each row. */
export interface Reference {
  machines: readonly Machine[]
  profiles: readonly Profile[]
  vises: readonly Vise[]
  collets: readonly Collet[]
  tools: readonly ToolShape[]
  materials: readonly Material[]
}

/** One axis of a work offset: the machine position over part zero, in the setup's unit. */
export interface AxisFact extends Fact<number> {
  axis: LinearAxis
  entry: EntryOf<'pickup'>
  findings: Finding[]
  verdict: Verdict
  /** The machine position that it rests on. */
  position: number
  swing?: number
  residuals?: NonNullable<Pickup['residuals']>
  /** What the readings say of the feature's own size. */
  size?: NonNullable<Pickup['size']>
}

interface CheckFact {
  entry: EntryOf<'checked'>
  freshness: Freshness
}

export interface ProgramFact {
  entry: EntryOf<'program'>
  freshness: Freshness
}

/** How the part lies against the drawing, as it was measured for an offset. */
export interface AngleFact {
  entry: EntryOf<'angled'>
  freshness: Freshness
  angle: Angle
  judgement: AngleJudgement
  /** Those of the angle, and whether it fits its offset. */
  findings: Finding[]
  verdict: Verdict
}

/** Whether it is the right part, the right way round. */
export interface PartFact extends Identified {
  entry: EntryOf<'identified'>
  freshness: Freshness
}

export interface OffsetState {
  name: string
  /** The axes that it must have on this machine. */
  wants: readonly LinearAxis[]
  axes: Partial<Record<LinearAxis, AxisFact>>
  /** Where the machine shows the rotary when the program has it at 0. */
  rotary?: FlatFact
  angle?: AngleFact
  /** The block that it was taken on, against the part that is asked for. */
  stock?: StockFact
  check?: CheckFact
  program?: ProgramFact
  /** Further programs that were taken to the control for it. */
  further: Partial<Record<ProgramKind, ProgramFact>>
  /** What is wrong with the offset as a whole: the control lacks it. */
  findings: Finding[]
}

export interface Setup {
  id: string
  opened: EntryOf<'opened'>
  unit: LengthUnit
  /** In the setup's unit. */
  tolerance: number
  machine: Machine
  profile: Profile
  offsets: OffsetState[]
  hold: HoldState
  /** The centre line of the rotary. */
  centre?: CentreFact
  /** The work shift of a lathe. */
  shift?: ShiftFact
  part?: PartFact
  code: CodeState
  prove: ProveState
  /** What is gauged while it runs, and what was measured. */
  gauge: GaugeState
  /** Pallets, what was timed and what was saved. */
  run: RunState
  log: LogLine[]
  /** What of its log cannot be read here, and was not struck out: facts that it may have been about are stale. */
  unread: UnreadEntry[]
}

interface Context {
  chain: Chain
  machine: Machine
  profile: Profile
  unit: LengthUnit
  tolerance: number
  /** The pickup that each one took the place of. */
  before: Map<string, Link>
}

const settingsOf = ({ machine, unit }: Context) => pickupSettings(machine, unit)

const isPickup = (link: Link | undefined): link is Link & { entry: EntryOf<'pickup'> } =>
  link?.entry.kind === 'pickup'

function earlier(link: Link | undefined, fresh: boolean, context: Context): EarlierValue | undefined {
  if (!isPickup(link)) return undefined
  const { value, position, doubt } = pickUp(link.entry.reading, settingsOf(context))
  return { value, position, doubt: doubt.value, fresh }
}

/** Whether a link still held at the moment its successor was entered: nothing had reached it by then. */
const heldUntilReplaced = (link: Link) => link.reached === undefined

/** What stood before, where part zero was put elsewhere since: it is expected there. */
function movedBy(
  last: EarlierValue | undefined,
  { moved }: EntryOf<'pickup'>,
  { unit }: Context,
): EarlierValue | undefined {
  return last && moved ? { ...last, value: last.value + convertLength(moved.value, moved.unit, unit) } : last
}

function expectationFor(
  entry: EntryOf<'pickup'>,
  last: Link | undefined,
  lastHeld: boolean,
  context: Context,
): Expectation {
  const { axis } = entry.reading
  const other =
    axis === 'Z'
      ? undefined
      : context.chain.standing.get(pickupSubject(entry.offset, axis === 'X' ? 'Y' : 'X'))
  const otherNow = isPickup(other) ? pickUp(other.entry.reading, settingsOf(context)) : undefined
  // A swap is looked for against what the other axis was before this round.
  const otherBefore = other && (context.before.get(other.entry.id) ?? other)
  return {
    machine: context.machine,
    unit: context.unit,
    tolerance: context.tolerance,
    last: movedBy(earlier(last, lastHeld, context), entry, context),
    lastOther: earlier(otherBefore, false, context),
    otherSwing: other && other.reached === undefined ? otherNow?.swing : undefined,
  }
}

function axisFact(link: Link & { entry: EntryOf<'pickup'> }, context: Context): AxisFact {
  const { entry } = link
  const pickup: Pickup = pickUp(entry.reading, settingsOf(context))
  const last = context.before.get(entry.id)
  const judged = judgePickup(
    entry.reading,
    pickup,
    expectationFor(entry, last, last !== undefined && heldUntilReplaced(last), context),
  )
  const findings = [...judged, ...machineEdited(entry.machine, entry.reading.axis, context.machine)]
  return {
    ...pickup,
    basis: [entry.id],
    freshness: context.chain.freshnessOf(entry.id),
    entry,
    findings,
    verdict: verdictOf(findings),
  }
}

/** What a new reading of an axis would be judged against, before it is recorded. */
export function expectationOf(setup: Setup, offset: string, axis: LinearAxis): Expectation {
  const of = setup.offsets.find(({ name }) => name === offset)?.axes
  const asEarlier = (fact: AxisFact | undefined): EarlierValue | undefined =>
    fact && {
      value: fact.value,
      position: fact.position,
      doubt: fact.doubt.value,
      fresh: fact.freshness.state === 'fresh',
    }
  const other = axis === 'Z' ? undefined : of?.[axis === 'X' ? 'Y' : 'X']
  return {
    machine: setup.machine,
    unit: setup.unit,
    tolerance: setup.tolerance,
    last: asEarlier(of?.[axis]),
    lastOther: asEarlier(other),
    otherSwing: other?.freshness.state === 'fresh' ? other.swing : undefined,
  }
}

/** What is asked of an angle, in a setup's unit. */
export function angleQuestion(
  { reach, allowed, needsSquare }: Pick<EntryOf<'angled'>, 'reach' | 'allowed' | 'needsSquare'>,
  { profile, unit }: Pick<Setup, 'profile' | 'unit'>,
): AngleQuestion {
  return {
    reach: convertLength(reach.value, reach.unit, unit),
    allowed: convertLength(allowed.value, allowed.unit, unit),
    needsSquare,
    canTurn: profile.rotation !== null,
    unit,
  }
}

/** How X and Y of an offset were taken, for whether an angle fits them. */
export const zerosOf = ({ axes }: Pick<OffsetState, 'axes'>) =>
  (['X', 'Y'] as const).flatMap((axis) => {
    const fact = axes[axis]
    return fact
      ? [
          {
            axis,
            method: fact.entry.reading.method,
            at: fact.entry.at,
            stale: fact.freshness.state === 'stale',
          },
        ]
      : []
  })

function angleFact(entry: EntryOf<'angled'>, axes: OffsetState['axes'], context: Context): AngleFact {
  const angle = measureAngle(entry.reading, settingsOf(context))
  const question = angleQuestion(entry, context)
  const judgement = judgeAngle(angle, question)
  const fits = fitsOffset({
    offset: entry.offset,
    zeros: zerosOf({ axes }),
    measuredAt: entry.at,
    angle,
    reach: question.reach,
    allowed: question.allowed,
    unit: context.unit,
  })
  const findings = worstFirst([
    ...judgement.findings,
    ...fits,
    ...machineEdited(entry.machine, 'angle', context.machine),
  ])
  return {
    entry,
    freshness: context.chain.freshnessOf(entry.id),
    angle,
    judgement,
    findings,
    verdict: verdictOf(findings),
  }
}

function offsetState(
  name: string,
  context: Context,
  { hold, centre }: { hold: HoldState; centre: CentreFact | undefined },
): OffsetState {
  const { chain } = context
  const axes: Partial<Record<LinearAxis, AxisFact>> = {}
  for (const axis of axesOf(context.machine)) {
    const link = chain.standing.get(pickupSubject(name, axis))
    if (isPickup(link)) axes[axis] = axisFact(link, context)
  }
  const check = chain.standing.get(checkSubject(name))?.entry
  const angled = chain.standing.get(angleSubject(name))?.entry
  const program = (what: ProgramKind): ProgramFact | undefined => {
    const entry = chain.standing.get(programSubject(name, what))?.entry
    return entry?.kind === 'program' ? { entry, freshness: programFreshness(entry, context) } : undefined
  }
  const [load, angle, turned, probe, bar] = [
    program('load'),
    program('angle'),
    program('turned'),
    program('probe'),
    program('bar'),
  ]
  const state: OffsetState = {
    name,
    axes,
    wants: axesOf(context.machine),
    findings: [...addressProblems(name, context.machine, context.profile), ...rotaryGone(name, context)],
    further: {
      ...(angle ? { angle } : {}),
      ...(turned ? { turned } : {}),
      ...(probe ? { probe } : {}),
      ...(bar ? { bar } : {}),
    },
    ...(load ? { program: load } : {}),
    ...(angled?.kind === 'angled' ? { angle: angleFact(angled, axes, context) } : {}),
  }
  const rotary = flatFact(name, { ...context, centre })
  if (rotary) state.rotary = rotary
  const stock = chain.standing.get(stockSubject(name))?.entry
  if (stock?.kind === 'stock')
    state.stock = stockFact(stock, chain.freshnessOf(stock.id), state, { unit: context.unit, hold })
  if (check?.kind === 'checked') state.check = { entry: check, freshness: chain.freshnessOf(check.id) }
  return state
}

/** One offset of a setup by name; one that nothing was taken for yet is open and empty. */
export function offsetOf(setup: Setup, name: string): OffsetState {
  const inUse = setup.offsets.find((each) => each.name === name)
  if (inUse) return inUse
  const { machine, profile } = setup
  return {
    name,
    axes: {},
    wants: axesOf(machine),
    further: {},
    findings: addressProblems(name, machine, profile),
  }
}

function offsetsInUse(chain: Chain, machine: Machine, profile: Profile): string[] {
  const names = new Set<string>()
  for (const { entry } of chain.standing.values()) if ('offset' in entry) names.add(entry.offset)
  if (names.size === 0) names.add(addressNames(machine, profile)[0] ?? 'G54')
  return [...names].sort((a, b) => a.localeCompare(b, 'en', { numeric: true }))
}

function deriveWhole(entries: readonly Logged[], reference: Reference): Setup | Unreadable {
  const order = orderOf(entries)
  const { ordered } = order
  const strikes = effectiveStrikes(ordered)
  const held = strikes.size === 0 ? ordered : ordered.filter(({ id }) => !strikes.has(id))
  const unread = held.filter(isUnread)
  const counting = unread.length === 0 ? (held as Entry[]) : held.filter((entry) => entry.kind !== 'unread')
  const opened = ordered.find((entry): entry is EntryOf<'opened'> => entry.kind === 'opened')
  const machine = reference.machines.find(({ id }) => id === opened?.machine.id)
  const profile = reference.profiles.find(({ id }) => id === machine?.profileId)
  const { text, lettering } = profile?.reading ?? {}
  const chain = buildChain<Entry, FactEntry>(held, strikes, {
    kinds,
    given: new Set(text && lettering?.counts === true ? [COUNTS_SERIALS] : []),
    order,
  })
  const log = ordered.map((entry) => standingOf(entry, strikes, chain))
  if (!opened) return { unreadable: 'The entry that opened this setup is not in the log.', log }
  if (!machine)
    return { unreadable: `The machine "${opened.machine.id}" of this setup is not known here.`, log }
  if (!profile)
    return { unreadable: `The profile "${machine.profileId}" of ${machine.name} is not known here.`, log }

  const before = new Map<string, Link>()
  for (const link of chain.links.values()) {
    if (link.supersededBy) before.set(link.supersededBy.entry.id, link)
  }
  const { unit } = opened
  const tolerance = convertLength(opened.tolerance.value, opened.tolerance.unit, unit)
  const context: Context = { chain, machine, profile, unit, tolerance, before }
  const hold = deriveHold({ chain, machine, profile, unit, library: reference })
  const centre = centreFact(context)
  const shift = shiftFact(context)
  const offsets = offsetsInUse(chain, machine, profile).map((name) =>
    offsetState(name, context, { hold, centre }),
  )
  const part = chain.standing.get(PART)?.entry
  return {
    id: opened.id,
    opened,
    unit,
    tolerance,
    machine,
    profile,
    offsets,
    hold,
    ...(centre ? { centre } : {}),
    ...(shift ? { shift } : {}),
    code: deriveCode({ chain, machine, profile, ...reference }),
    prove: deriveProve(counting, { chain, machine, profile, tools: reference.tools }),
    gauge: deriveGauging(counting, { chain, machine, profile, unit }),
    run: deriveRun(counting, { chain, machine, profile }),
    ...(part?.kind === 'identified'
      ? { part: { ...identify(part, unit), entry: part, freshness: chain.freshnessOf(part.id) } }
      : {}),
    log,
    unread,
  }
}

/**
 * Derives everything that is shown of a setup from its log. Pure: the same on the page and on the server,
 * whatever order the entries arrive in. A log that cannot be derived says so, and is shown line by line.
 */
export function deriveSetup(entries: readonly Logged[], reference: Reference): Setup | Unreadable {
  try {
    return deriveWhole(entries, reference)
  } catch (error) {
    const log = entries.map((each): LogLine => ({ entry: each, standing: 'counts' }))
    const bad = entries.find((each) => each.kind !== 'unread' && readEntry(each).kind === 'unread')
    const why = error instanceof Error ? error.message : String(error)
    return {
      unreadable: bad
        ? `The entry ${bad.id} of this log cannot be read: what it said is not known, so nothing of this setup counts as fresh.`
        : `This log cannot be worked out: ${why}. Nothing of it was changed.`,
      log,
    }
  }
}
