import type { Setup } from '../setup/index.ts'

/** A program of a setup whose text is in its log: the newest of its name. */
export interface KeptProgram {
  title: string
  text: string
  /** When it came into the log (ISO 8601). */
  at: string
  /** The offset that it was proved in, where it was. */
  frame?: string
}

/** Every program of a setup whose text the log has, each name once with its newest text: proved, saved in, taken to the control, on a pallet. */
export function programsOf({ log }: Pick<Setup, 'log'>): KeptProgram[] {
  const found = new Map<string, KeptProgram>()
  const put = (title: string | undefined, text: string | undefined, at: string, frame?: string) => {
    if (title === undefined || title === '' || text === undefined || text === '') return
    const before = found.get(title)
    const own = frame ?? before?.frame
    found.set(title, { title, text, at, ...(own ? { frame: own } : {}) })
  }
  for (const { entry, standing } of log) {
    if (standing === 'struck') continue
    if (entry.kind === 'proved') put(entry.title, entry.text, entry.at, entry.frame)
    else if (entry.kind === 'saved') put(entry.title, entry.text, entry.at)
    else if (entry.kind === 'program') put(entry.title, entry.text, entry.at, entry.offset)
    else if (entry.kind === 'palleted') {
      for (const { program } of entry.plan.pallets) put(program.title, program.text, entry.at)
      const { main } = entry.plan
      if (main) put(`O${main.number} main`, main.text, entry.at)
    }
  }
  return [...found.values()].sort((a, b) => a.title.localeCompare(b.title, 'en', { numeric: true }))
}
