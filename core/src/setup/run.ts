import type { Profile } from '../control/index.ts'
import { type Finding, type Freshness, finding } from '../fact/index.ts'
import type { Machine } from '../machine/index.ts'
import {
  judgeStart,
  type PalletPlan,
  type StartJudgement,
  shiftCase,
  simulateShift,
} from '../pallet/index.ts'
import { type Calibration, calibrate } from '../timing/index.ts'
import type { Chain } from './chain.ts'
import type { CodeState } from './code-facts.ts'
import type { Entry, EntryOf } from './entries.ts'
import { type GaugeState, nextRun as nextGauge } from './gauging.ts'
import { freshnessWith, machineEdited, profileEdited } from './program-freshness.ts'
import type { ProveState } from './proof.ts'
import { type StepState, together } from './steps.ts'
import { effectiveStrikes } from './strikes.ts'
import { PALLETS, START } from './subjects.ts'

/** The pallets as they were planned. */
export interface PalletFact {
  entry: EntryOf<'palleted'>
  freshness: Freshness
}

/** What was answered before cycle start, against the plan that it rests on. */
export interface StartFact {
  entry: EntryOf<'start-checked'>
  freshness: Freshness
  judgement: StartJudgement
}

export interface RunState {
  pallets?: PalletFact
  start?: StartFact
  /** Cycles that were timed in this setup, and savings that were taken, the oldest first. */
  timed: EntryOf<'timed'>[]
  saved: EntryOf<'saved'>[]
}

interface Context {
  chain: Chain
  machine: Machine
  profile: Profile
}

const palletFreshness = (entry: EntryOf<'palleted'>, context: Context): Freshness =>
  freshnessWith(
    entry,
    context,
    () => machineEdited(entry, context, 'planned for') ?? profileEdited(entry, context, 'planned for'),
  )

export function deriveRun(counting: readonly Entry[], context: Context): RunState {
  const { chain } = context
  const planned = chain.standing.get(PALLETS)?.entry
  const answered = chain.standing.get(START)?.entry
  const pallets =
    planned?.kind === 'palleted'
      ? { entry: planned, freshness: palletFreshness(planned, context) }
      : undefined
  return {
    timed: counting.filter((entry) => entry.kind === 'timed'),
    saved: counting.filter((entry) => entry.kind === 'saved'),
    ...(pallets ? { pallets } : {}),
    ...(pallets && answered?.kind === 'start-checked'
      ? {
          start: {
            entry: answered,
            // Where the plan is stale, what was answered is too.
            freshness:
              pallets.freshness.state === 'stale' ? pallets.freshness : chain.freshnessOf(answered.id),
            judgement: judgeStart(pallets.entry.plan, answered),
          },
        }
      : {}),
  }
}

/** What of a setup the step is about. */
interface RunOf {
  gauge: GaugeState
  run: RunState
}

/** Where the pallets stand: their plan and what was answered before cycle start; undefined where nothing was planned. */
export function palletsState({ pallets, start }: RunState): StepState | undefined {
  if (!pallets) return undefined
  if (pallets.freshness.state === 'stale' || start?.freshness.state === 'stale') return 'stale'
  return pallets.entry.verdict !== 'stop' && start?.judgement.happens === 'runs' ? 'done' : 'open'
}

const states = ({ gauge, run }: RunOf): StepState[] => {
  const pallets = palletsState(run)
  return [...(gauge.plans.length > 0 ? [gauge.state] : []), ...(pallets ? [pallets] : [])]
}

/** Whether anything of the Run step was begun. */
export const runBegun = (setup: RunOf) => states(setup).length > 0

/** The Run step: what was begun of pallets and gauging. */
export function runState(setup: RunOf): StepState {
  const all = states(setup)
  return all.length === 0 ? 'open' : together(all)
}

export type RunPlace = 'pallets' | 'gauge' | 'chart'

