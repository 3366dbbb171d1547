import type { LengthUnit } from '../quantity/index.ts'
import { type Diagnostic, type ProgramBlock, readBlocks, type Word } from './words.ts'

type Axes = Partial<Record<'X' | 'Y' | 'Z', number>>

/** What a program does, step by step, as far as this reader knows the words. */
export type Step =
  /** Writes axis values (in the program's unit) into the offset that L and P address. */
  | { does: 'load-offset'; l: number; p: number; axes: Axes; line: number }
  /** A rapid: `frame` is 'machine' for G53, 'home' for G28, else the offset's name ('G54', 'G154 P2'). */
  | { does: 'rapid'; frame: string; axes: Axes; line: number }
  /** Turning the program on: about a point of the work offset, by degrees or by a macro variable. */
  | { does: 'rotate'; about: { X: number; Y: number }; by: number | { variable: number }; line: number }
  | { does: 'rotate-off'; line: number }
  /** A tool is put into the spindle. */
  | { does: 'tool'; tool: number; line: number }
  /** The tool's length is taken, and Z goes to its place in the offset. */
  | { does: 'length'; h: number; axes: Axes; frame: string; line: number }
  /** A macro is called with its words. */
  | { does: 'call'; program: number; words: Record<string, number>; frame: string; line: number }
  | { does: 'stop'; line: number }
  | { does: 'end'; line: number }

export interface ProgramReading {
  unit: LengthUnit | undefined
  steps: Step[]
  diagnostics: Diagnostic[]
}

interface Modes {
  unit: LengthUnit | undefined
  absolute: boolean
  rapid: boolean
  offset: string
  turned: boolean
}

/** Codes that set or cancel a mode with no effect on what these programs do. */
const QUIET_CODES = new Set([17, 40, 49, 80, 94])

const axesOf = (words: Word[]): Axes =>
  Object.fromEntries(
    words.filter(({ letter }) => 'XYZ'.includes(letter)).map(({ letter, value }) => [letter, value]),
  )

const numberAt = (words: Word[], letter: string) => words.find((word) => word.letter === letter)?.value

function setModes(codes: number[], words: Word[], modes: Modes) {
  for (const code of codes) {
    if (code === 20 || code === 21) modes.unit = code === 20 ? 'inch' : 'mm'
    else if (code === 90 || code === 91) modes.absolute = code === 90
    else if (code === 0) modes.rapid = true
    else if (code >= 54 && code < 60 && code !== 54.1) modes.offset = `G${code}`
    else if (code === 154 || code === 54.1) modes.offset = `G${code} P${numberAt(words, 'P')}`
  }
}

const KNOWN = new Set([0, 10, 20, 21, 28, 43, 53, 54, 54.1, 55, 56, 57, 58, 59, 65, 68, 69, 90, 91, 154])

const wordsOf = (words: Word[]) =>
  Object.fromEntries(
    words.filter(({ letter }) => !'GPN'.includes(letter)).map(({ letter, value }) => [letter, value]),
  )

/** What the words of a block move or set, given its codes; nothing where it only sets modes. */
function moveOf(codes: number[], { words, line }: ProgramBlock, modes: Modes): Step | string | undefined {
  const axes = axesOf(words)
  const moves = Object.keys(axes).length > 0
  if (codes.includes(65))
    return {
      does: 'call',
      program: numberAt(words, 'P') ?? -1,
      words: wordsOf(words),
      frame: modes.offset,
      line,
    }
  if (codes.includes(68)) {
    const turn = words.find(({ letter }) => letter === 'R')
    if (!turn || axes.X === undefined || axes.Y === undefined || axes.Z !== undefined)
      return 'G68 without X, Y and R.'
    modes.turned = true
    const by = turn.variable === undefined ? turn.value : { variable: turn.variable }
    return { does: 'rotate', about: { X: axes.X, Y: axes.Y }, by, line }
  }
  if (words.some(({ value }) => Number.isNaN(value))) return 'A variable where a number is expected.'
  if (codes.includes(10)) {
    if (!modes.absolute) return 'G10 under G91 adds to the offset.'
    return { does: 'load-offset', l: numberAt(words, 'L') ?? -1, p: numberAt(words, 'P') ?? -1, axes, line }
  }
  if (codes.includes(43))
    return { does: 'length', h: numberAt(words, 'H') ?? -1, axes, frame: modes.offset, line }
  if (!moves) {
    const wasTurned = modes.turned && codes.includes(69)
    if (wasTurned) modes.turned = false
    return wasTurned ? { does: 'rotate-off', line } : undefined
  }
  if (codes.includes(28)) return { does: 'rapid', frame: 'home', axes, line }
  if (!modes.absolute || !modes.rapid) return 'A move that is not an absolute rapid.'
  return { does: 'rapid', frame: codes.includes(53) ? 'machine' : modes.offset, axes, line }
}

function stepsOf(block: ProgramBlock, modes: Modes, diagnostics: Diagnostic[]): Step[] {
  const { words, line } = block
  const codes = words.filter(({ letter }) => letter === 'G').map(({ value }) => value)
  for (const code of codes) {
    if (!KNOWN.has(code) && !QUIET_CODES.has(code)) diagnostics.push({ line, says: `G${code} is not known.` })
  }
  setModes(codes, words, modes)
  const steps: Step[] = []
  const move = moveOf(codes, block, modes)
  if (typeof move === 'string') diagnostics.push({ line, says: move })
  else if (move) steps.push(move)
  for (const { letter, value } of words) {
    if (letter !== 'M') continue
    if (value === 0) steps.push({ does: 'stop', line })
    else if (value === 6) steps.push({ does: 'tool', tool: numberAt(words, 'T') ?? -1, line })
    else if (value === 30) steps.push({ does: 'end', line })
    else diagnostics.push({ line, says: `M${value} is not known.` })
  }
  return steps
}

/**
 * Reads back the programs that Dogleg writes so far: offset loads, rapids, tool and length, turning, macro calls (RS-274
 * words: G0, G10, G20, G21, G28, G43, G53, G54 to G59 and extended offsets, G65, G68, G69, G90, G91, M0, M6, M30). Anything else is a diagnostic. Never throws.
 */
export function readProgram(text: string): ProgramReading {
  const { blocks, diagnostics } = readBlocks(text)
  const modes: Modes = { unit: undefined, absolute: true, rapid: false, offset: 'G54', turned: false }
  const steps = blocks.flatMap((block) => stepsOf(block, modes, diagnostics))
  return { unit: modes.unit, steps, diagnostics }
}

/** A step without the line that it stands in. */
export type PlannedStep = Step extends infer Each ? (Each extends Step ? Omit<Each, 'line'> : never) : never

/** Keys in one order, so that two descriptions can be compared as text. */
function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted)
  if (value === null || typeof value !== 'object') return value
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, part]) => [key, sorted(part)]),
  )
}

/** Whether a text, read back, does just what was planned, in this unit, with nothing that is not understood. */
export function readsAs(text: string, unit: LengthUnit, planned: readonly PlannedStep[]): boolean {
  const read = readProgram(text)
  const got = read.steps.map(({ line: _, ...step }) => step)
  return (
    read.diagnostics.length === 0 &&
    read.unit === unit &&
    JSON.stringify(sorted(got)) === JSON.stringify(sorted(planned))
  )
}
