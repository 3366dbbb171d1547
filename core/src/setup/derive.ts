import { COUNTS_SERIALS } from '../code/index.ts'
import type { Profile } from '../control/index.ts'
import type { Freshness } from '../fact/index.ts'
import {
  buildChain,
  effectiveStrikes,
  isUnread,
  orderOf,
  standingOf,
  type UnreadEntry,
} from '../log/index.ts'
import type { Machine } from '../machine/index.ts'
import { type Identified, identify, PART } from '../pickup/index.ts'
import { convertLength, type LengthUnit } from '../quantity/index.ts'
import { type CodeState, deriveCode } from './code-facts.ts'
import { deriveGauging, type GaugeState } from './gauging.ts'
import { deriveHold, type HoldState } from './hold.ts'
import { type Entry, type EntryOf, type FactEntry, kinds, type Logged, readEntry } from './kinds.ts'
import type { LogLine, Unreadable } from './log-lines.ts'
import { type OffsetContext, type OffsetState, offsetState, offsetsInUse } from './offsets.ts'
import { deriveProve, type ProveState } from './proof.ts'
import { putAwayBy } from './put-away.ts'
import type { Reference } from './reference.ts'
import { type CentreFact, centreFact } from './rotary.ts'
import { deriveRun, type RunState } from './run.ts'
import { type ShiftFact, shiftFact } from './work-shift.ts'

/** Whether it is the right part, the right way round. */
export interface PartFact extends Identified {
  entry: EntryOf<'identified'>
  freshness: Freshness
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
  /** By which it is put away; left out where it is not. */
  away?: EntryOf<'put-away'>
  log: LogLine[]
  /** What of its log cannot be read here, and was not struck out: facts that it may have been about are stale. */
  unread: UnreadEntry[]
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

  const { unit } = opened
  const tolerance = convertLength(opened.tolerance.value, opened.tolerance.unit, unit)
  const context: OffsetContext = { chain, machine, profile, unit, tolerance }
  const hold = deriveHold({ chain, machine, profile, unit, library: reference })
  const centre = centreFact(context)
  const shift = shiftFact(context)
  const offsets = offsetsInUse(chain, machine, profile).map((name) =>
    offsetState(name, context, { hold, centre }),
  )
  const part = chain.standing.get(PART)?.entry
  const away = putAwayBy(held, order.surelyBefore)
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
    ...(away ? { away } : {}),
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
