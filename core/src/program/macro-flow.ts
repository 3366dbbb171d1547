import { wearOf } from './compensation-radius.ts'
import { type Evaluated, evaluate } from './expression.ts'
import { writesOffsetVariable, writesWear } from './loads-offset.ts'
import type { Run } from './run.ts'
import { getVariable, isOffsetVariable, setVariable } from './system-variables.ts'
import type { TextIndex } from './text-index.ts'

/** Where reading goes on: a line from 0, or the next one. */
export type Flow = number | 'next'

const variablesOf = (run: Run) => ({ get: (number: number) => getVariable(run, number) })

/** Evaluates what stands at `at` of a text of this line; says what is wrong with it. */
function valueAt(run: Run, source: string, at: number, column: number): Evaluated {
  const found = evaluate(source, at, variablesOf(run))
  if (found.wrong)
    run.wrong('expression', 'stop', found.wrong, {
      does: 'The control stops with an alarm.',
      at: [column + at, column + Math.max(found.end, at + 1)],
    })
  return found
}

/** The line without comments, every character still in its place. */
const withoutComments = (text: string) =>
  text.replace(/\([^)]*\)?/g, (comment) => ' '.repeat(comment.length)).replace(/;.*$/, '')

function assignments(run: Run, source: string, from: number, column: number, comment: string): void {
  let at = from
  while (source[at] === '#') {
    const target = evaluate(source, at + 1, variablesOf(run))
    const equals = /^\s*=\s*/.exec(source.slice(target.end))
    if (target.wrong || !equals) {
      run.wrong('statement', 'stop', target.wrong ?? 'A variable that is not given a value: = is missing.', {
        does: 'The control stops with an alarm.',
        at: [column + at, column + source.length],
      })
      return
    }
    const value = sum(run, source, target.end + equals[0].length, column)
    if (value.wrong) return
    const number = Math.round(target.value)
    if (number === 3000) {
      alarm(run, value.value, comment)
      return
    }
    if (number === 3006) run.event({ does: 'stop', optional: false, says: comment })
    else {
      const wrong = setVariable(run, number, value.value)
      if (wrong) run.wrong('statement', 'stop', wrong, { at: [column + at, column + value.end] })
      else if (wearOf(run.options.profile, number) !== undefined)
        writesWear(run, { at: [column + at, column + value.end] })
      else if (isOffsetVariable(number))
        writesOffsetVariable(run, number, value.value, { at: [column + at, column + value.end] })
    }
    at = value.end
    while (at < source.length && source.charCodeAt(at) <= 32) at++
  }
  if (source.slice(at).trim() !== '')
    run.wrong('statement', 'stop', `"${source.slice(at).trim().slice(0, 20)}" stands after the value.`, {
      does: 'The control stops with an alarm.',
      at: [column + at, column + source.length],
    })
}

/** Variables of controls have some twelve digits. From memory. */
const LARGEST_VALUE = 1e12

/** The right side of an assignment needs no brackets of its own: it is read as if it stood in them. */
function sum(run: Run, source: string, at: number, column: number): Evaluated {
  const rest = `[${source.slice(at)}]`
  const found = evaluate(rest, 0, variablesOf(run))
  const wrong =
    found.wrong ??
    (found.end < rest.length
      ? 'The brackets of the value do not match.'
      : Math.abs(found.value) > LARGEST_VALUE
        ? 'The value is larger than any control keeps.'
        : undefined)
  if (!wrong) return { value: found.value, end: source.length }
  run.wrong('expression', 'stop', wrong, {
    does: 'The control stops with an alarm.',
    at: [column + at, column + source.length],
  })
  return { value: 0, end: source.length, wrong }
}

function alarm(run: Run, number: number, comment: string): void {
  run.wrong('alarm', 'look', `The program stops here with alarm ${number}${comment ? `: ${comment}` : ''}.`, {
    does: 'Everything stops; it must be cleared and the program begun again.',
  })
  run.event({ does: 'stop', optional: false, says: comment || `alarm ${number}` })
  run.alarm = { line: run.line, number, says: comment }
  run.ended = true
}

/** Lines beyond these are not kept. */
const MOST_PRINTED = 10_000

/**
 * A line to a log file: DPRNT[TEXT*#100[44]]. A star is a space; a variable has its digits before and after the point.
 * Common practice, from memory.
 */
