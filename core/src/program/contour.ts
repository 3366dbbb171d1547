import { leastStepIn } from '../machine/index.ts'
import { CHORD, chordPoints, goRound } from './arc.ts'
import { type Block, wordValue } from './block.ts'
import { compensate } from './compensate.ts'
import type { ContourPiece } from './contour-piece.ts'
import { FLAG, isArc, type Motion, MotionBuilder, ROW } from './motion.ts'
import type { Run } from './run.ts'

/** Lines of a contour beyond this are not gathered. */
const MOST_CONTOUR_LINES = 2_000

/** A contour that stands in the program from one line number to another, and the line after it. */
export interface Contour {
  pieces: ContourPiece[]
  after: number
}

/** Reads the lines from N.. (P) to N.. (Q) without cutting, and gathers where they lead. */
export function readContour(block: Block, code: number): Contour | undefined {
  const { run, index } = block
  const { scan } = run
  const [from, to] = [wordValue(run, 'P'), wordValue(run, 'Q')]
  const first = from === undefined ? undefined : index.numbered(from, run.lineIndex)
  const last = to === undefined ? undefined : index.numbered(to, run.lineIndex)
  if (
    first === undefined ||
    last === undefined ||
    last < first ||
    last - first > MOST_CONTOUR_LINES ||
    run.gathers
  ) {
    run.wrong(
      'contour-missing',
      'stop',
      `G${code}: the contour from N${from ?? '?'} to N${to ?? '?'} is not in the program.`,
      { does: 'The control stops with an alarm.' },
    )
    return undefined
  }
  const { lineIndex, lineAt, motion, feed, compensation, wx, wz, sx, sz } = run
  const pieces: ContourPiece[] = []
  run.gathers = pieces
  for (let line = first; line <= last; line++) {
    const at = index.startOf(line)
    if (at === undefined) break
    run.lineIndex = line
    run.lineAt = at
    scan.line(at)
    if (scan.macroAt >= 0 || scan.badAt >= 0) continue
    block.carryOut({ ...block, g: [], m: [], own: [] })
  }
  run.gathers = null
  Object.assign(run, { wx, wz, sx, sz, motion, feed, compensation, lineIndex, lineAt })
  run.changed()
  // The words of the cycle's own line again.
  scan.line(lineAt)
  return { pieces, after: Math.max(last, lineIndex) + 1 }
}

/** Goes along a piece of a contour, moved by so much along X (a radius) and Z. */
export function alongPiece(
  run: Run,
  { x, z, rapid, arc }: ContourPiece,
  dx: number,
  dz: number,
  flags: number = FLAG.CYCLE,
): void {
  if (!arc) run.go(rapid ? ROW.RAPID : ROW.LINE, x + dx, 0, z + dz, flags)
  else goRound(run, [x + dx, 0, z + dz], [arc.x + dx, 0, arc.z + dz], arc, flags)
}

/** As it is written: each piece with its own line, feed and compensation, as the finishing cycle does it. */
export function alongContour(run: Run, pieces: readonly ContourPiece[]): void {
  const { lineIndex, feed } = run
  const compensate = (by: 40 | 41 | 42) => {
    if (run.compensation === by) return
    run.compensation = by
    run.changed()
  }
  for (const piece of pieces) {
    compensate(piece.compensation)
    run.feed = piece.feed
    run.lineIndex = piece.line
    alongPiece(run, piece, 0, 0, FLAG.CYCLE | FLAG.CONTOUR)
  }
  Object.assign(run, { lineIndex, feed })
}

/** Does something that is not led beside anything, whatever holds before and after it. */
export function withoutCompensation(run: Run, does: () => void): void {
  const { compensation } = run
  if (compensation === 40) {
    does()
    return
  }
  run.compensation = 40
  run.changed()
  does()
  run.compensation = compensation
  run.changed()
}

/** Back to where the cycle began: not beside anything. What holds at the end of the contour holds after it. */
export function backTo(run: Run, x: number, z: number): void {
  withoutCompensation(run, () => run.go(ROW.RAPID, x, 0, z, FLAG.CYCLE))
}

/** The path of the tip with the nose led beside a contour from where the tool stands; the contour itself where nothing is led. */
export function besideContour(run: Run, pieces: readonly ContourPiece[]): readonly ContourPiece[] {
  const { compensation, options } = run
  if (pieces.every((piece) => piece.compensation === 40)) return pieces
  const builder = new MotionBuilder(pieces.length)
  for (const { x, z, feed, rapid, arc, compensation: by, line } of pieces) {
    run.compensation = by
    run.changed()
    const aux = arc ? builder.arc(arc.x, 0, arc.z, arc.sweep, arc.from, arc.to) : -1
    const kind = arc ? (arc.sweep < 0 ? ROW.ARC_CW : ROW.ARC_CCW) : rapid ? ROW.RAPID : ROW.LINE
    builder.row(kind, 0, x, 0, z, feed, line + 1, run.stateIndex, aux)
  }
  run.compensation = compensation
  run.changed()
  builder.states.push(...run.out.states)
  const rules = options.profile.reading.compensation
  const least = leastStepIn(options.machine, run.unit)
  const { motion } = compensate(builder.done([run.wx, 0, run.wz]), rules, least, run.say)
  return piecesOf(motion)
}

const piecesOf = ({ count, kind, x, z, feed, line, aux, arcs }: Motion): ContourPiece[] =>
  Array.from({ length: count }, (_, row) => {
    const of = kind[row] as number
    const base = 6 * (aux[row] as number)
    const at = (n: number) => arcs[base + n] as number
    return {
      x: x[row] as number,
      z: z[row] as number,
      feed: feed[row] as number,
      rapid: of === ROW.RAPID,
      ...(isArc(of) ? { arc: { x: at(0), z: at(2), sweep: at(3), from: at(4), to: at(5) } } : {}),
      compensation: 40,
      line: (line[row] as number) - 1,
    }
  })

/** The points of a contour from where the tool stands, arcs as chords: what roughing passes are cut off at. X is a radius. */
export function contourPoints(run: Run, pieces: readonly ContourPiece[]): { x: number; z: number }[] {
  let [x, z] = [run.wx, run.wz]
  return pieces.flatMap((piece) => {
    const { arc } = piece
    const points = arc
      ? chordPoints({ ...arc, a0: Math.atan2(x - arc.x, z - arc.z) }, CHORD[run.unit]).map(({ at, r }) => ({
          x: arc.x + r * Math.sin(at),
          z: arc.z + r * Math.cos(at),
        }))
      : []
    ;[x, z] = [piece.x, piece.z]
    return [...points, { x, z }]
  })
}
