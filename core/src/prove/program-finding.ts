import { type Finding, finding, type Severity } from '../fact/index.ts'
import type { Triple } from './body.ts'
import type { TextEdit } from './edit.ts'

/** A change that mends a finding; it is shown as a difference before it is taken. */
export interface Mending {
  says: string
  edits: TextEdit[]
}

/** A finding about a program: where it stands in the text and in the motion. */
export interface ProgramFinding extends Finding {
  /** Line of the text, from 1. */
  line: number
  /** Columns of what is meant, from 0; the whole line where there are none. */
  from?: number
  to?: number
  /** Row of the motion, where it is about one. */
  row?: number
  /** Where the tip stands, where it is about a place. */
  at?: Triple
  /** The body that is hit. */
  body?: string
  mending?: Mending
  /** A code, or a program by its number, of which the profile could say what it does: 'M51', 'O9901'. */
  own?: string
  /** How often it was found beyond this one. */
  more?: number
}

/** What a finding of a program says, and where. */
export const programFinding = (
  severity: Severity,
  code: string,
  line: number,
  says: string,
  why: string,
  rest: Partial<Omit<ProgramFinding, 'severity' | 'code' | 'line' | 'says' | 'why' | 'where'>> = {},
): ProgramFinding => ({ ...finding(severity, code, `line ${line}`, says, why), line, ...rest })
