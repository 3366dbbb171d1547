import { leastStepIn } from '../machine/index.ts'
import { CHORD } from './arc.ts'
import { type Block, type Codes, codesOf } from './block.ts'
import { carryOut } from './carry-out.ts'
import { lexical } from './check-words.ts'
import { compensate, isCompensated } from './compensate.ts'
import { withCorners } from './corners.ts'
import type { Diagnostic } from './diagnose.ts'
import { ontoSpindle } from './face-rows.ts'
import { libraryOf } from './library.ts'
import { statement } from './macro-flow.ts'
import type { Motion } from './motion.ts'
import type { LengthMeasured, OffsetWritten, VariableSet } from './offset-written.ts'
import type { Alarm, Probed } from './probed.ts'
import type { ReadOptions } from './read-options.ts'
import { Run } from './run.ts'
import { bit, place } from './scan.ts'
import type { TakenOnWord } from './taken.ts'
import { TextIndex } from './text-index.ts'
import { BLOCK_WORK, EXPRESSION_WORK, MOST_WORK, OutOfWork } from './work.ts'

/** A program as it was read: what it does, and what is wrong with it. */
export interface Program {
  /** What the tool does; under compensation beside what is written. */
  motion: Motion
  /** The path as it is written, where the tool goes beside it. */
  written?: Motion
  diagnostics: Diagnostic[]
  /** Diagnostics beyond those that are kept. */
  further: number
  lines: number
  /** Reading was stopped before the end, by whoever asked for it. */
  cancelled: boolean
  /** Whether it says its unit, and which. */
  unitSaid: boolean
  inch: boolean
  probing: Probed
  /** Common and system variables as they were written, in the program's own unit. */
  variables: ReadonlyMap<number, number>
  /** Lines printed to a log file. */
  printed: readonly string[]
  /** What it wrote into offsets, in order. */
  offsets: readonly OffsetWritten[]
  /** Tools that the macro of a setter measured, in order. */
  lengths: readonly LengthMeasured[]
  /** Each time that it set a common variable, in order. */
  sets: readonly VariableSet[]
  /** What was not read from the program itself, but taken on somebody's word, in order. */
  taken: readonly TakenOnWord[]
  /** What stopped it before its end. */
  alarm?: Alarm
}

/** Blocks read between two calls of `onProgress`. */
const PROGRESS_EVERY = 8192
/** Blocks that run beyond the lines that there are, before a loop is taken to have no end. */
const SPARE_BLOCKS = 500_000

/** Words that a block does something by. */
const SPOKEN = ~(bit('N') | bit('O'))
const PLAIN_WORDS = bit('N') | bit('G') | bit('X') | bit('Y') | bit('Z') | bit('F')
const MOVES = bit('X') | bit('Y') | bit('Z')
const [SLOT_G, SLOT_X, SLOT_Y, SLOT_Z, SLOT_F] = [place('G'), place('X'), place('Y'), place('Z'), place('F')]

/** A straight absolute move of plain words, the quick way; false where it needs care. */
function quick(run: Run, saidPoint: boolean): boolean {
  const { scan } = run
  const { mask, values, marks, slot } = scan
  if ((mask & ~PLAIN_WORDS) !== 0 || scan.repeated !== 0) return false
  if (mask & 128) {
    const code = values[slot[SLOT_G] as number] as number
    if (code !== 0 && code !== 1) return false
    if (code !== run.motion) {
      run.motion = code
      run.lastPlain = code
    }
  }
  const { scale } = run
  if (mask & 64) {
    const feed = values[slot[SLOT_F] as number] as number
    if (feed < 0) return false
    run.feed = feed * scale
  }
  if ((mask & MOVES) === 0) {
    run.out.block(run.lineIndex + 1, run.frames.length - 1)
    return true
  }
  let x = run.wx
  let y = run.wy
  let z = run.wz
  if (mask & (1 << SLOT_X)) {
    const at = slot[SLOT_X] as number
    x = values[at] as number
    if (!saidPoint && marks[at] === 0 && x !== 0) return false
    x *= scale
  }
  if (mask & (1 << SLOT_Y)) {
    const at = slot[SLOT_Y] as number
    y = values[at] as number
    if (!saidPoint && marks[at] === 0 && y !== 0) return false
    y *= scale
  }
  if (mask & (1 << SLOT_Z)) {
    const at = slot[SLOT_Z] as number
    z = values[at] as number
    if (!saidPoint && marks[at] === 0 && z !== 0) return false
    z *= scale
  }
  const { motion } = run
  if (motion === 1 && run.feed <= 0) return false
  run.wx = x
  run.wy = y
  run.wz = z
  run.sx = x + run.shiftX
  run.sy = y + run.shiftY
  run.sz = z + run.shiftZ
  run.out.plain(
    motion,
    run.flags,
    run.sx,
    run.sy,
    run.sz,
    motion === 0 ? 0 : run.feed,
    run.lineIndex + 1,
    run.stateIndex,
    run.frames.length - 1,
  )
  return true
}

