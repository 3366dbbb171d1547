import { type Block, has, movesAxes, ROTARY } from './block.ts'
import { argumentWords, callMacro } from './calls.ts'
import { newLocals } from './frame.ts'
import { argumentsOf } from './macro-flow.ts'
import { doWait, notAllowed, takeOnWord } from './on-word.ts'
import type { Run } from './run.ts'
import { unseenArguments } from './unseen-words.ts'

/** What of it stands before the block moves; true where it took the words of the block. */
export function ownCalls(block: Block): boolean {
  const { run } = block
  for (const { own } of block.own) takeOnWord(run, own.code, own.does, own.by)
  for (const { own, word } of block.own) {
    if (own.does === 'not-allowed') notAllowed(run, own, word)
    else if (own.does === 'call') {
      unseenArguments(run)
      const number = run.library.numbers.get(own.code) as number
      if (own.modal && own.code.startsWith('G')) {
        // As G66: after every move of this level until G67, with the words of this line, which itself does not move.
        const args = argumentsOf(argumentWords(run), newLocals())
        run.modalMacro = { program: number, args, level: run.frames.length, name: own.code }
        run.changed()
        return true
      }
      callMacro(block, number, argumentsOf(argumentWords(run), newLocals()), own.code)
      return true
    } else if (own.code.startsWith('G') && namesAxes(run))
      run.wrong('own-code-axes', 'stop', `${own.code} stands in one line with axis words.`, {
        does: `The profile says that ${own.code} moves nothing: whether these words still do is not known. Put them in a line of their own.`,
        word,
        once: own.code,
      })
  }
  return false
}

const namesAxes = (run: Run) =>
  movesAxes(run) || [...ROTARY, 'U', 'V', 'W'].some((letter) => has(run, letter))

/** What of it comes after the move. */
export function ownAfter({ run, own: all }: Block): void {
  for (const { own } of all) doWait(run, own)
}
