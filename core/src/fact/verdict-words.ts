import type { Verdict } from './finding.ts'

/** A verdict in the words of the logbook. */
export const VERDICT_WORDS: Record<Verdict, string> = {
  good: 'good',
  look: 'something to look at',
  stop: 'it says stop',
}