/** What a text that is no program gets said. */
function strange(text: string): Diagnostic | undefined {
  const says = text.includes('\u0000')
    ? 'This is not plain text: it is binary, or saved as UTF-16. Save it as plain text (ASCII or UTF-8).'
    : text.trim() === ''
      ? 'The program is empty.'
      : undefined
  return says
    ? { code: 'not-a-program', severity: 'stop', line: 1, from: 0, to: 1, says, times: 1 }
    : undefined
}

/**
 * Reads an NC program of a mill or lathe as the control would (ISO 6983-1 / RS-274 words, canned cycles, subprograms,
 * macros): what it makes the tool do, and what is wrong with it. Takes any text; never throws, and comes to an end: loops
 * and calls are bounded, and `onProgress` can stop it.
 */
export function read(input: string, options: ReadOptions, listen?: (block: Block) => void): Program {
  const library = libraryOf(options)
  const program =
    input.includes('\r') && /\r(?!\n)/.test(input)
      ? input.replaceAll('\r\n', '\n').replaceAll('\r', '\n')
      : input
  const text = library.text === '' ? program : `${program}\n${library.text}`
  const run = new Run(
    text,
    options,
    library,
    library.text === '' ? Number.POSITIVE_INFINITY : linesIn(program),
  )
  run.listened = listen !== undefined
  run.changed()
  const index = new TextIndex(text, run.work)
  const codes = codesOf(options)
  const { scan, out } = run
  const reads = options.profile.reading.noPoint
  const odd = strange(program)
  if (odd) run.say.all.push(odd)
  const end = program.length
  let at = 0
  let ran = 0
  let backwards = 0
  let cancelled = false
  let lines = 0
  /** The furthest line that was read: beyond it nothing ran. */
  let furthest = 0
  let unread = 0
  const most = options.mostBlocks ?? Number.POSITIVE_INFINITY
  // Who allows more work allows more blocks.
  const spare = SPARE_BLOCKS * Math.max(1, run.work.most / MOST_WORK)

  try {
    while ((at < end || (run.away && at < text.length)) && !run.ended) {
      if (++ran % PROGRESS_EVERY === 0 && options.onProgress && !options.onProgress(Math.min(1, at / end))) {
        cancelled = true
        break
      }
      if (ran > most || backwards > spare) {
        run.wrong(
          'no-end',
          'stop',
          `After ${ran.toLocaleString('en')} blocks the program has not come to its end.`,
          {
            does: 'The control goes on for ever.',
          },
        )
        break
      }
      run.work.spend(BLOCK_WORK)
      run.lineAt = at
      const next = scan.line(at)
      if (run.lineIndex >= furthest && !run.away) {
        furthest = run.lineIndex
        unread = next
      }
      // A program number, a line number or a comment alone is no block that the control stops at.
      const silent =
        !scan.tooLarge &&
        (scan.mask & SPOKEN) === 0 &&
        scan.macroAt < 0 &&
        scan.badAt < 0 &&
        scan.openCommentAt < 0 &&
        (scan.nameAt < 0 || (scan.mask & bit('O')) !== 0)
      if (silent) {
        if ((scan.mask & bit('O')) !== 0 && endsBefore(run)) break
        run.lineIndex++
        at = next
        continue
      }
      const simple =
        scan.macroAt < 0 &&
        scan.badAt < 0 &&
        scan.openCommentAt < 0 &&
        !scan.tooLarge &&
        !scan.optional &&
        !scan.hasExpression &&
        scan.nameAt < 0
      if (simple && run.plain && run.gathers === null && quick(run, reads === 'whole' && run.saidPoint)) {
        run.lineIndex++
        at = next
        continue
      }
      const looked = next - at
      run.work.spend(scan.macroAt >= 0 || scan.hasExpression ? EXPRESSION_WORK * looked : looked)
      out.block(run.line, run.frames.length - 1)
      const jumped = careful(run, index, codes, listen)
      if (run.ended) break
      if (jumped === undefined) {
        run.lineIndex++
        at = next
      } else {
        if (jumped <= run.lineIndex) backwards++
        // Blocks of loops count one by one, those that are run through once do not.
        if (backwards > 0) backwards++
        run.lineIndex = jumped
        const start = index.startOf(jumped)
        if (start === undefined) break
        at = start
      }
    }
  } catch (error) {
    if (!(error instanceof OutOfWork)) throw error
    tooMuch(run)
  }
  if (!cancelled) {
    finish(run, odd !== undefined)
    lines = restOfText(run, furthest + 1, unread, end)
  }
  const cornered = run.corners.length > 0 ? withCorners(out.done(run.start), run.corners, run.say) : undefined
  if (cornered) movedRows(run, cornered.firstRow)
  const written = cornered?.motion ?? out.done(run.start)
  const { machine, unit, profile } = options
  const beside = isCompensated(written)
    ? compensate(written, profile.reading.compensation, leastStepIn(machine, unit), run.say)
    : undefined
  if (beside) movedRows(run, beside.firstRow)
  const path = beside?.motion ?? written
  const turned = run.wasOnFace ? ontoSpindle(path, CHORD[unit], run.say) : undefined
  if (turned) movedRows(run, turned.firstRow)
  return {
    motion: turned?.motion ?? path,
    ...(beside ? { written: turned ? ontoSpindle(written, CHORD[unit]).motion : written } : {}),
    diagnostics: run.say.all,
    further: run.say.further,
    lines,
    cancelled,
    unitSaid: run.unitSaid,
    inch: run.inch,
    probing: run.probing,
    variables: run.common,
    printed: run.printed,
    offsets: run.offsetsWritten,
    lengths: run.lengthsMeasured,
    sets: run.variablesSet,
    taken: [...run.taken.values()],
    ...(run.alarm ? { alarm: run.alarm } : {}),
  }
}

