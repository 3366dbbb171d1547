import { type Motion, ROW } from '../program/index.ts'
import type { MachineSpeeds } from '../timing/index.ts'
import type { Triple } from './body.ts'
import { pathOf } from './path.ts'
import { rowsOfBlock } from './press.ts'
import type { ProgramFinding } from './program-finding.ts'

/** Blocks that single block stops at, stepping into subprograms or over them. */
export function nextBlock(motion: Motion, block: number, way: 1 | -1, into: boolean): number {
  const depth = motion.blockDepth[block] ?? 0
  let at = block + way
  while (!into && at > 0 && at < motion.blocks && (motion.blockDepth[at] as number) > depth) at += way
  return Math.max(0, Math.min(motion.blocks, at))
}

/** The next block that puts a tool in; the end where there is none. */
export function nextToolBlock(motion: Motion, block: number): number {
  const from = rowsOfBlock(motion, Math.min(block, motion.blocks - 1)).to
  for (let row = from; row < motion.count; row++)
    if (motion.kind[row] === ROW.EVENT && motion.events[motion.aux[row] as number]?.does === 'tool')
      return blockOfRow(motion, row)
  return motion.blocks
}

/** The block that makes a row. */
export function blockOfRow(motion: Motion, row: number): number {
  let [low, high] = [0, motion.blocks - 1]
  while (low < high) {
    const middle = Math.ceil((low + high) / 2)
    if ((motion.blockRow[middle] as number) <= row) low = middle
    else high = middle - 1
  }
  return Math.max(0, low)
}

/** The first block of a line, from a block on, then from the start; undefined where the line never runs. */
export function blockOfLine(motion: Motion, line: number, from = 0): number | undefined {
  const after = motion.blockLine.indexOf(line, from)
  const at = after < 0 ? motion.blockLine.indexOf(line) : after
  return at < 0 ? undefined : at
}

/** The block that a finding is about; undefined where it is about a line that does not run. */
export const blockOfFinding = (motion: Motion, { row, line }: ProgramFinding): number | undefined =>
  row === undefined ? blockOfLine(motion, line) : blockOfRow(motion, row)

/** The next block after this one that something is said of. */
export function nextFindingBlock(
  motion: Motion,
  block: number,
  findings: readonly ProgramFinding[],
): number | undefined {
  const blocks = findings.flatMap((finding) => blockOfFinding(motion, finding) ?? []).sort((a, b) => a - b)
  return blocks.find((each) => each > block) ?? blocks[0]
}

/** The block that runs at a time, given the seconds of every row, added up. */
export function blockAt(motion: Motion, cumulative: Float64Array, seconds: number): number {
  let [low, high] = [0, cumulative.length - 1]
  while (low < high) {
    const middle = Math.floor((low + high) / 2)
    if ((cumulative[middle] as number) < seconds) low = middle + 1
    else high = middle
  }
  return blockOfRow(motion, Math.max(0, low))
}

/** Seconds up to the end of each row. */
export function cumulate(rows: Float32Array): Float64Array {
  const sums = new Float64Array(rows.length)
  let sum = 0
  for (let row = 0; row < rows.length; row++) {
    sum += rows[row] as number
    sums[row] = sum
  }
  return sums
}

/** Where the tip is, a share of the way along a row, by length. */
export function alongRow(motion: Motion, row: number, share: number, speeds: MachineSpeeds): Triple {
  const path = pathOf(motion, row, speeds)
  const lengths = path
    .slice(1)
    .map((point, n) =>
      Math.hypot(...point.map((each, axis) => each - ((path[n] as Triple)[axis as 0 | 1 | 2] as number))),
    )
  let left = lengths.reduce((sum, each) => sum + each, 0) * share
  for (const [n, length] of lengths.entries()) {
    if (left <= length && length > 0) {
      const [a, b] = [path[n], path[n + 1]] as [Triple, Triple]
      const t = left / length
      return [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, a[2] + (b[2] - a[2]) * t]
    }
    left -= length
  }
  return path.at(-1) ?? motion.start
}
