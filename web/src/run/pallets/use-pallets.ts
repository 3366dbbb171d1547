import { ownNumber } from '@dogleg/core/control'
import { KEPT_FINDINGS, verdictOf, worstFirst } from '@dogleg/core/fact'
import {
  draftOfPallets,
  newPalletPlan,
  type PalletPlanDraft,
  palletPlanDraft,
  programNumberOf,
  readPalletPlan,
} from '@dogleg/core/pallet'
import { freeNumber, programsOf } from '@dogleg/core/prepare'
import { behindOnPallets, palletRests, palletsStand, unprovedPallets } from '@dogleg/core/setup'
import type { InHand } from '@dogleg/core/traveler'
import { useMemo } from 'react'
import { useKept } from '../../log/kept.ts'
import { useOpenSetup } from '../../log/open-setup.ts'
import { record } from '../../log/record.ts'
import { useNumbersAt } from '../../program/use-numbers-at.ts'
import { type Asked, useAsked } from '../use-asked.ts'
import { useSame } from '../use-same.ts'
import type { PalletAnswer, PalletQuestion, PalletReader } from './pallet-worker.ts'

/** The plan of the pallets as it stands on this tablet, its programs read, and what the log has of it. */
export function usePallets() {
  const { setup } = useOpenSetup()
  const { machine, profile, unit, run } = setup
  const recorded = run.pallets?.entry
  const known = useNumbersAt()
  const [draft, change] = useKept<PalletPlanDraft>(`${setup.id}.pallets`, palletPlanDraft, () =>
    recorded ? draftOfPallets(recorded.plan) : newPalletPlan(machine.pallets?.count ?? 2),
  )
  const { plan, problems } = useMemo(() => readPalletPlan(draft, unit), [draft, unit])
  const programs = useMemo(() => programsOf(setup), [setup])
  const question = useMemo<PalletQuestion | undefined>(() => {
    if (!plan) return undefined
    const own = recorded?.plan.main?.number
    const taken = plan.pallets.map(({ program }) => programNumberOf(program.text) ?? 0)
    const others = known.filter(({ number }) => number !== own)
    const number = freeNumber(ownNumber(profile, 'pallets'), others, taken)
    return {
      plan,
      control: { profile, machine, unit },
      number,
      about: [`Setup: ${setup.opened.title}, log ${setup.id.slice(-6)}.`],
    }
  }, [plan, profile, machine, unit, setup.opened.title, setup.id, recorded, known])
  const asked: Asked<PalletAnswer> = useAsked<PalletQuestion, PalletReader, PalletAnswer>(
    // The log is asked again and again: only what changes the plan reads it again.
    useSame(question),
    () => new Worker(new URL('./pallet-worker.ts', import.meta.url), { type: 'module' }),
    (worker, of) => worker.read(of),
  )
  const read = asked.answer?.reading
  const { prove } = setup
  const reading = useMemo(
    () =>
      read && plan
        ? {
            ...read,
            // Programs that are to be mended are other ones then: those are proved.
            findings: read.findings.some(({ severity }) => severity === 'stop')
              ? read.findings
              : worstFirst([...read.findings, ...unprovedPallets({ prove }, plan)]),
          }
        : undefined,
    [read, plan, prove],
  )
  const entry =
    plan && reading
      ? {
          kind: 'palleted' as const,
          plan,
          rests: palletRests(setup, [
            ...plan.pallets.map(({ program }) => program.text),
            ...(plan.main ? [plan.main.text] : []),
          ]),
          seconds: reading.seconds,
          verdict: verdictOf(reading.findings),
          worst: reading.findings.slice(0, KEPT_FINDINGS).map(({ says }) => says.slice(0, 300)),
          profile: { id: profile.id, version: profile.version },
          machine: { id: machine.id, version: machine.version },
        }
      : undefined
  const stands = recorded !== undefined && entry !== undefined && palletsStand(recorded, entry)
  const verdict = entry?.verdict
  const worst = entry?.worst[0]
  const inHand = useMemo<InHand | undefined>(
    () => (verdict ? { pallets: { verdict, recorded: stands, worst } } : undefined),
    [verdict, stands, worst],
  )
  return {
    /** What stands on the page, for what it says next. */
    inHand,
    draft,
    change,
    plan,
    problems,
    programs,
    asked,
    reading,
    /** It can be recorded: it is read to the end, and says something else than the log, or what the log says is to be looked at again. */
    recordable:
      entry !== undefined &&
      (!stands || run.pallets?.freshness.state === 'stale' || behindOnPallets(setup).length > 0),
    stands,
    record: () => (entry ? record(setup.id, entry) : undefined),
  }
}
export type Pallets = ReturnType<typeof usePallets>