function print(run: Run, source: string, at: number): void {
  const inside = /^\[(.*)\]$/.exec(source)?.[1]
  const parts: string[] = inside?.match(/#\d+\[\d\d\]|[^#]+|#/g) ?? []
  if (inside === undefined || parts.includes('#')) {
    run.wrong('statement', 'stop', 'DPRNT is written DPRNT[TEXT*#100[44]].', {
      does: 'The control stops with an alarm.',
      at: [at, at + 5 + source.length],
    })
    return
  }
  const line = parts.map((part) => {
    const value = /^#(\d+)\[\d(\d)\]$/.exec(part)
    if (!value) return part.replaceAll('*', ' ')
    const of = getVariable(run, Number(value[1]))
    return (Number.isNaN(of) ? 0 : of).toFixed(Number(value[2]))
  })
  if (run.printed.length < MOST_PRINTED) run.printed.push(line.join(''))
}

function jump(run: Run, index: TextIndex, number: number): Flow {
  const line = index.numbered(number, run.lineIndex)
  if (line !== undefined) return line
  run.wrong('goto-missing', 'stop', `There is no N${number} to go to.`, {
    does: 'The control stops with an alarm.',
  })
  run.ended = true
  return 'next'
}

/** The line after the END that belongs to a DO. */
function afterEnd(run: Run, index: TextIndex, number: number): Flow {
  const ends = new RegExp(`^[\\s/]*(?:N\\s*\\d+\\s*)?END\\s*${number}\\b`, 'i')
  const end = index.firstAfter(run.lineIndex, `END${number}`, ends)
  if (end !== undefined) return end + 1
  run.wrong('end-missing', 'stop', `WHILE … DO${number} has no END${number}.`, {
    does: 'The control stops with an alarm.',
  })
  run.ended = true
  return 'next'
}

/** Runs a macro statement (assignment, IF, WHILE, DO, END, GOTO) that begins at `at` of this line's text. */
export function statement(run: Run, index: TextIndex, at: number): Flow {
  const raw = index.lineText(run.lineIndex)
  const source = withoutComments(raw).trimEnd()
  const comment = /\(([^)]*)/.exec(raw)?.[1]?.trim() ?? ''
  const column = run.lineAt
  const rest = source.slice(at)
  if (rest.startsWith('#')) {
    assignments(run, source, at, column, comment)
    return 'next'
  }
  if (/^(?:POPEN|PCLOS)$/i.test(rest.trim())) return 'next'
  if (/^DPRNT/i.test(rest)) {
    print(run, rest.slice(5).trim(), column + at)
    return 'next'
  }
  const goto = /^GOTO\s*/i.exec(rest)
  if (goto) {
    const target = valueAt(run, source, at + goto[0].length, column)
    return target.wrong ? 'next' : jump(run, index, Math.round(target.value))
  }
  const conditional = /^(IF|WHILE)\s*(?=\[)/i.exec(rest)
  if (conditional) {
    const condition = valueAt(run, source, at + conditional[0].length, column)
    if (condition.wrong) return 'next'
    const holds = condition.value !== 0 && !Number.isNaN(condition.value)
    const then = source.slice(condition.end).trimStart()
    const thenAt = source.length - then.length
    return conditional[1]?.toUpperCase() === 'WHILE'
      ? loop(run, index, holds, then)
      : branch(run, index, holds, then, thenAt, comment)
  }
  const plain = /^DO\s*(\d+)/i.exec(rest)
  if (plain) return loop(run, index, true, rest)
  const end = /^END\s*(\d+)/i.exec(rest)
  if (end) {
    const { loops } = run.frame
    const number = Number(end[1])
    const open = loops.findLastIndex((each) => each.number === number)
    if (open < 0) {
      run.wrong('end-alone', 'stop', `END${number} without a DO${number} before it.`, {
        does: 'The control stops with an alarm.',
      })
      return 'next'
    }
    const line = (loops[open] as { line: number }).line
    loops.length = open
    return line
  }
  run.wrong('statement', 'stop', `"${rest.slice(0, 20)}" is not a statement of the macro language.`, {
    does: 'The control stops with an alarm.',
    at: [column + at, column + source.length],
  })
  return 'next'
}

function loop(run: Run, index: TextIndex, holds: boolean, then: string): Flow {
  const number = Number(/^DO\s*(\d+)/i.exec(then)?.[1] ?? Number.NaN)
  if (Number.isNaN(number)) {
    run.wrong('statement', 'stop', 'WHILE without DO and its number.', {
      does: 'The control stops with an alarm.',
    })
    return 'next'
  }
  if (!holds) return afterEnd(run, index, number)
  const { loops } = run.frame
  if (loops.length < 64) loops.push({ number, line: run.lineIndex })
  return 'next'
}

function branch(
  run: Run,
  index: TextIndex,
  holds: boolean,
  then: string,
  thenAt: number,
  comment: string,
): Flow {
  const goto = /^GOTO\s*/i.exec(then)
  const does = /^THEN\s*/i.exec(then)
  const source = withoutComments(index.lineText(run.lineIndex)).trimEnd()
  if (goto) {
    if (!holds) return 'next'
    const target = valueAt(run, source, thenAt + goto[0].length, run.lineAt)
    return target.wrong ? 'next' : jump(run, index, Math.round(target.value))
  }
  if (does) {
    if (holds) assignments(run, source, thenAt + does[0].length, run.lineAt, comment)
    return 'next'
  }
  run.wrong('statement', 'stop', 'IF without GOTO or THEN.', { does: 'The control stops with an alarm.' })
  return 'next'
}

/** Argument letters of G65 and the variables that they set. Common practice; I J K may come again, each time three further. */
const ARGUMENTS: Record<string, number> = {
  A: 1,
  B: 2,
  C: 3,
  D: 7,
  E: 8,
  F: 9,
  H: 11,
  I: 4,
  J: 5,
  K: 6,
  M: 13,
  Q: 17,
  R: 18,
  S: 19,
  T: 20,
  U: 21,
  V: 22,
  W: 23,
  X: 24,
  Y: 25,
  Z: 26,
}

/** The local variables that a macro call's words set. */
export function argumentsOf(
  words: readonly { letter: string; value: number }[],
  into: Float64Array,
): Float64Array {
  let group = 0
  let last = -1
  for (const { letter, value } of words) {
    const base = ARGUMENTS[letter]
    if (base === undefined) continue
    if (letter === 'I' || letter === 'J' || letter === 'K') {
      // A letter that does not follow the last one begins the next three.
      if (base <= last) group++
      last = base
      const at = base + 3 * group
      if (at < into.length) into[at] = value
    } else into[base] = value
  }
  return into
}
