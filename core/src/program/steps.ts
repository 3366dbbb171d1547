import { type Finding, finding } from '../fact/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import { type Block, has, wordValue } from './block.ts'
import type { Diagnostic } from './diagnose.ts'
import { read } from './read.ts'
import type { ReadOptions } from './read-options.ts'
import { EXPRESSION, letterAtPlace, place } from './scan.ts'

type Axes = Partial<Record<'X' | 'Y' | 'Z' | 'A' | 'B' | 'C', number>>

/** What a short program does, block by block, in the words and the unit of the program. */
export type Step =
  /** Writes axis values (in the program's unit) into the offset that L and P address. */
  | { does: 'load-offset'; l: number; p: number; axes: Axes; line: number }
  /** An absolute rapid: `frame` is 'machine' for G53, 'home' for G28, else the offset's name ('G54', 'G154 P2'). */
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
  /** Anything else that moves or changes something: these steps are not said further. */
  | { does: 'other'; line: number }

/** Codes that set or cancel a mode with no effect on what such a program does. */
const QUIET = new Set([0, 17, 20, 21, 40, 49, 54, 55, 56, 57, 58, 59, 54.1, 69, 80, 90, 91, 94, 154])

const axesOf = (block: Block): Axes =>
  Object.fromEntries(
    (['X', 'Y', 'Z', 'A', 'B', 'C'] as const).flatMap((axis) =>
      has(block.run, axis) ? [[axis, wordValue(block.run, axis) as number]] : [],
    ),
  )

/** The variable that a word is written as: R#189. */
function variableOf({ run: { scan } }: Block, letter: string): number | undefined {
  const slot = scan.slot[place(letter)] as number
  if (((scan.marks[slot] as number) & EXPRESSION) === 0) return undefined
  const found = /#(\d+)\s*$/.exec(scan.text.slice(scan.from[slot], scan.to[slot]))
  return found ? Number(found[1]) : undefined
}

function wordsOf({ run: { scan } }: Block): Record<string, number> {
  const words: Record<string, number> = {}
  for (let n = 0; n < scan.count; n++) {
    const letter = letterAtPlace(scan.letters[n] as number)
    if (!'GPN'.includes(letter)) words[letter] = scan.values[n] as number
  }
  return words
}

function movesOf(block: Block, wasTurned: boolean): Step[] {
  const { run, g, codes } = block
  const { line } = run
  const value = (letter: string) => wordValue(run, letter) ?? -1
  const axes = axesOf(block)
  if (g.includes(65))
    return [{ does: 'call', program: value('P'), words: wordsOf(block), frame: run.offset, line }]
  if (codes.rotationOn !== undefined && g.includes(codes.rotationOn)) {
    const variable = variableOf(block, 'R')
    if (axes.X === undefined || axes.Y === undefined || axes.Z !== undefined) return [{ does: 'other', line }]
    return [
      {
        does: 'rotate',
        about: { X: axes.X, Y: axes.Y },
        by: variable === undefined ? value('R') : { variable },
        line,
      },
    ]
  }
  if (codes.load !== undefined && g.includes(codes.load))
    return [
      run.absolute
        ? { does: 'load-offset', l: value('L'), p: value('P'), axes, line }
        : { does: 'other', line },
    ]
  const further = g.some(
    (code) =>
      !QUIET.has(code) &&
      code !== 43 &&
      code !== 28 &&
      code !== 53 &&
      code !== codes.rotationOff &&
      code !== codes.lookAhead,
  )
  if (further) return [{ does: 'other', line }]
  if (g.includes(43)) return [{ does: 'length', h: value('H'), axes, frame: run.offset, line }]
  if (Object.keys(axes).length === 0)
    return wasTurned && codes.rotationOff !== undefined && g.includes(codes.rotationOff)
      ? [{ does: 'rotate-off', line }]
      : []
  if (g.includes(28)) return [{ does: 'rapid', frame: 'home', axes, line }]
  if (!run.absolute || run.motion !== 0) return [{ does: 'other', line }]
  return [{ does: 'rapid', frame: g.includes(53) ? 'machine' : run.offset, axes, line }]
}

function stepsOf(block: Block, wasTurned: boolean): Step[] {
  const { line } = block.run
  const steps = movesOf(block, wasTurned)
  for (const code of block.m) {
    if (code === 0) steps.push({ does: 'stop', line })
    else if (code === 6)
      steps.push({ does: 'tool', tool: wordValue(block.run, 'T') ?? block.run.nextTool, line })
    else if (code === 30) steps.push({ does: 'end', line })
    else steps.push({ does: 'other', line })
  }
  return steps
}

export interface StepReading {
  unit: LengthUnit | undefined
  steps: Step[]
  diagnostics: Diagnostic[]
}

/** What a program does in steps, for the short programs that load, check and probe. Never throws. */
export function readSteps(text: string, options: ReadOptions): StepReading {
  const steps: Step[] = []
  let turned = false
  const { diagnostics, unitSaid, inch } = read(text, options, (block) => {
    const next = stepsOf(block, turned)
    for (const { does } of next) turned = does === 'rotate' || (turned && does !== 'rotate-off')
    steps.push(...next)
  })
  return { unit: unitSaid ? (inch ? 'inch' : 'mm') : undefined, steps, diagnostics }
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

/** What a program that is meant may have said of it: a probe's variable that another program sets, an offset that it writes. */
const MEANT = new Set([
  'unset-variable',
  'loads-offset',
  'offset-not-followed',
  'missing-point',
  'setter-not-seen',
])

/** Whether a text, read back, does just what was planned, in the unit of the options, with nothing that is not understood. */
export function readsAs(text: string, options: ReadOptions, planned: readonly PlannedStep[]): boolean {
  const reading = readSteps(text, options)
  const got = reading.steps.map(({ line: _, ...step }) => step)
  return (
    reading.diagnostics.every(({ code }) => MEANT.has(code)) &&
    reading.unit === options.unit &&
    JSON.stringify(sorted(got)) === JSON.stringify(sorted(planned))
  )
}

/** What was written cannot be given out, because it reads as something else: `why`, and what to do. */
export const notReadBack = (
  why: string,
  fix = 'Check the codes of the profile.',
  what = 'What would be written',
): Finding =>
  finding('stop', 'not-read-back', 'profile', `${what} cannot be read back as it is meant.`, why, fix)
