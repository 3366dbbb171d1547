import type { ProbeShape } from '../machine/index.ts'
import { type Motion, type ProbeCallRun, type Program, ROW } from '../program/index.ts'
import { formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { type ProgramFinding, programFinding } from './program-finding.ts'

/** What probing in a program is held against. Lengths in `unit`. */
export interface ProbingFacts {
  unit: LengthUnit
  /** The machine's probe, where it has one. */
  shape: ProbeShape | undefined
  /** The code that holds the look-ahead back, where the control has one. */
  lookAhead: string | null
  /** The variables of the results by their number, for words. */
  nameOf: (variable: number) => string
}

const measures = ({ macro }: ProbeCallRun) => macro !== 'on' && macro !== 'off' && macro !== 'protectedMove'

/** The first row that moves, from `row` on in steps of `by`. */
function moveAt({ kind, count }: Motion, row: number, by: 1 | -1): number | undefined {
  for (let at = row; at >= 0 && at < count; at += by) if (kind[at] !== ROW.EVENT) return at
  return undefined
}

/** A move with the probe out that nothing protects, before or after a call that measures. */
function unprotected(motion: Motion, call: ProbeCallRun): ProgramFinding[] {
  const say = (code: string, row: number | undefined, says: string, why: string): ProgramFinding[] =>
    row === undefined || motion.kind[row] === ROW.PROBE
      ? []
      : [
          programFinding('stop', code, motion.line[row] as number, says, why, {
            row,
            fix: 'Call the protected move instead: it stops on contact.',
          }),
        ]
  return [
    ...say(
      'unprotected-before',
      moveAt(motion, call.rows[0] - 1, -1),
      'The probe comes to the feature by a move that is not protected.',
      'Whatever it meets on the way breaks the stylus: an ordinary move does not stop on contact.',
    ),
    ...say(
      'unprotected-after',
      moveAt(motion, call.rows[1], 1),
      'The probe leaves the feature by a move that is not protected.',
      'It is still down in the part: an ordinary move does not stop on contact.',
    ),
  ]
}

function ofCall(call: ProbeCallRun, { shape, unit }: ProbingFacts): ProgramFinding[] {
  const found: ProgramFinding[] = []
  const say = (code: string, says: string, why: string, fix: string) =>
    found.push(programFinding('stop', code, call.line, says, why, { row: call.rows[0], fix }))
  if (call.turning !== 0)
    say(
      'probe-turns',
      'The spindle turns with the probe in it.',
      'A probe that turns measures nothing, and may lose its stylus.',
      'Stop it with M5 before the probe is changed in.',
    )
  if (shape && call.tool !== shape.tool)
    say(
      'wrong-probe-tool',
      `T${call.tool} is in the spindle, and the probe is T${shape.tool}.`,
      'The macro feeds the tool into the part until something gives a signal.',
      `Change T${shape.tool} in before it.`,
    )
  if (!call.on && call.macro !== 'off' && call.macro !== 'on')
    say(
      'probe-off',
      measures(call)
        ? 'The probe measures before it is switched on.'
        : 'A protected move before the probe is on.',
      'A probe that is off gives no signal: nothing stops it.',
      'Call the macro that switches it on first.',
    )
  if (shape && call.over !== undefined && call.over > shape.overtravel)
    say(
      'probe-search',
      `It searches ${formatWithUnit(call.over, unit)} past where the surface is expected.`,
      `The stylus may be deflected ${formatWithUnit(shape.overtravel, unit)} at most; where the tip misses, the body meets the part.`,
      `Write Q${shape.overtravel / 2} or so on the call.`,
    )
  return found
}

/** Results that are read too early, or that belong to another call. */
function ofReads(
  { probing: { calls, reads } }: Program,
  { lookAhead, nameOf }: ProbingFacts,
): ProgramFinding[] {
  const found: ProgramFinding[] = []
  const said = new Set<string>()
  for (const { line, variable, held, call } of reads) {
    const once = (code: string, finding: () => ProgramFinding) => {
      if (said.has(`${code}/${line}`)) return
      said.add(`${code}/${line}`)
      found.push(finding())
    }
    if (lookAhead !== null && !held)
      once('read-early', () =>
        programFinding(
          'stop',
          'read-early',
          line,
          `#${variable} is read while the look-ahead runs on.`,
          'The control works statements out before the moves above them are done: it reads the result of the part before.',
          {
            fix: `Write ${lookAhead} P1 before the call that measures, and ${lookAhead} after the results are read.`,
          },
        ),
      )
    const of = call < 0 ? undefined : calls[call]
    if (!of?.results.includes(variable))
      once('result-of-another', () =>
        programFinding(
          'stop',
          'result-of-another',
          line,
          of
            ? `#${variable}, ${nameOf(variable)}, is not a result of the call in line ${of.line}.`
            : `#${variable} is read before anything was measured.`,
          'It still holds what an earlier call left in it.',
          {
            fix: of
              ? `The call leaves ${of.results.map((each) => `#${each}`).join(', ')}.`
              : 'Measure first.',
          },
        ),
      )
  }
  return found
}

/**
 * What is wrong with the probing in a program: moves that nothing protects, a spindle that turns, the wrong tool, a search
 * longer than the stylus stands, results that are read too early or belong to another call. Common practice.
 */
export function probeFindings(program: Program, facts: ProbingFacts): ProgramFinding[] {
  const { calls } = program.probing
  return [
    ...calls.flatMap((call) => ofCall(call, facts)),
    ...calls
      .filter((call) => measures(call) && call.rows[1] > call.rows[0])
      .flatMap((call) => unprotected(program.motion, call)),
    ...ofReads(program, facts),
  ]
}
