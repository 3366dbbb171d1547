import { writeNumber } from '../control/index.ts'
import { FLAG, type ModalState, type Motion, type ProgramBlock, ROW, readBlocks } from '../program/index.ts'
import { boundsOf, type Proof, type ProveCase } from '../prove/index.ts'
import { convertLength } from '../quantity/index.ts'

/** Free height that is wanted over what stands in the way: common practice. */
const CLEARANCE = { inch: 0.1, mm: 2.5 }

type Risk = 'none' | 'little' | 'some'

/** A change of a program that would save time, before it is looked at. */
export interface Candidate {
  code: string
  /** Where it begins in the text. */
  line: number
  says: string
  /** Why it is time lost. */
  why: string
  risk: Risk
  /** What to look at before it is taken. */
  mind: string
  after: string
}

/** A program that was proved, taken apart for who looks for time in it. Lengths in the unit of the motion. */
export interface SavingCase {
  of: ProveCase
  proof: Proof
  motion: Motion
  lines: readonly string[]
  /** The words of each line, by line from 1. */
  blocks: ReadonlyMap<number, ProgramBlock>
  /** Lowest level that clears the part, with the usual clearance; undefined where no part is placed. */
  safe: number | undefined
  clearance: number
  /** How often each line runs. */
  runs: ReadonlyMap<number, number>
  /** Calls, loops and jumps: lines can't be moved about. */
  jumps: boolean
}

export function savingCase(of: ProveCase, proof: Proof): SavingCase {
  const { motion } = proof.program
  const blocks = readBlocks(of.text)
  const runs = new Map<number, number>()
  let deep = false
  for (let block = 0; block < motion.blocks; block++) {
    const line = motion.blockLine[block] as number
    runs.set(line, (runs.get(line) ?? 0) + 1)
    if ((motion.blockDepth[block] as number) > 0) deep = true
  }
  const clearance = CLEARANCE[of.unit]
  return {
    of,
    proof,
    motion,
    lines: of.text.split(/\r\n|\r|\n/),
    blocks: new Map(blocks.map((block) => [block.line, block])),
    safe: proof.top === undefined ? undefined : proof.top + clearance,
    clearance,
    runs,
    jumps:
      deep ||
      blocks.some(({ unclear }) => unclear !== undefined) ||
      [...runs.values()].some((times) => times > 1),
  }
}

/** The text with lines put in the place of others: each line by its number, as none, one or several. */
export function withLines({ lines }: SavingCase, changed: ReadonlyMap<number, readonly string[]>): string {
  return lines.flatMap((line, index) => changed.get(index + 1) ?? [line]).join('\n')
}

export const stateAt = (motion: Motion, row: number): ModalState | undefined =>
  motion.states[motion.state[row] as number]

export const lineText = ({ lines }: SavingCase, line: number) => lines[line - 1] ?? ''

type WordOf = ProgramBlock['words'][number]

export const wordOf = (block: ProgramBlock | undefined, letter: string): WordOf | undefined =>
  block?.words.find((word) => word.letter === letter)

export const hasCode = (block: ProgramBlock | undefined, letter: string, value: number) =>
  block?.words.some((word) => word.letter === letter && word.value === value) ?? false

/** Whether a block has no words but these ('G0' with its number, 'X' with any). */
export const onlyWords = (block: ProgramBlock | undefined, allowed: readonly string[]) =>
  block !== undefined &&
  block.unclear === undefined &&
  !block.optional &&
  block.words.every(
    ({ letter, value }) =>
      letter === 'N' || allowed.includes(letter) || allowed.includes(`${letter}${value}`),
  )

/** A line with one of its words changed, or gone where `insert` is empty. */
export const withWord = (text: string, { from, to }: WordOf, insert: string) =>
  `${text.slice(0, from)}${insert}${text.slice(to)}`

/** A line with words put before its own, behind its N number. */
export function prefixed(text: string, block: ProgramBlock | undefined, words: string): string {
  const n = wordOf(block, 'N')
  return n
    ? `${text.slice(0, n.to)} ${words} ${text.slice(n.to).trimStart()}`
    : `${words} ${text.trimStart()}`
}

/** Where the words of a line end and its comment begins. */
export function endOfWords(text: string, block: ProgramBlock | undefined): number {
  const last = block?.words.at(-1)?.to
  return last ?? text.length
}

/** A height of the motion as a program word says it; undefined where the program is turned, scaled or wrapped. */
export function heightWord({ of }: SavingCase, state: ModalState, z: number): string | undefined {
  if (state.rotation || state.scaled || state.mapping !== null || !state.absolute) return undefined
  const unit = state.inch ? 'inch' : 'mm'
  return writeNumber(convertLength(z - state.shift[2], of.unit, unit), unit, of.profile)
}

export const isFeed = (kind: number) => kind === ROW.LINE || kind === ROW.ARC_CW || kind === ROW.ARC_CCW

/** Rows of one canned cycle with the holes that it makes. */
export interface CycleGroup {
  /** The line that begins it. */
  line: number
  state: ModalState
  first: number
  last: number
  /** The lines that each make one hole, and where. */
  holes: { line: number; x: number; y: number }[]
}

/** The canned cycles of the program in order, each with its holes. */
export function cycleGroups({ motion }: SavingCase): CycleGroup[] {
  const groups: CycleGroup[] = []
  for (let row = 0; row < motion.count; row++) {
    const state = stateAt(motion, row)
    // A line with a radius and an angle says nothing without the lines before it.
    if (!state?.cycle || state.polar || ((motion.flags[row] as number) & FLAG.CYCLE) === 0) continue
    const line = motion.line[row] as number
    let group = groups.at(-1)
    const follows =
      group && row === group.last + 1 && group.state.cycle === state.cycle && group.state.tool === state.tool
    if (!group || !follows) {
      group = { line, state, first: row, last: row, holes: [] }
      groups.push(group)
    }
    group.last = row
    const [x, y] = [motion.x[row] as number, motion.y[row] as number]
    const hole = group.holes.at(-1)
    if (hole && hole.line === line && hole.x === x && hole.y === y) continue
    // A hole begins with going to its place.
    group.holes.push({ line, x, y })
  }
  return groups
}

/** The highest of everything that stands in the way. */
export const highest = ({ proof }: SavingCase) =>
  proof.bodies.reduce((top, body) => Math.max(top, boundsOf(body).greatest[2]), Number.NEGATIVE_INFINITY)
