import { howStale, type StaleCause, type Verdict } from '../fact/index.ts'
import type { ReadyState, Reference, StepState, ToolFact } from '../setup/index.ts'
import type { Task } from './board-schema.ts'

/** What a person has typed and not recorded: the page that holds it says so. */
export interface InHand {
  /** The program that is built from cycles. */
  code?: {
    title: string
    /** Cycles that are switched on, and those of them that lack something. */
    on: number
    incomplete: number
    /** Of the program as it stands. */
    verdict: Verdict
    /** The log has it just so. */
    recorded: boolean
  }
  /** The program that is open in Prove. */
  proof?: {
    title: string
    /** The worst that says stop, with its line. */
    stop?: { line: number; says: string }
    /** The log has a proof of just this text. */
    recorded: boolean
    /** Why that proof does not hold, though its log does not say so. */
    against?: string | undefined
  }
  /** What is placed in the work area. */
  area?: { bodies: number; recorded: boolean }
  /** The pallets as they are planned on the page. */
  pallets?: { verdict: Verdict; recorded: boolean; worst?: string | undefined }
}

/** What the tasks of a setup are told from, beside its own log. */
export interface Around {
  ready: ReadyState
  /** Of the machine, from the logs of all its setups, in any unit. */
  lengths: readonly ToolFact[]
  reference: Pick<Reference, 'tools'>
  inHand?: InHand
}

/** Stale if anything of it is; done if it was begun and nothing is left of it; else open. */
export const stateOfTasks = (tasks: readonly Task[], begun: boolean): StepState =>
  tasks.some(({ stale }) => stale) ? 'stale' : tasks.length === 0 && begun ? 'done' : 'open'

/** What is said where nothing is next. */
export const NOTHING_LEFT = {
  says: 'All of it is done, and handed over.',
  why: 'Until something changes.',
}

/** Why something is to be done again, from what made it stale. */
export const staleWhy = (cause: StaleCause) => `It ${howStale(cause)}.`
