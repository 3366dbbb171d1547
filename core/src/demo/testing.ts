import { deriveSetup, type Entry, type EntryOf, isUnreadable, palletRests } from '../setup/index.ts'
import { bracketAlone } from './pallets.ts'
import { demoReference } from './reference.ts'
import { demoEntries } from './setups.ts'

/** The logs of the demo as its history is computed back from a moment, without chance: by part of a title, and all of them. */
export function demoLogs(now: number) {
  const entries = demoEntries(now, () => 0.5)
  const logs = new Map<string, Entry[]>()
  for (const entry of entries) logs.set(entry.setup, [...(logs.get(entry.setup) ?? []), entry])
  const titled = (title: string): Entry[] => {
    const opened = entries.find((each) => each.kind === 'opened' && each.title.includes(title))
    if (!opened) throw new Error(`the demo has no setup ${title}`)
    return logs.get(opened.setup) ?? []
  }
  return { entries, logs, titled }
}

/** A log with its pallets as they may run: each program as it was proved, by itself, and nothing wrong with the plan. */
export function withGoodPallets(log: readonly Entry[]): { log: Entry[]; good: EntryOf<'palleted'> } {
  const planned = log.find((each): each is EntryOf<'palleted'> => each.kind === 'palleted')
  if (!planned) throw new Error('the log has no pallets')
  const pallets = planned.plan.pallets.map((pallet) => ({
    ...pallet,
    program: { ...pallet.program, text: bracketAlone(pallet.program.text) },
  }))
  const before = log.slice(0, log.indexOf(planned))
  const setup = deriveSetup(before, demoReference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  const rests = palletRests(
    setup,
    pallets.map(({ program }) => program.text),
  )
  const good = { ...planned, plan: { ...planned.plan, pallets }, rests, verdict: 'good' as const, worst: [] }
  return { log: log.map((each) => (each === planned ? good : each)), good }
}
