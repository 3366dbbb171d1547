import type { Severity } from '../fact/index.ts'

/** An edit of the text that mends what a diagnostic is about. */
export interface Mend {
  says: string
  /** Line from 1; columns from 0 within it. An insertion has `from` = `to`. */
  line: number
  from: number
  to: number
  insert: string
}

/** What is wrong with a place of a program. */
export interface Diagnostic {
  code: string
  severity: Severity
  /** Line of the text, from 1; columns from 0, up to after the last character that is meant. */
  line: number
  from: number
  to: number
  says: string
  /** What the control would do. */
  does?: string
  mend?: Mend
  /** A code, or a program by its number, of which the profile could say what it does: 'M51', 'O9901'. */
  own?: string
  /** How often it was found; the first place is the one named. */
  times: number
}

/** Diagnostics beyond these are counted, not kept. */
export const MOST_DIAGNOSTICS = 500

/** Collects diagnostics: each code and place once, each unknown code once. */
export class Diagnoser {
  readonly all: Diagnostic[] = []
  /** How many more there were than are kept. */
  further = 0
  private readonly known = new Map<string, Diagnostic>()

  /** `once` is what must differ for it to be said again: the line, unless said otherwise. */
  add(of: Omit<Diagnostic, 'times'>, once: string | number = of.line): void {
    const key = `${of.code}/${once}`
    const before = this.known.get(key)
    if (before) {
      before.times++
      return
    }
    if (this.all.length >= MOST_DIAGNOSTICS) {
      this.further++
      return
    }
    const diagnostic = { ...of, times: 1 }
    this.known.set(key, diagnostic)
    this.all.push(diagnostic)
  }
}
