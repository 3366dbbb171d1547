import type { Piece } from '../geometry/index.ts'
import { FLAG, type ModalState, type Motion, ROW } from './motion.ts'

/** What an alarm of compensation says, and what the control then does where that is not plain. */
export interface Alarm {
  code: string
  says: string
  does?: string
}

const round = (value: number) => Number(value.toPrecision(6))

/** Rows that no control leads beside a path. */
const NOT_BESIDE = FLAG.ROTARY | FLAG.MAPPED | FLAG.CYCLE
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
      ? { code: 'compensation-tool', says: 'A tool change while cutter compensation is on.' }
      : undefined
  }
  if (state.plane !== plane)
    return {
      code: 'compensation-plane',
      says: `G${state.plane} while cutter compensation is on in G${plane}.`,
    }
  if (state.rotation !== null && plane !== 17)
    return {
      code: 'compensation-turned',
      says: `Cutter compensation in G${plane} while the program is turned about X Y.`,
      does: 'How the two go together is not the same on every control; it is not shown, so the program is not proved.',
    }
  const flags = motion.flags[row] as number
  if ((flags & FLAG.TO_MACHINE) !== 0)
    return {
      code: 'compensation-home',
      says: 'Home, or a machine position, while cutter compensation is on.',
    }
  return (flags & NOT_BESIDE) !== 0 || APART.has(kind)
    ? {
        code: 'compensation-other',
        says: 'A cycle, a probe or a rotary moves while cutter compensation is on.',
      }
    : undefined
}

export const radiusUnknown = ({ d }: ModalState): Alarm => ({
  code: 'compensation-radius',
  says: `The radius that D${d} holds is not known.`,
  does: `How far beside its path the tool goes is not shown, so the program is not proved. Enter T${d} among the tools of the machine.`,
})

/** Why compensation does not come on over a piece as it should; undefined where it does. Common practice. */
export function alarmAtStart({ from, to, sweep }: Piece, state: ModalState): Alarm | undefined {
  const { beside } = state
  if (Number.isNaN(beside)) return radiusUnknown(state)
  if (sweep !== 0) return { code: 'compensation-arc', says: 'Cutter compensation comes on in an arc.' }
  const length = Math.hypot(to.x - from.x, to.y - from.y)
  return length < Math.abs(beside) - 1e-9
    ? {
        code: 'compensation-short',
        says: `Cutter compensation comes on over ${round(length)}, less than the radius of ${round(Math.abs(beside))}.`,
      }
    : undefined
}
