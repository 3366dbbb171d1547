/** 'stop': the code would be wrong or something would be hit; nothing is written. 'look': look again. 'note': good to know. */
export type Severity = 'stop' | 'look' | 'note'

/** What a check says to the operator. Exceptions are for bugs. */
export interface Finding {
  severity: Severity
  /** A stable name for tests and lists: 'outside-travel'. */
  code: string
  /** The field, axis or line that it is about. */
  where: string
  says: string
  why: string
  fix?: string
}

/** A finding from its parts, in the order in which they are read. */
export const finding = (
  severity: Severity,
  code: string,
  where: string,
  says: string,
  why: string,
  fix?: string,
): Finding => ({ severity, code, where, says, why, ...(fix === undefined ? {} : { fix }) })

export type Verdict = 'stop' | 'look' | 'good'

export function verdictOf(findings: readonly Finding[]): Verdict {
  if (findings.some((finding) => finding.severity === 'stop')) return 'stop'
  return findings.some((finding) => finding.severity === 'look') ? 'look' : 'good'
}

const ORDER: Record<Severity, number> = { stop: 0, look: 1, note: 2 }

/** The worst first; equals stay in the order given. */
export const worstFirst = (findings: readonly Finding[]) =>
  [...findings].sort((a, b) => ORDER[a.severity] - ORDER[b.severity])

/** The worst of a judgement's findings are kept with an entry; the rest can be found again from the text that it is about. */
export const KEPT_FINDINGS = 20
