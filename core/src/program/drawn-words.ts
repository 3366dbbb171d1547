import { type Block, has, lengthOf, wordValue } from './block.ts'
import { RADIAN } from './control-state.ts'
import { PLANE_AXES, ROW } from './motion.ts'
import type { Run } from './run.ts'
import { COMMA_A, COMMA_C, COMMA_R } from './scan.ts'
import type { CornerWord, OpenAngle } from './ways.ts'

/** Letters that a control takes for the corners and angles of a drawing. */
interface DrawnLetters {
  chamfer: readonly string[]
  round: string
  angle: string | undefined
}

function lettersOf({ lathe, options }: Run): DrawnLetters | undefined {
  const { corners } = options.profile.reading.positions
  if (corners === null) return undefined
  if (lathe && corners === 'words') return { chamfer: ['I', 'K'], round: 'R', angle: 'A' }
  return { chamfer: [COMMA_C], round: COMMA_R, angle: lathe ? COMMA_A : undefined }
}

/** Which letters of a straight move at feed are words of a drawing on this control. */
export const isDrawn = (run: Run, letter: string): boolean => {
  const letters = run.motion === 1 ? lettersOf(run) : undefined
  return (
    letters !== undefined &&
    (letters.chamfer.includes(letter) || letters.round === letter || letters.angle === letter)
  )
}

/** The chamfer or rounding that the block asks for at its end. */
export function cornerWord(run: Run): CornerWord | undefined {
  const letters = run.motion === 1 ? lettersOf(run) : undefined
  if (!letters) return undefined
  const chamfer = letters.chamfer.find((letter) => has(run, letter))
  const letter = chamfer ?? (has(run, letters.round) ? letters.round : undefined)
  if (letter === undefined) return undefined
  const size = Math.abs(lengthOf(run, letter) as number)
  return size > 0 ? { by: chamfer === undefined ? 'round' : 'chamfer', size } : undefined
}

const parallel = (run: Run) =>
  run.wrong('angle-parallel', 'stop', 'By its angle this line never gets to where its word says.', {
    does: 'The control stops with an alarm.',
  })

/**
 * Where a straight move of a lathe ends that is written by its angle, counted from +Z towards +X: with one of X and Z the other follows; with
 * neither, the next line says where both end, and they meet where the two lines cross. True where the block's move is dealt with here.
 * `to` is changed. Common practice.
 */
export function byAngle({ run }: Block, to: [number, number, number]): boolean {
  const letters = run.motion === 1 ? lettersOf(run) : undefined
  const degrees = letters?.angle === undefined ? undefined : wordValue(run, letters.angle)
  const { openAngle: open } = run
  if (degrees === undefined) {
    if (!open) return false
    run.openAngle = undefined
    run.wrong('angle-open', 'stop', `Line ${open.line + 1} has only an angle, and this one has none.`, {
      does: 'The control stops with an alarm: where the two lines meet is not said.',
    })
    return false
  }
  const [x, z] = [has(run, 'X') || has(run, 'U'), has(run, 'Z') || has(run, 'W')]
  const [sin, cos] = [Math.sin(degrees * RADIAN), Math.cos(degrees * RADIAN)]
  if (open && x && z) {
    meet(run, open, to, sin, cos)
    return false
  }
  if (!x && !z) {
    run.openAngle = { degrees, line: run.lineIndex, corner: cornerWord(run) }
    return true
  }
  if (x && z) return false
  const across = x ? sin : cos
  if (Math.abs(across) < 1e-9) {
    parallel(run)
    return false
  }
  if (x) to[2] = run.wz + ((to[0] - run.wx) * cos) / sin
  else to[0] = run.wx + ((to[2] - run.wz) * sin) / cos
  return false
}

/** Goes to where the line of an angle from here crosses that of another to the end. */
function meet(run: Run, open: OpenAngle, to: [number, number, number], sin: number, cos: number): void {
  run.openAngle = undefined
  const [s, c] = [Math.sin(open.degrees * RADIAN), Math.cos(open.degrees * RADIAN)]
  const turn = c * sin - s * cos
  if (Math.abs(turn) < 1e-9) {
    parallel(run)
    return
  }
  const along = ((to[2] - run.wz) * sin - (to[0] - run.wx) * cos) / turn
  if (along < 0)
    run.wrong('angle-back', 'look', `By its angle line ${open.line + 1} goes backwards.`, {
      does: 'The control goes there all the same: the angle may be meant 180 deg the other way.',
    })
  goDrawn(run, [run.wx + along * s, to[1], run.wz + along * c], open.corner)
}

/** A straight move at feed, with what its end asks for. */
export function goDrawn(
  run: Run,
  to: readonly [number, number, number],
  corner: CornerWord | undefined,
): void {
  run.go(ROW.LINE, ...to)
  if (!corner) return
  const { scaled, plane } = run
  const [first, second] = PLANE_AXES[plane]
  const by = scaled ? Math.abs(scaled.times[first]) : 1
  if (run.gathers || run.mapping || (scaled && by !== Math.abs(scaled.times[second]))) {
    run.wrong('corner', 'stop', 'A chamfer or rounding here is not followed.', {
      does: 'It may move something that is not shown, so the program is not proved.',
    })
    return
  }
  run.corners.push({ row: run.out.count - 1, by: corner.by, size: corner.size * by })
}
