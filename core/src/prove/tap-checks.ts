import type { ModalState } from '../program/index.ts'
import { formatLength } from '../quantity/index.ts'
import { programFinding } from './program-finding.ts'
import { say, type Walk, wordIn } from './walk.ts'

/** Feed that does not fit speed and pitch breaks taps: 0.5 % over the depth of a thread is a quarter of a thread in fifty. Common practice. */
const LEAD_SLACK = 0.005

/** A tap whose feed does not fit it, that comes out faster than the machine taps, or that nobody announced. */
export function tapChecks(walk: Walk, row: number, state: ModalState): void {
  const { motion, facts } = walk
  const line = motion.line[row] as number
  const step = motion.inStep[motion.aux[row] as number]
  if (!step?.tap) return
  const pitch = facts.tools.get(state.tool)?.pitch
  if (pitch && step.lead > 0 && Math.abs(step.lead / pitch - 1) > LEAD_SLACK)
    say(walk, `pitch/${line}`, () => {
      const f = wordIn(walk, line, /F\s*\.?\d[\d.]*/i)
      const right = formatLength(pitch * step.rpm, facts.unit)
      // A sum of inches a minute: enough digits, no more.
      const word = `F${Number((pitch * step.rpm).toFixed(3))}`
      return programFinding(
        'stop',
        'tap-pitch',
        line,
        `The feed does not fit the tap: ${formatLength(step.lead, facts.unit)} a turn, its pitch is ${formatLength(pitch, facts.unit)}.`,
        `Feed = speed x pitch: ${Math.round(step.rpm)} x ${formatLength(pitch, facts.unit)} = ${right}. Another feed breaks the tap.`,
        {
          row,
          ...(f && state.feedMode === 94
            ? {
                from: f.from,
                to: f.to,
                mending: {
                  says: `Write ${withPoint(word)}.`,
                  edits: [{ line, from: f.from, to: f.to, insert: withPoint(word) }],
                },
              }
            : {}),
        },
      )
    })
  const tapTop = facts.machine.dynamics?.tapTop
  if (tapTop !== undefined && step.rpm * step.multiple > tapTop + 0.5)
    say(walk, `tap-fast/${line}`, () =>
      programFinding(
        'look',
        'tap-fast',
        line,
        `Tapping out at ${step.multiple} times is ${Math.round(step.rpm * step.multiple)} rpm; the most is ${tapTop}.`,
        'The control holds it to its top, or stops with an alarm.',
        { row },
      ),
    )
  if (!step.rigid)
    say(walk, `tap-floating/${line}`, () =>
      programFinding(
        'look',
        'tap-floating',
        line,
        'Tapping without rigid tapping being announced.',
        'This control needs its M code before it; without it the tap must be in a floating holder.',
        { row },
      ),
    )
}

const withPoint = (word: string) => (word.includes('.') ? word : `${word}.`)
