import { draftOfPlan, readPlan } from '@dogleg/core/gauge'
import { againstNumber, gaugeProgram, gaugeProveCase, gaugeRests } from '@dogleg/core/prepare'
import { type OffsetState, offsetTable } from '@dogleg/core/setup'
import { useDeferredValue, useMemo, useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { type NewEntry, restates } from '../log/record.ts'
import { useNumbersAt } from '../program/use-numbers-at.ts'
import type { GaugeQuestion } from './gauge-worker.ts'
import { useGaugeProof } from './use-gauge-proof.ts'
import { usePlans } from './use-plans.ts'

/** The plan in hand: its form, its program, what that was shown to do, and how it stands in the log. */
export function useGauging(offset: OffsetState) {
  const { setup, reference, machineEntries, lengths } = useOpenSetup()
  const { unit, machine, profile } = setup
  const known = useNumbersAt()
  const kept = usePlans(setup, known)
  const draft = useDeferredValue(kept.plan)
  const read = useMemo(() => readPlan(draft, unit), [draft, unit])
  const { plan } = read
  const program = useMemo(() => {
    if (!plan) return { findings: [] }
    const { number, title } = plan.head
    const made = gaugeProgram(setup, plan, offset, reference)
    return { ...made, findings: [...made.findings, ...againstNumber(number, title, known, machine.name)] }
  }, [plan, setup, offset, reference, known, machine.name])
  const { written, where } = program
  // What was changed by hand stands in the place of what was written, until the plan changes.
  const [edited, setEdited] = useState<{ of: string; text: string }>()
  const text = written && edited?.of === written.text ? edited.text : written?.text

  const table = useMemo(
    () => offsetTable(setup, machineEntries, reference),
    [setup, machineEntries, reference],
  )
  const question = useMemo<GaugeQuestion | undefined>(() => {
    const { probing, macros } = profile
    if (
      !plan ||
      !written ||
      !where ||
      text === undefined ||
      !probing ||
      !macros ||
      plan.features.length === 0
    )
      return undefined
    return {
      plan,
      written: { arranged: written.arranged, variables: written.variables },
      where,
      of: gaugeProveCase(setup, text, offset.name, table, lengths, reference),
      probing,
      macros,
    }
  }, [plan, written, where, text, profile, setup, offset.name, table, lengths, reference])
  const trial = useGaugeProof(question)

  const title = kept.plan.head.title.trim()
  const twin = kept.plans.some((each, index) => index !== kept.at && each.head.title.trim() === title)
  const whole = read.complete && plan !== undefined && plan.features.length > 0
  const stops = program.findings.some(({ severity }) => severity === 'stop')
  const entry = useMemo<NewEntry | undefined>(
    () =>
      whole && plan && !stops && !twin
        ? {
            kind: 'gauging',
            offset: offset.name,
            plan,
            rests: gaugeRests(setup, offset, plan),
            profile: { id: profile.id, version: profile.version },
            machine: { id: machine.id, version: machine.version },
          }
        : undefined,
    [whole, plan, stops, twin, offset, setup, profile, machine],
  )
  const fact = setup.gauge.plans.find(({ entry: of }) => of.plan.head.title === title)
  const same = fact !== undefined && entry !== undefined && restates(fact.entry, entry)
  const elsewhere = setup.gauge.plans
    .filter(({ entry: of }) => !kept.plans.some((each) => each.head.title.trim() === of.plan.head.title))
    .map(({ entry: of }) => draftOfPlan(of.plan))
  return {
    ...kept,
    read,
    program,
    text,
    edited: written !== undefined && text !== written.text,
    edit: (next: string) => written && setEdited({ of: written.text, text: next }),
    asWritten: () => setEdited(undefined),
    trial,
    title,
    twin,
    whole,
    entry,
    fact,
    same,
    elsewhere,
  }
}
export type Gauging = ReturnType<typeof useGauging>
