import { type Block, has, lengthOf, wordValue } from './block.ts'
import { RADIAN } from './control-state.ts'
import type { OnFace } from './motion.ts'
import type { Run } from './run.ts'

/** G codes that a control takes while X and a length across it make the face of the part; common practice. */
const ON_FACE: ReadonlySet<number> = new Set([1, 2, 3, 4, 9, 40, 41, 42, 61, 64, 65, 66, 67, 98, 99])

const ALARM = { does: 'The control stops with an alarm.' }

/** How the profile has a place on the face written. */
function wordsOf({ options }: Run): OnFace {
  const { x = 'diameter', across = 'C' } = options.profile.reading.driven?.face ?? {}
  return { times: x === 'diameter' ? 2 : 1, across }
}

/** Whether a block names a place on the face. */
export const movesOnFace = (run: Run) =>
  ['X', 'U', 'Z', 'W', 'H', wordsOf(run).across].some((letter) => has(run, letter))

/** Where a block leads on the face: X, the length across it, Z; U, H and W are distances. */
export function faceTarget(run: Run): [number, number, number] {
  const { times, across } = wordsOf(run)
  const [x, u] = [lengthOf(run, 'X'), lengthOf(run, 'U')]
  const [y, h] = [lengthOf(run, across), lengthOf(run, 'H')]
  const [z, w] = [lengthOf(run, 'Z'), lengthOf(run, 'W')]
  return [
    x === undefined ? run.wx + (u ?? 0) / times : x / times,
    y ?? run.wy + (h ?? 0),
    z ?? run.wz + (w ?? 0),
  ]
}

/**
 * Polar interpolation on and off: while it is on, arcs lie in the plane of X and the length across it, and the spindle turns so that the tool
 * goes where they say. It begins where the spindle stands at 0, so that X lies on itself. Common practice, from memory.
 */
export function switchFace(block: Block, on: boolean): void {
  const { run } = block
  if (on === (run.face !== null)) return
  if (run.compensation !== 40)
    run.wrong(
      'face-compensation',
      'stop',
      `Polar interpolation goes ${on ? 'on' : 'off'} under compensation.`,
      ALARM,
    )
  if (on) {
    // Angles that were added up are whole turns to the last digit only.
    if (Math.abs(run.rotary - 360 * Math.round(run.rotary / 360)) > 1e-6)
      run.wrong(
        'face-angle',
        'stop',
        `Polar interpolation begins with the spindle at ${run.rotary} degrees.`,
        {
          does: 'Which way X then lies on the part is not the same on every control. Turn it to C0 before.',
        },
      )
    run.face = { plane: run.plane, words: wordsOf(run) }
    run.wasOnFace = true
    run.plane = 17
    run.changed()
    return
  }
  const { plane } = run.face as NonNullable<Run['face']>
  const turned = run.rotary + Math.atan2(run.wy, run.wx) / RADIAN
  run.face = null
  run.plane = plane
  run.standAt(Math.hypot(run.sx, run.sy), turned)
  run.changed()
}

/** Says what of a block no control takes while it is on; true where nothing of it is to be followed. */
export function refusedOnFace({ run, g, m, codes }: Block): boolean {
  if (!run.face) return false
  const code = g.find((each) => !ON_FACE.has(each) && each !== codes.faceOff && each !== codes.faceOn)
  const what =
    code !== undefined
      ? `G${code}`
      : has(run, 'T')
        ? `T${wordValue(run, 'T')}`
        : m.includes(3) || m.includes(4)
          ? 'The spindle'
          : undefined
  const rapid = code === undefined && run.motion === 0 && movesOnFace(run)
  if (what === undefined && !rapid) return false
  run.wrong('face-other', 'stop', `${what ?? 'A rapid'} while polar interpolation is on.`, {
    ...ALARM,
    once: what ?? 'rapid',
  })
  return true
}