/** Rows that probing counts by, after rows came between. */
function movedRows({ probing }: Run, firstRow: Uint32Array): void {
  for (const call of probing.calls)
    call.rows = call.rows.map((row) => firstRow[row] as number) as [number, number]
}

/** How many lines there are before what stands after a text and one more line break. */
function linesIn(text: string): number {
  let lines = 1
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) lines++
  return lines
}

/** Says that reading was stopped here: what comes after was not looked at. */
function tooMuch(run: Run): void {
  run.wrong(
    'too-much',
    'stop',
    `This is more work than was allowed (${Math.round(run.work.most / 1e6)} million steps): a loop that goes on, or pecks or passes that are too small. What comes after it was not read.`,
    { does: 'The control would take very long, or for ever.' },
  )
  run.ended = true
}

/** A block that needs care; gives the line to go on with, where it is not the next. */
function careful(
  run: Run,
  index: TextIndex,
  codes: Codes,
  listen: ((block: Block) => void) | undefined,
): number | undefined {
  const { scan } = run
  lexical(run)
  if (scan.optional) {
    if (scan.level !== 1) levelled(run)
    if (run.options.skipOptional) return undefined
  }
  if ((scan.mask & bit('O')) !== 0 && endsBefore(run)) return undefined
  if (scan.macroAt >= 0) {
    const flow = statement(run, index, scan.macroAt - run.lineAt)
    return flow === 'next' ? undefined : flow
  }
  const block: Block = { run, index, codes, g: [], m: [], own: [], listen, carryOut }
  carryOut(block)
  return block.next
}

/** A line that another switch than the first skips: all of them are taken to stand alike. */
function levelled(run: Run): void {
  const { level } = run.scan
  const is = run.options.skipOptional ? 'on: the line is skipped' : 'off: the line runs'
  if (level === 0)
    run.wrong('block-delete-level', 'stop', '/0 is no switch of block delete: they are /1 to /9.', {
      does: 'The control stops with an alarm.',
    })
  else
    run.wrong('block-delete-level', 'look', `/${level} is skipped by a switch of its own.`, {
      does: `It is proved with every switch of block delete ${is}. Set switch ${level} at the control like the first.`,
      once: level,
    })
}

/** A further O number ends the program before it: true where that is so. */
function endsBefore(run: Run): boolean {
  const { frame } = run
  if (run.lineIndex === frame.begins || run.out.blocks <= 1 || run.out.count === 0) return false
  run.wrong(
    'runs-into-next',
    'stop',
    'The program runs into the next one: M30 or M99 is missing before this line.',
    {
      does: 'The control stops with an alarm, or runs on into it.',
    },
  )
  run.ended = true
  return true
}

function finish(run: Run, odd: boolean): void {
  const { events, blocks } = run.out
  if (odd || blocks === 0) return
  if (!run.unitSaid)
    run.say.add({
      code: 'unit-not-said',
      severity: 'look',
      line: 1,
      from: 0,
      to: 1,
      says: `Nothing says G20 or G21: read as ${run.inch ? 'inch' : 'mm'}.`,
      does: 'The control uses the unit that was last in force.',
    })
  if (run.face)
    run.wrong('face-left-on', 'stop', 'Polar interpolation is on when the program ends.', {
      does: 'The next program begins with it, or the control stops with an alarm.',
    })
  if (!run.ended && events.at(-1)?.does !== 'end')
    run.wrong('no-m30', 'look', 'The program ends without M30 or M2.', {
      does: 'The control stops with an alarm, or with everything as it is.',
    })
}

/** Looks through the lines that did not run for what cannot be read; gives how many lines there are. */
function restOfText(run: Run, from: number, start: number, end: number): number {
  const { scan } = run
  let line = from
  run.away = false
  for (let at = start; at < end; line++) {
    run.lineIndex = line
    run.lineAt = at
    at = scan.line(at)
    if (scan.badAt >= 0 || scan.openCommentAt >= 0 || scan.repeated !== 0) lexical(run)
  }
  return line
}
