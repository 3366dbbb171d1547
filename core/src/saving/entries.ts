import { z } from 'zod'
import { defineEntry, entrySchema, LONGEST_PROGRAM, spokenWords, textHash } from '../log/index.ts'
import { proved } from '../prove/index.ts'
import { formatDuration } from '../quantity/index.ts'
import { secondsTaken } from '../timing/index.ts'

const textAndTime = z.object({ hash: textHash, seconds: secondsTaken })

/** Time that was saved in a program, which has another text since. */
export const saved = defineEntry({
  schema: entrySchema('saved', {
    title: spokenWords(80, 'Give the program a name.'),
    code: z.string().max(40),
    line: z.int().min(1),
    says: z.string().min(1).max(300).describe('the change'),
    before: textAndTime,
    after: textAndTime,
    verdict: z.enum(['good', 'look', 'stop']).describe('what Prove says of the text after it'),
    text: z.string().min(1).max(LONGEST_PROGRAM).describe('the text after it'),
  }),
  upcast: [],
  makesStale: ({ title, after }) => [
    {
      past: 'time was saved in it',
      whom: ({ entry: of }) => proved.is(of) && of.title === title && of.hash !== after.hash,
    },
  ],
  describe: ({ title, says, line, before, after }) => ({
    says: `Saved in ${title}: ${says}`,
    detail: `line ${line}, ${formatDuration(before.seconds)} before, ${formatDuration(after.seconds)} after`,
  }),
  group: 'run',
  slim: (entry) => ({ ...entry, text: '-' }),
  onMachine: 'nothing',
  carried: false,
  written: 'at-machine',
})
