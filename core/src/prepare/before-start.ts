import { type Profile, programName } from '../control/index.ts'
import type { Machine } from '../machine/index.ts'
import { programNumberOf } from '../pallet/index.ts'
import { FLAG, type Motion, ROW, read } from '../program/index.ts'
import type { LengthUnit } from '../quantity/index.ts'

/** What stands between a program that was taken to the control and cycle start. */
export interface BeforeStart {
  /** In order: what this control wants done so that the program in hand runs, and not the one before it. */
  steps: string[]
  /** The first that moves when it runs, and what to do where something else does. */
  tells: string[]
}

/** More than this is not read for its first move. */
const MOST_READ = 20_000

/** Whether the first move of a program is the spindle, or the turret, away to the top before anything moves sideways. */
function firstMove({ kind, count, flags, x, y, start }: Motion, lathe: boolean): string | undefined {
  for (let row = 0; row < count; row++) {
    if (kind[row] === ROW.EVENT) continue
    if ((flags[row] as number) & FLAG.TO_MACHINE && (lathe || (x[row] === start[0] && y[row] === start[1])))
      return lathe
        ? 'First the turret goes home.'
        : 'First the spindle goes up; nothing moves sideways before.'
    return undefined
  }
  return undefined
}

/** The steps before cycle start at the control of a profile, and how the wrong program shows at its first move. */
export function beforeStart(
  text: string,
  { profile, machine, unit }: { profile: Profile; machine: Machine; unit: LengthUnit },
): BeforeStart {
  const number = programNumberOf(text)
  const named = number === undefined ? 'this program' : programName(number, profile)
  const steps = profile.program.before
    .split('\n')
    .map((line) => line.trim().replaceAll('{program}', named))
    .filter((line) => line !== '')
  const { motion } = read(text.slice(0, MOST_READ), { profile, machine, unit })
  const first = firstMove(motion, machine.kind === 'lathe')
  return {
    steps: [...steps, `Look once more: ${named} stands in the display, at its top.`],
    tells: first ? [`${first} If anything else moves first, press feed hold: another program runs.`] : [],
  }
}
