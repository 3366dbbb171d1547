import type { Profile } from '../control/index.ts'
import { type Finding, type Freshness, finding } from '../fact/index.ts'
import { effectiveStrikes } from '../log/index.ts'
import type { Machine } from '../machine/index.ts'
import {
  judgeStart,
  PALLETS,
  type PalletPlan,
  START,
  type StartJudgement,
  shiftCase,
  simulateShift,
} from '../pallet/index.ts'
import { type Calibration, calibrate } from '../timing/index.ts'
import type { CodeState } from './code-facts.ts'
import type { Chain, EntryOf, Logged } from './kinds.ts'
import { freshnessWith, machineEdited, profileEdited } from './program-freshness.ts'
import { isProved, type ProveState, proofHolds } from './proof.ts'

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
    () =>
      machineEdited(entry, context, 'planned for') ??
      profileEdited(entry, context, 'planned for', { reads: true }),
  )

export function deriveRun(counting: readonly Logged[], context: Context): RunState {
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

/** A program that a pallet runs and that no proof is of, with the first pallet that runs it, from 1. */
export interface UnprovedPallet {
  pallet: number
  title: string
}

/** Programs of a pallet plan that no proof which holds is of, to the letter. */
export function unprovedOnPallets({ prove }: { prove: ProveState }, plan: PalletPlan): UnprovedPallet[] {
  return plan.pallets.flatMap(({ program }, index) =>
    isProved(prove, program.text) ? [] : [{ pallet: index + 1, title: program.title }],
  )
}

/** Programs of recorded pallets whose name stands for another text since: built anew in Code, or proved with another text. */
export function behindOnPallets({ run: { pallets }, code, prove }: RunsPallets): string[] {
  if (!pallets) return []
  const { at, plan } = pallets.entry
  return plan.pallets.flatMap(({ program: { title, text } }) => {
    const built = code.coded.some(({ entry }) => entry.sheet.title === title && entry.at > at)
    const proved = prove.proofs.some(
      ({ entry, freshness }) =>
        entry.title === title && freshness.state === 'fresh' && entry.at > at && entry.text !== text,
    )
    return built || proved ? [title] : []
  })
}

interface RunsPallets {
  run: Pick<RunState, 'pallets'>
  code: Pick<CodeState, 'coded'>
  prove: Pick<ProveState, 'proofs'>
}

/**
 * The text that recorded pallets run under a name, where the plan holds and nothing later stands under that name: what is proved, taken
 * and opened by it is that. Programs that are mended for pallets keep the name that they were built under.
 */
export function textOnPallet(of: RunsPallets, title: string): string | undefined {
  const { pallets } = of.run
  if (!pallets || pallets.freshness.state === 'stale' || pallets.entry.verdict === 'stop') return undefined
  return behindOnPallets(of).includes(title)
    ? undefined
    : pallets.entry.plan.pallets.find(({ program }) => program.title === title)?.program.text
}

/**
 * Programs that stand at the control with another text than the recorded pallets run under their name, and that are proved as they
 * run there: the pallets would run what stands at the control.
 */
export function otherAtControl(
  setup: RunsPallets & { code: CodeState; prove: ProveState },
): { pallet: number; title: string; text: string }[] {
  const plan = setup.run.pallets?.entry.plan
  return (plan?.pallets ?? []).flatMap(({ program: { title } }, index, all) => {
    const text = textOnPallet(setup, title)
    const at = setup.code.taken.get(title)
    const isFirst = all.findIndex(({ program }) => program.title === title) === index
    return isFirst &&
      text !== undefined &&
      at?.freshness.state === 'fresh' &&
      at.entry.text !== text &&
      isProved(setup.prove, text)
      ? [{ pallet: index + 1, title, text }]
      : []
  })
}

/** What a program rests on that is taken to the control as a pallet runs it: the one of Code that it was made of. */
export const palletProgramRests = ({ code }: { code: CodeState }, title: string): string[] =>
  code.coded.filter(({ entry }) => entry.sheet.title === title).map(({ entry }) => entry.id)

/** What is said on the page of pallets of a program that no proof is of. */
export const unprovedPallets = (setup: { prove: ProveState }, plan: PalletPlan): Finding[] =>
  unprovedOnPallets(setup, plan).map(({ pallet, title }) =>
    finding(
      'look',
      'not-proved',
      `pallet ${pallet}`,
      `${title || `The program of pallet ${pallet}`} is not proved as it is here.`,
      'A proof is of one text, to the letter: a changed end is another text.',
      'Record the pallets, and prove it in Prove before the start.',
    ),
  )

/** Seconds a cycle that all savings taken in one program come to, the oldest first: from the text before them to that of now. */
export const savedSoFar = (taken: readonly EntryOf<'saved'>[]) =>
  (taken[0]?.before.seconds ?? 0) - (taken.at(-1)?.after.seconds ?? 0)

/** The proofs that a plan rests on: those of just these texts that hold. One that is asked for again is proved after the plan. */
export const palletRests = ({ prove }: { prove: ProveState }, texts: readonly string[]): string[] =>
  prove.proofs.flatMap((proof) =>
    proof.entry.text !== undefined && texts.includes(proof.entry.text) && proofHolds(proof)
      ? [proof.entry.id]
      : [],
  )

/** What is planned on the page of pallets, before it is stamped. */
type PlannedPallets = Pick<
  EntryOf<'palleted'>,
  'plan' | 'rests' | 'seconds' | 'verdict' | 'profile' | 'machine'
>

const RANK = { good: 0, look: 1, stop: 2 }

/**
 * Whether recorded pallets say what is planned now: the same plan, for the same control and machine. A proof that came since takes
 * nothing from it: the plan rests on one more, and less is said of it.
 */
export function palletsStand(recorded: PlannedPallets, now: PlannedPallets): boolean {
  const said = ({ plan, seconds, profile, machine }: PlannedPallets) =>
    JSON.stringify([plan, seconds, profile, machine])
  return (
    said(recorded) === said(now) &&
    RANK[now.verdict] <= RANK[recorded.verdict] &&
    recorded.rests.every((id) => now.rests.includes(id))
  )
}

/**
 * Cycles that a shift has of a setup's programs, as far as it says so: of the pallets as they are planned, else as a program that
 * was built from cycles has it; undefined where nobody said.
 */
export function cyclesAShift({
  run,
  code,
  machine,
}: {
  run: RunState
  code: CodeState
  machine: Machine
}): number | undefined {
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
  entries: readonly Logged[],
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
