import {
  type Angle,
  type AngleJudgement,
  type AngleQuestion,
  angleSubject,
  fitsOffset,
  judgeAngle,
  measureAngle,
} from '../angle/index.ts'
import type { Profile } from '../control/index.ts'
import {
  type Fact,
  type Finding,
  type Freshness,
  type Verdict,
  verdictOf,
  worstFirst,
} from '../fact/index.ts'
import { axesOf, type LinearAxis, type Machine } from '../machine/index.ts'
import {
  checkSubject,
  type EarlierValue,
  type Expectation,
  judgePickup,
  type Pickup,
  pickUp,
  pickupSettings,
  pickupSubject,
  stockSubject,
} from '../pickup/index.ts'
import { convertLength, type LengthUnit } from '../quantity/index.ts'
import { addressNames, addressProblems } from './addresses.ts'
import { editedNote } from './edited.ts'
import type { HoldState } from './hold.ts'
import type { Chain, EntryOf, Link } from './kinds.ts'
import { type ProgramKind, programSubject } from './own-kinds.ts'
import { programFreshness } from './program-freshness.ts'
import { type CentreFact, type FlatFact, flatFact, rotaryGone } from './rotary.ts'
import { type StockFact, stockFact } from './stock.ts'

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

/** A setup, as far as its offsets go. */
interface InOffsets {
  offsets: readonly OffsetState[]
  machine: Machine
  profile: Profile
  unit: LengthUnit
}

/** What an offset is derived in. */
export interface OffsetContext {
  chain: Chain
  machine: Machine
  profile: Profile
  unit: LengthUnit
  tolerance: number
}

const settingsOf = ({ machine, unit }: OffsetContext) => pickupSettings(machine, unit)

const isPickup = (link: Link | undefined): link is Link & { entry: EntryOf<'pickup'> } =>
  link?.entry.kind === 'pickup'

function earlier(link: Link | undefined, fresh: boolean, context: OffsetContext): EarlierValue | undefined {
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
  { unit }: OffsetContext,
): EarlierValue | undefined {
  return last && moved ? { ...last, value: last.value + convertLength(moved.value, moved.unit, unit) } : last
}

function expectationFor(
  entry: EntryOf<'pickup'>,
  last: Link | undefined,
  lastHeld: boolean,
  context: OffsetContext,
): Expectation {
  const { axis } = entry.reading
  const other =
    axis === 'Z'
      ? undefined
      : context.chain.standing.get(pickupSubject(entry.offset, axis === 'X' ? 'Y' : 'X'))
  const otherNow = isPickup(other) ? pickUp(other.entry.reading, settingsOf(context)) : undefined
  // A swap is looked for against what the other axis was before this round.
  const otherBefore = other && (other.replaces ?? other)
  return {
    machine: context.machine,
    unit: context.unit,
    tolerance: context.tolerance,
    last: movedBy(earlier(last, lastHeld, context), entry, context),
    lastOther: earlier(otherBefore, false, context),
    otherSwing: other && other.reached === undefined ? otherNow?.swing : undefined,
  }
}

function axisFact(link: Link & { entry: EntryOf<'pickup'> }, context: OffsetContext): AxisFact {
  const { entry } = link
  const pickup: Pickup = pickUp(entry.reading, settingsOf(context))
  const last = link.replaces
  const judged = judgePickup(
    entry.reading,
    pickup,
    expectationFor(entry, last, last !== undefined && heldUntilReplaced(last), context),
  )
  const findings = [...judged, ...editedNote(entry.machine, entry.reading.axis, context.machine)]
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
export function expectationOf(
  setup: InOffsets & { tolerance: number },
  offset: string,
  axis: LinearAxis,
): Expectation {
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
  { profile, unit }: Pick<InOffsets, 'profile' | 'unit'>,
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

function angleFact(entry: EntryOf<'angled'>, axes: OffsetState['axes'], context: OffsetContext): AngleFact {
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
    ...editedNote(entry.machine, 'angle', context.machine),
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

export function offsetState(
  name: string,
  context: OffsetContext,
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
export function offsetOf(
  setup: Pick<InOffsets, 'offsets' | 'machine' | 'profile'>,
  name: string,
): OffsetState {
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

export function offsetsInUse(chain: Chain, machine: Machine, profile: Profile): string[] {
  const names = new Set<string>()
  for (const { entry } of chain.standing.values()) if ('offset' in entry) names.add(entry.offset)
  if (names.size === 0) names.add(addressNames(machine, profile)[0] ?? 'G54')
  return [...names].sort((a, b) => a.localeCompare(b, 'en', { numeric: true }))
}