/** What to do next in the Run step, where, and why. */
export function nextRun(setup: RunOf & { machine: Machine }): {
  place: RunPlace
  says: string
  why: string
} {
  const { gauge, machine, run } = setup
  const { pallets, start } = run
  if (pallets?.freshness.state === 'stale')
    return {
      place: 'pallets',
      says: 'Look at the pallets and record them again.',
      why: `They were ${pallets.freshness.cause.says}.`,
    }
  if (pallets?.entry.verdict === 'stop')
    return { place: 'pallets', says: 'Mend the programs of the pallets.', why: pallets.entry.worst[0] ?? '' }
  if (pallets && start?.judgement.happens !== 'runs')
    return {
      place: 'pallets',
      says: 'Before cycle start: say which pallet is inside, and which program is loaded.',
      why: start ? start.judgement.says : 'The wrong program on a pallet is a crash.',
    }
  if (start?.freshness.state === 'stale')
    return {
      place: 'pallets',
      says: 'Before cycle start: look at the pallet and the program again.',
      why: `It was ${start.freshness.cause.says}.`,
    }
  if (!pallets && machine.pallets)
    return {
      place: 'pallets',
      says: 'Say what runs on each pallet.',
      why: 'The programs are read for how they call each other, and the start is checked against it.',
    }
  const stale = gauge.plans.some(({ freshness }) => freshness.state === 'stale')
  return { place: stale || gauge.plans.length === 0 ? 'gauge' : 'chart', ...nextGauge(setup) }
}

/** Programs of a pallet plan that no fresh proof is of, to the letter. */
export function unprovedPallets({ prove }: { prove: ProveState }, plan: PalletPlan): Finding[] {
  const isProved = (text: string) =>
    prove.proofs.some(({ entry, freshness }) => entry.text === text && freshness.state === 'fresh')
  return plan.pallets.flatMap(({ program }, index) =>
    isProved(program.text)
      ? []
      : [
          finding(
            'look',
            'not-proved',
            `pallet ${index + 1}`,
            `${program.title || `The program of pallet ${index + 1}`} is not proved as it is here.`,
            'A proof is of one text, to the letter: a changed end is another text.',
            'Prove it again in Prove, and record the pallets after it.',
          ),
        ],
  )
}

/** Seconds a cycle that all savings taken in one program come to, the oldest first: from the text before them to that of now. */
export const savedSoFar = (taken: readonly EntryOf<'saved'>[]) =>
  (taken[0]?.before.seconds ?? 0) - (taken.at(-1)?.after.seconds ?? 0)

/** The proofs of this setup that a pallet plan rests on: of just these texts. */
export const palletRests = ({ prove }: { prove: ProveState }, texts: readonly string[]): string[] =>
  prove.proofs.flatMap(({ entry }) =>
    entry.text !== undefined && texts.includes(entry.text) ? [entry.id] : [],
  )

/**
 * Cycles that a shift has of a setup's programs, as far as it says so: of the pallets as they are planned, else as a program that
 * was built from cycles has it; undefined where nobody said.
 */
export function cyclesAShift({
  run,
  code,
  machine,
}: RunOf & { code: CodeState; machine: Machine }): number | undefined {
  const planned = run.pallets?.entry
  if (planned) {
    const { cuts } = simulateShift(shiftCase(planned.plan, planned.seconds, machine.pallets?.swap ?? 0))
    return Math.max(...cuts)
  }
  return (
    code.coded.find(({ entry }) => entry.sheet.partsAShift !== null)?.entry.sheet.partsAShift ?? undefined
  )
}

/** What the cycles timed on a machine, in all its setups, say of it; only those of the machine and profile as they are now count. */
export function machineCalibration(
  entries: readonly Entry[],
  { machine, profile }: { machine: Machine; profile: Profile },
): { calibration: Calibration; counted: EntryOf<'timed'>[]; outdated: number } {
  const struck = effectiveStrikes(entries)
  const all = entries.filter(
    (entry): entry is EntryOf<'timed'> => entry.kind === 'timed' && !struck.has(entry.id),
  )
  const counted = all.filter(
    ({ machine: on, profile: by }) =>
      on.id === machine.id &&
      on.version === machine.version &&
      by.id === profile.id &&
      by.version === profile.version,
  )
  return { calibration: calibrate(counted), counted, outdated: all.length - counted.length }
}
