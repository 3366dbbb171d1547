import { isArc, type Motion, type MotionBuilder } from './motion.ts'

/** What a pass over a finished motion gives: another motion, and the first row that came of each row of the one before, and how many there are. */
export interface Passed {
  motion: Motion
  firstRow: Uint32Array
}

/** A pass is over: the rows that were put out, in the blocks of the motion that they came of. */
export function passed(out: MotionBuilder, { start, ...of }: Motion, firstRow: Uint32Array): Passed {
  const { blocks, blockLine, blockDepth } = of
  const blockRow = new Uint32Array(blocks)
  for (let block = 0; block < blocks; block++)
    blockRow[block] = firstRow[of.blockRow[block] as number] as number
  return { firstRow, motion: { ...out.done(start), blocks, blockLine, blockRow, blockDepth } }
}

type ArcNumbers = [number, number, number, number, number, number]

/** Puts a row of a motion into another as it is, or with another end, or so many degrees further turned. */
export function copyRow(
  motion: Motion,
  row: number,
  out: MotionBuilder,
  to: readonly [number, number, number] = [
    motion.x[row] as number,
    motion.y[row] as number,
    motion.z[row] as number,
  ],
  turns = 0,
): void {
  const kind = motion.kind[row] as number
  let aux = motion.aux[row] as number
  if (isArc(kind)) aux = out.arc(...([...motion.arcs.subarray(6 * aux, 6 * aux + 6)] as ArcNumbers))
  out.row(
    kind,
    motion.flags[row] as number,
    ...to,
    motion.feed[row] as number,
    motion.line[row] as number,
    motion.state[row] as number,
    aux,
    (motion.rotary?.[row] ?? 0) + turns,
    motion.seconds?.[row] ?? 0,
  )
}
