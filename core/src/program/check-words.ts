import type { Block } from './block.ts'
import { gCode, mCode } from './codes.ts'
import { evaluate } from './expression.ts'
import type { Run } from './run.ts'
import { bit, EXPRESSION, GREATEST, letterAtPlace } from './scan.ts'
import { getVariable } from './system-variables.ts'

const NOTHING_ELSE = /^\s*$/

/** Evaluates the expressions of the block's words; a variable that was never set takes its word out of the block. */
export function evaluateWords(run: Run): void {
  const { scan } = run
  run.unset = 0
  const variables = { get: (number: number) => getVariable(run, number) }
  for (let n = 0; n < scan.count; n++) {
    if (((scan.marks[n] as number) & EXPRESSION) === 0) continue
    const source = scan.text.slice((scan.from[n] as number) + 1, scan.to[n])
    const found = evaluate(source, 0, variables)
    const wrong =
      found.wrong ??
      (NOTHING_ELSE.test(source.slice(found.end)) ? undefined : 'An expression without its brackets.')
    if (wrong) run.wrong('expression', 'stop', wrong, { does: 'The control stops with an alarm.', word: n })
    scan.values[n] = wrong ? 0 : found.value
    if (Math.abs(found.value) > GREATEST) tooLarge(run)
    if (!wrong && Number.isNaN(found.value)) {
      const letter = letterAtPlace(scan.letters[n] as number)
      run.wrong('unset-variable', 'look', `${letter}${source.trim()}: the variable was never set.`, {
        does: `The control reads the block as if ${letter} were not in it.`,
        word: n,
      })
      scan.mask &= ~(1 << (scan.letters[n] as number))
      run.unset |= 1 << (scan.letters[n] as number)
    }
  }
}

/** Says that a number of the block is too large, and reads it as 0. */
function tooLarge(run: Run): void {
  const { scan } = run
  for (let word = 0; word < scan.count; word++) {
    if (!(Math.abs(scan.values[word] as number) > GREATEST)) continue
    scan.values[word] = 0
    run.wrong('number-large', 'stop', 'This number is larger than any control takes.', {
      does: 'The control stops with an alarm. It is read as 0 here.',
      word,
    })
  }
}

/** What the line's own text is wrong with. */
export function lexical(run: Run): void {
  const { scan } = run
  if (scan.badAt >= 0) {
    const line = scan.text.slice(scan.badAt, scan.badAt + 20).split('\n', 1)[0] as string
    run.wrong('not-a-word', 'stop', `"${printable(line.trim())}" is not a word.`, {
      does: 'The control stops with an alarm; the rest of the line is not read.',
      at: [scan.badAt, scan.badAt + Math.max(1, line.trimEnd().length)],
    })
  }
  if (scan.openCommentAt >= 0)
    run.wrong('comment-open', 'look', 'A comment is not closed: ) is missing.', {
      does: 'The rest of the line is taken for the comment; some controls read on through the next lines.',
      at: [scan.openCommentAt, scan.openCommentAt + 1],
    })
  if (scan.tooLarge) tooLarge(run)
  const twice = scan.repeated & ~(bit('G') | bit('M') | bit('I') | bit('J') | bit('K'))
  if (twice !== 0) {
    const letter = letterAtPlace(31 - Math.clz32(twice & -twice))
    run.wrong('word-twice', 'stop', `${letter} stands twice in one block.`, {
      does: 'The control stops with an alarm, or takes the last one.',
      word: scan.slot[31 - Math.clz32(twice & -twice)] as number,
    })
  }
}

/** Without what cannot be shown. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: they are what is taken out
const printable = (text: string) => text.replace(/[\u0000-\u001f\u007f-\u009f]/g, '·')

/** Why a program with something in it that was not seen is not proved. */
export const MAY_MOVE = 'It may move something that is not shown, so the program is not proved.'

/** A code that may move something, and that the reader does not follow: said at its first place. */
export function notSeen({ run }: Block, letter: 'G' | 'M', code: number, word: number): void {
  const name = `${letter}${code}`
  const meaning = letter === 'G' ? gCode(code, run.options.machine.kind) : mCode(code)
  const at = { word, once: name }
  if (meaning && meaning.standing !== 'not-seen')
    run.wrong('unknown-code', 'stop', `${name} is no code of this control, as its profile says.`, {
      does: 'The control stops with an alarm. Where it has the code, the profile’s page lacks it.',
      ...at,
    })
  else if (meaning)
    run.wrong('not-seen', 'stop', `${name} is not followed: ${lowered(meaning.says)}`, {
      does: MAY_MOVE,
      own: name,
      ...at,
    })
  else run.wrong('unknown-code', 'stop', `${name} is not known here.`, { does: MAY_MOVE, own: name, ...at })
}

const lowered = (says: string) => says.charAt(0).toLowerCase() + says.slice(1)

/** Says where a move at feed has none. */
export function noFeed(run: Run): void {
  if (run.feed > 0) return
  run.wrong('no-feed', 'stop', 'No feed has been given.', {
    does: 'The control stops with an alarm.',
    once: 'moves',
  })
}
