import type { LengthUnit } from '../quantity/index.ts'
import { type Diagnostic, type ProgramBlock, readBlocks, type Word } from './words.ts'

type Axes = Partial<Record<'X' | 'Y' | 'Z', number>>

/** What a program does, step by step, as far as this reader knows the words. */
export type Step =
  /** Writes axis values (in the program's unit) into the offset that L and P address. */
  | { does: 'load-offset'; l: number; p: number; axes: Axes; line: number }
  /** A rapid: `frame` is 'machine' for G53, 'home' for G28, else the offset's name ('G54', 'G154 P2'). */
  | { does: 'rapid'; frame: string; axes: Axes; line: number }
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
}

/** Codes that set or cancel a mode with no effect on what these programs do. */
const QUIET_CODES = new Set([17, 40, 49, 80, 69, 94])

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

const KNOWN = new Set([0, 10, 20, 21, 28, 53, 54, 54.1, 55, 56, 57, 58, 59, 90, 91, 154])

function stepsOf({ words, line }: ProgramBlock, modes: Modes, diagnostics: Diagnostic[]): Step[] {
  const codes = words.filter(({ letter }) => letter === 'G').map(({ value }) => value)
  for (const code of codes) {
    if (!KNOWN.has(code) && !QUIET_CODES.has(code)) diagnostics.push({ line, says: `G${code} is not known.` })
  }
  setModes(codes, words, modes)
  const axes = axesOf(words)
  const steps: Step[] = []
  if (codes.includes(10)) {
    if (!modes.absolute) diagnostics.push({ line, says: 'G10 under G91 adds to the offset.' })
    steps.push({
      does: 'load-offset',
      l: numberAt(words, 'L') ?? -1,
      p: numberAt(words, 'P') ?? -1,
      axes,
      line,
    })
  } else if (Object.keys(axes).length > 0) {
    if (codes.includes(28)) steps.push({ does: 'rapid', frame: 'home', axes, line })
    else if (!modes.absolute || !modes.rapid)
      diagnostics.push({ line, says: 'A move that is not an absolute rapid.' })
    else steps.push({ does: 'rapid', frame: codes.includes(53) ? 'machine' : modes.offset, axes, line })
  }
  for (const { letter, value } of words) {
    if (letter !== 'M') continue
    if (value === 0) steps.push({ does: 'stop', line })
    else if (value === 30) steps.push({ does: 'end', line })
    else diagnostics.push({ line, says: `M${value} is not known.` })
  }
  return steps
}

/**
 * Reads back a program of offset loads and rapids (RS-274 words: G0, G10, G20, G21, G28, G53, G54 to G59 and extended
 * offsets, G90, G91, M0, M30). Anything else is a diagnostic. Never throws.
 */
export function readProgram(text: string): ProgramReading {
  const { blocks, diagnostics } = readBlocks(text)
  const modes: Modes = { unit: undefined, absolute: true, rapid: false, offset: 'G54' }
  const steps = blocks.flatMap((block) => stepsOf(block, modes, diagnostics))
  return { unit: modes.unit, steps, diagnostics }
}
