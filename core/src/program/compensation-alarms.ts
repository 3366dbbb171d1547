import type { Piece } from '../geometry/index.ts'
import { FLAG, type ModalState, type Motion, ROW } from './motion.ts'
import { sixDigits } from './six-digits.ts'

/** What an alarm of compensation says, and what the control then does where that is not plain. */
export interface Alarm {
  code: string
  says: string
  does?: string
}

/** What it is called on the machine: a mill leads the cutter beside the path, a lathe the nose of the insert. */
export const compensationOf = ({ plane, tip }: Pick<ModalState, 'plane' | 'tip'>) =>
  tip && plane === 18 ? 'Nose compensation' : 'Cutter compensation'

/** Rows that no control leads beside a path. */
const NOT_BESIDE = FLAG.ROTARY | FLAG.MAPPED
const APART: ReadonlySet<number> = new Set([ROW.IN_STEP, ROW.TAP_OUT, ROW.PROBE])

/** Why no tool is led beside a row while compensation is on in a plane; undefined where it is. Common practice. */
export function alarmWhileOn(
  motion: Motion,
  row: number,
  state: ModalState,
  plane: 17 | 18 | 19,
): Alarm | undefined {
  const kind = motion.kind[row] as number
  if (kind === ROW.EVENT) {
    const event = motion.events[motion.aux[row] as number]
    return event?.does === 'tool'
      ? { code: 'compensation-tool', says: `${compensationOf(state)} is on while the tool is changed.` }
      : undefined
  }
  if (state.plane !== plane)
    return {
      code: 'compensation-plane',
      says: `${compensationOf(state)} is on in G${plane}, and this is G${state.plane}.`,
    }
  if (state.rotation !== null && plane !== 17)
    return {
      code: 'compensation-turned',
      says: `${compensationOf(state)} in G${plane} while the program is turned about X Y.`,
      does: 'How the two go together is not the same on every control; it is not shown, so the program is not proved.',
    }
  const flags = motion.flags[row] as number
  if ((flags & FLAG.TO_MACHINE) !== 0)
    return {
      code: 'compensation-home',
      says: `${compensationOf(state)} is on while it goes home, or to a machine position.`,
    }
  const inCycle = (flags & FLAG.CYCLE) !== 0 && (flags & FLAG.CONTOUR) === 0
  return inCycle || (flags & NOT_BESIDE) !== 0 || APART.has(kind)
    ? {
        code: 'compensation-other',
        says: `${compensationOf(state)} is on while a cycle, a probe or a rotary moves.`,
      }
    : undefined
}

export const radiusUnknown = ({ d, offset, face }: ModalState): Alarm => ({
  code: 'compensation-radius',
  ...(offset.startsWith('T')
    ? {
        says: `The ${face ? '' : 'nose '}radius of ${offset} is not known.`,
        does: `How far beside its path the tool goes is not shown, so the program is not proved. Enter the ${face ? 'diameter' : 'nose radius'} of ${offset} among the tools of the machine.`,
      }
    : {
        says: `The radius that D${d} holds is not known.`,
        does: `How far beside its path the tool goes is not shown, so the program is not proved. Enter T${d} among the tools of the machine.`,
      }),
})

/** Why compensation does not come on over a piece as it should; undefined where it does. Common practice. */
export function alarmAtStart({ from, to, sweep }: Piece, state: ModalState): Alarm | undefined {
  const { beside } = state
  if (Number.isNaN(beside)) return radiusUnknown(state)
  if (sweep !== 0) return { code: 'compensation-arc', says: `${compensationOf(state)} comes on in an arc.` }
  const length = Math.hypot(to.x - from.x, to.y - from.y)
  return length < Math.abs(beside) - 1e-9
    ? {
        code: 'compensation-short',
        says: `${compensationOf(state)} comes on over ${sixDigits(length)}, less than the radius of ${sixDigits(Math.abs(beside))}.`,
      }
    : undefined
}
