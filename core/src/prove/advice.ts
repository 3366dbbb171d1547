import type { ProgramFinding } from './program-finding.ts'

/** Overrides for the first run, in percent, and what to do with the hands. */
export interface RunAdvice {
  rapid: number
  feed: number
  says: string[]
}

/** What is advised for the first run of a program. Common practice; the shop's rules come first. */
export function adviseRun(findings: readonly ProgramFinding[], proved: boolean): RunAdvice {
  const stops = findings.filter(({ severity }) => severity === 'stop').length
  if (stops > 0)
    return {
      rapid: 0,
      feed: 0,
      says: [`Do not run it: ${stops === 1 ? 'one finding says' : `${stops} findings say`} stop.`],
    }
  const looks = findings.filter(({ severity }) => severity === 'look').length
  return {
    rapid: looks > 0 || !proved ? 5 : 25,
    feed: looks > 0 ? 50 : 100,
    says: [
      'Single block on, a hand on feed hold, the door closed.',
      'Rapid override at 5 % until each tool has come down to the part once; compare the distance to go at every stop.',
      looks > 0
        ? `${looks === 1 ? 'One finding is' : `${looks} findings are`} still to be looked at: feed at 50 % through those lines.`
        : 'Then rapid at 25 % for the first part, feed at 100 %.',
    ],
  }
}
