import type { Profile } from '../control/index.ts'
import type { Machine } from '../machine/index.ts'
import { type Motion, type Program, ROW, read } from '../program/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import { cycleTime, speedsOf } from '../timing/index.ts'

/** What the programs are read for. */
export interface PalletControl {
  profile: Profile
  machine: Machine
  unit: LengthUnit
}

/** A program with its O number; `at` is its place among those given. */
export interface NumberedText {
  number: number
  text: string
}

/** What happens one after the other when a program is started, and the programs that it calls run with it. */
export type PalletEvent =
  /** Moves of one program; seconds without what stands between them. */
  | { does: 'cut'; program: number; seconds: number; moves: number; line: number; depth: number }
  /** A call for a pallet, from 1. */
  | { does: 'call-pallet'; pallet: number; program: number; line: number; depth: number }

export interface PalletTrace {
  started: number
  events: PalletEvent[]
  /**
   * How it ends: it begins again from the top, or in a loop without end; the control runs out of levels; it comes to its
   * end; a program calls another that is not there; or it is no program.
   */
  ends: 'again' | 'levels' | 'end' | 'missing' | 'unreadable'
  /** What the reader says of the end. */
  says: string
  /** Deepest that it ran. */
  depth: number
}

const O_NUMBER = /^[\s/]*(?:[Oo]|:)\s*(\d{1,8})/m

/** The O number of a text; undefined where it has none. */
export function programNumberOf(text: string): number | undefined {
  const found = O_NUMBER.exec(text)
  return found ? Number(found[1]) : undefined
}

/** What tells a program from others where its text is left out: its O number. Never empty. */
export const numberOnly = (text: string): string => O_NUMBER.exec(text)?.[0].trim() || '-'

/** The text with the percent lines of a tape left empty, so that it can stand among others and its lines keep their numbers. */
const withoutPercent = (text: string) =>
  text
    .split(/\r\n|\r|\n/)
    .map((line) => (/^\s*%\s*$/.test(line) ? '' : line))
    .join('\n')
    .replace(/\n*$/, '\n')

/** Blocks that are read at most, beyond those of every level of the programs: then a loop has no end. */
const SPARE_BLOCKS = 100_000

/** Which of the programs a line of the joined text is in. */
function programAt(starts: readonly { number: number; line: number }[], line: number): number {
  let at = 0
  while (at + 1 < starts.length && (starts[at + 1]?.line ?? Number.POSITIVE_INFINITY) <= line) at++
  return at
}

const said = ({ diagnostics }: Program, code: string) => diagnostics.find((each) => each.code === code)?.says

const endOfTrace = (of: Program): Pick<PalletTrace, 'ends' | 'says'> => {
  const table = [
    ['unreadable', said(of, 'not-a-program')],
    ['levels', said(of, 'levels') ?? said(of, 'recursion')],
    ['missing', said(of, 'subprogram-missing')],
    ['again', said(of, 'main-loops') ?? said(of, 'no-end')],
  ] as const
  for (const [ends, says] of table) if (says !== undefined) return { ends, says }
  return { ends: 'end', says: said(of, 'runs-into-next') ?? said(of, 'no-m30') ?? 'It comes to its end.' }
}

function eventsOf(
  motion: Motion,
  seconds: Float32Array,
  starts: readonly { number: number; line: number }[],
  levels: number,
): { events: PalletEvent[]; depth: number } {
  const events: PalletEvent[] = []
  let depth = 0
  let block = 0
  for (let row = 0; row < motion.count; row++) {
    while (block + 1 < motion.blocks && (motion.blockRow[block + 1] as number) <= row) block++
    const deep = motion.blockDepth[block] as number
    // Beyond its levels the control has stopped.
    if (deep > levels) break
    depth = Math.max(depth, deep)
    const at = motion.line[row] as number
    const start = starts[programAt(starts, at)]
    if (!start) continue
    const place = { program: start.number, line: at - start.line + 1, depth: deep }
    const event = motion.kind[row] === ROW.EVENT ? motion.events[motion.aux[row] as number] : undefined
    if (event?.does === 'pallet') {
      events.push({ does: 'call-pallet', pallet: event.pallet, ...place })
      continue
    }
    const last = events.at(-1)
    const took = seconds[row] as number
    const moves = motion.kind[row] === ROW.EVENT ? 0 : 1
    if (last?.does === 'cut' && last.program === place.program) {
      last.seconds += took
      last.moves += moves
    } else events.push({ does: 'cut', seconds: took, moves, ...place })
  }
  return { events: events.filter((each) => each.does !== 'cut' || each.moves > 0 || each.seconds > 0), depth }
}

/**
 * Runs a program with the others in the control's memory, as single file: which pallets it calls, what is cut between the
 * calls, how deep it nests and how it ends. Calls nest as the profile says. Never throws; loops come to an end.
 */
export function tracePallets(
  start: NumberedText,
  others: readonly NumberedText[],
  { profile, machine, unit }: PalletControl,
): PalletTrace {
  const all = [start, ...others.filter(({ number }) => number !== start.number)]
  const starts: { number: number; line: number }[] = []
  let line = 1
  const texts = all.map(({ number, text }) => {
    const own = withoutPercent(text)
    starts.push({ number, line })
    line += own.split('\n').length - 1
    return own
  })
  const { levels } = profile.reading
  const mostBlocks = SPARE_BLOCKS + line * (levels + 2)
  const program = read(texts.join(''), { profile, machine, unit, mostBlocks })
  const { rows } = cycleTime(program.motion, speedsOf(machine, profile, unit))
  const run = eventsOf(program.motion, rows, starts, levels)
  const end = endOfTrace(program)
  const called = run.events.filter(({ does }) => does === 'call-pallet').length
  // A loop that never calls a pallet twice is no round of pallets.
  const lost = end.ends === 'again' && said(program, 'main-loops') === undefined && called < 2
  return { started: start.number, ...run, ...end, ...(lost ? { ends: 'unreadable' } : {}) }
}
