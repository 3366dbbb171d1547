import { MOST_WRITTEN } from './offset-written.ts'
import { takeOnWord } from './on-word.ts'
import type { CallWords } from './probe-calls.ts'
import type { Run } from './run.ts'

/**
 * Runs a call of the macro of a tool setter: the tool is measured and its length written into the table. Where the setter stands the
 * reader does not know, and says so; it ends where it began. False where the number is not the profile's.
 */
export function settingCall(run: Run, number: number, words: CallWords): boolean {
  const { setting } = run.options.profile
  if (setting?.length !== number) return false
  takeOnWord(run, `O${number}`, 'macro')
  const tool = words[setting.word] ?? run.tool
  if (run.lengthsMeasured.length < MOST_WRITTEN) run.lengthsMeasured.push({ tool, block: run.out.blocks - 1 })
  run.event({ does: 'dwell', seconds: setting.seconds })
  run.wrong(
    'setter-not-seen',
    'look',
    'The macro goes down on the tool setter: what stands there is not looked at.',
    {
      does: 'The control measures the tool and writes its length into the table.',
      once: 'all',
    },
  )
  if (tool !== run.tool)
    run.wrong('sets-another-tool', 'stop', `T${tool} is measured while T${run.tool} is in the spindle.`, {
      does: 'The length of one tool is written for another.',
    })
  return true
}
