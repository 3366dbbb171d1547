import type { Entry } from '../setup/index.ts'
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
