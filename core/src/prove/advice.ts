import type { ProgramFinding } from './program-finding.ts'

/** Overrides for the first run, in percent, and what to do with the hands. */
export interface RunAdvice {
  rapid: number
  feed: number
  says: string[]
}

/**
 * What is advised for the first run of a program, one number at a time: 5 % rapid until the last tool has come down to the part
 * once, 25 % for the rest of the first part. Common practice; the shop's rules come first.
 * @param allDown whether every tool has come down once
 */
export function adviseRun(
  findings: readonly ProgramFinding[],
  { proved, allDown }: { proved: boolean; allDown: boolean },
): RunAdvice {
  const stops = findings.filter(({ severity }) => severity === 'stop').length
  if (stops > 0)
    return {
      rapid: 0,
      feed: 0,
      says: [`Do not run it: ${stops === 1 ? 'one finding says' : `${stops} findings say`} stop.`],
    }
  const looks = findings.filter(({ severity }) => severity === 'look').length
  const slow = looks > 0 || !proved || !allDown
  return {
    rapid: slow ? 5 : 25,
    feed: looks > 0 ? 50 : 100,
    says: [
      'Single block on, a hand on feed hold, the door closed.',
      allDown
        ? 'Every tool has come down once.'
        : 'Until the last tool has come down to the part once; compare the distance to go at every stop.',
      ...(looks > 0
        ? [
            `${looks === 1 ? 'One finding is' : `${looks} findings are`} still to be looked at: stay at it through those lines.`,
          ]
        : []),
      ...(looks === 0 && !proved ? ['Tick the proof before you go faster.'] : []),
    ],
  }
}
