import { type Motion, ROW } from '../program/index.ts'
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
