import { z } from 'zod'
import { defineEntry, entrySchema, spokenWords, textHash, versionRef } from '../log/index.ts'
import { formatDuration } from '../quantity/index.ts'

/** A time that something takes, in seconds: at most a week. */
export const secondsTaken = z
  .number()
  .min(0)
  .max(7 * 86_400)

const timeParts = z.object({
  cutting: secondsTaken,
  rapid: secondsTaken,
  toolChange: secondsTaken,
  dwell: secondsTaken,
  spindle: secondsTaken,
  tappingOut: secondsTaken,
  probing: secondsTaken,
})

/** A cycle, timed at the machine. */
export const timed = defineEntry({
  schema: entrySchema('timed', {
    title: spokenWords(80, 'Give the program a name.'),
    hash: textHash,
    reckoned: timeParts.describe('seconds of each kind, as they were computed for the machine as it was'),
    seconds: secondsTaken.refine((value) => value > 0, { error: 'A cycle takes some time.' }),
    doubt: secondsTaken
      .refine((value) => value > 0, { error: 'No timing is exact.' })
      .describe('of one cycle'),
    cycles: z.int().min(1).max(10_000).describe('cycles that were timed together'),
    how: z.enum(['stopwatch', 'typed']),
    machine: versionRef,
    profile: versionRef,
  }),
  upcast: [],
  makesStale: 'nothing',
  describe: ({ title, seconds, doubt, cycles, how }) => ({
    says: `${title} timed: ${formatDuration(seconds)} a cycle`,
    detail: `within ${formatDuration(doubt)}, ${cycles} ${cycles === 1 ? 'cycle' : 'cycles'}, ${how === 'typed' ? 'typed' : 'stopwatch'}`,
  }),
  group: 'run',
  slim: 'whole',
  onMachine: 'nothing',
  carried: false,
  written: 'at-machine',
})
