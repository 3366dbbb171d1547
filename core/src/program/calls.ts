import { type Block, wordValue } from './block.ts'
import { MAY_MOVE } from './check-words.ts'
import { type Frame, newLocals } from './frame.ts'
import { argumentsOf } from './macro-flow.ts'
import { ownProgram, takeOnWord } from './on-word.ts'
import { probeCall } from './probe-calls.ts'
import type { Run } from './run.ts'
import { bit, letterAtPlace } from './scan.ts'
import { settingCall } from './setting-call.ts'
import { unseenArguments } from './unseen-words.ts'

/** Calls nest no deeper than this, whatever the profile allows. */
const DEEPEST_CALL = 64
/** Letters whose number is a length, among the words of a macro call. */
const LENGTHS = new Set(['X', 'Y', 'Z', 'I', 'J', 'K', 'R', 'U', 'W', 'Q', 'D', 'F'])

export function callMacro(block: Block, number: number, locals: Float64Array, name?: string): void {
  enter(block, 'G65', number, block.index.program(number), 1, locals, name)
}

/** Goes a level deeper. */
function enter(
  block: Block,
  kind: Frame['kind'],
  number: number,
  line: number | undefined,
  repeats: number,
  locals?: Float64Array,
  name = kind === 'M97' ? `N${number}` : `O${number}`,
): void {
  const { run } = block
  if (line === undefined) {
    if (kind === 'M97')
      run.wrong('subprogram-missing', 'stop', `There is no N${number} to call.`, {
        does: 'The control stops with an alarm.',
        once: name,
      })
    else if (name.startsWith('<'))
      run.wrong('subprogram-missing', 'stop', `Program ${name} is not in this text.`, {
        does: 'What it moves is not shown, so the program is not proved. Open its file together with this one.',
        once: name,
      })
    else if (!ownProgram(run, number))
      run.wrong('subprogram-missing', 'stop', `Program ${name} is not in this text.`, {
        does: MAY_MOVE,
        own: name,
        once: name,
      })
    return
  }
  const { levels } = run.options.profile.reading
  if (run.frames.length > levels)
    run.wrong('levels', 'stop', `Calls nest more than ${levels} deep.`, {
      does: 'The control stops with an alarm.',
      once: 'all',
    })
  if (run.frames.length >= DEEPEST_CALL) {
    run.wrong('recursion', 'stop', `Calls nest ${DEEPEST_CALL} deep: the program calls itself without end.`, {
      does: 'The control stops with an alarm.',
    })
    run.ended = true
    return
  }
  if (repeats <= 0) return
  run.frames.push({
    kind,
    back: run.lineIndex + 1,
    begins: line,
    repeats,
    name,
    locals: locals ?? run.frame.locals,
    loops: [],
  })
  block.next = line
  const own = line >= run.libraryLine ? run.library.codes.get(name) : undefined
  if (own?.code.startsWith('O')) takeOnWord(run, own.code, own.does, own.by)
  goTo(run, line)
}

/** Whether it now runs in the text of the program itself, or of one of the profile's. */
function goTo(run: Run, line: number): void {
  const away = line >= run.libraryLine
  if (away === run.away) return
  run.away = away
  run.changed()
}

/** The words of a block as a macro call hands them over. */
export function argumentWords({ scan }: Run): { letter: string; value: number }[] {
  const words: { letter: string; value: number }[] = []
  for (let n = 0; n < scan.count; n++) {
    const letter = letterAtPlace(scan.letters[n] as number)
    if (!'GPNLO'.includes(letter) && scan.mask & bit(letter))
      words.push({ letter, value: scan.values[n] as number })
  }
  return words
}

/** The program that a block calls by its P. */
const numberCalled = (run: Run): { number: number; name?: string } | undefined => {
  const p = wordValue(run, 'P')
  return p === undefined ? undefined : { number: p }
}

/** Which program a block calls: by P, or by a name in angle brackets; undefined where neither says so. */
function calledBy({ run, index }: Block): { number: number; name?: string } | undefined {
  const by = numberCalled(run)
  if (by) return by
  const { name } = run.scan
  return name === undefined ? undefined : { number: index.numberOf(name), name: `<${name}>` }
}

/** Macro calls; the words are those of the line, expressions evaluated. */
export function macroCall(block: Block, modal: boolean): void {
  const { run } = block
  const called = calledBy(block)
  if (called === undefined) {
    run.wrong('macro-no-p', 'stop', `G${modal ? 66 : 65} without P: which macro is not said.`, {
      does: 'The control stops with an alarm.',
    })
    return
  }
  unseenArguments(run)
  const { number: p, name } = called
  const words = argumentWords(run)
  if (!modal) {
    const lengths = Object.fromEntries(
      words.map(({ letter, value }) => [letter, LENGTHS.has(letter) ? value * run.scale : value]),
    )
    if (probeCall(run, p, lengths) || settingCall(run, p, lengths)) return
  }
  const locals = argumentsOf(words, newLocals())
  if (modal) {
    run.modalMacro = { program: p, args: locals, level: run.frames.length, ...(name ? { name } : {}) }
    run.changed()
  } else callMacro(block, p, locals, name)
}

export function subprogram(block: Block, code: 97 | 98 | 198): void {
  const { run } = block
  const called = code === 97 ? numberCalled(run) : calledBy(block)
  if (called === undefined) {
    run.wrong('call-no-p', 'stop', `M${code} without P: which is not said.`, {
      does: 'The control stops with an alarm.',
    })
    return
  }
  let { number } = called
  let often = wordValue(run, 'L') ?? 1
  // Eight digits: how often, then which. Common practice on controls with four-digit numbers.
  if (code !== 97 && !called.name && number > 9999 && run.options.profile.program.digits === 4) {
    often = Math.floor(number / 10_000)
    number %= 10_000
  }
  const line = code === 97 ? block.index.numbered(number, run.lineIndex) : block.index.program(number)
  enter(block, code === 97 ? 'M97' : 'M98', number, line, Math.floor(often), undefined, called.name)
}

export function goBack(block: Block): void {
  const { run } = block
  const { frame } = run
  if (frame.kind === 'main') {
    run.wrong('main-loops', 'note', 'M99 in the main program: it begins again from the top, for ever.', {
      does: 'Shown once through.',
    })
    run.event({ does: 'end' })
    run.ended = true
    return
  }
  if (frame.repeats > 1) {
    frame.repeats--
    frame.loops.length = 0
    block.next = frame.begins
    return
  }
  run.frames.pop()
  const p = wordValue(run, 'P')
  const elsewhere = p === undefined ? undefined : block.index.numbered(p, Math.max(0, frame.back - 1))
  block.next = elsewhere ?? frame.back
  goTo(run, block.next)
}
